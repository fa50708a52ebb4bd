import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { type CanvasFacts, factsOf, sizeInWords } from '../../core/canvas/canvas';
import { newCanvasSchema } from '../../server/canvas/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Notice } from '../../ui/Notice';
import { TermsHere } from '../../ui/TermsHere';
import { asNumber } from '../../ui/typedNumber';
import { CheckinNav } from '../checkin/CheckinNav';
import { useWrite } from '../writing/useWrite';
import { CorrectionHistory } from './CorrectionHistory';
import { useChangeReport } from './useChangeReport';

const FIELDS = [
  ['title', 'Title', 'text'],
  ['width', 'Width, squares', 'whole'],
  ['height', 'Height, squares', 'whole'],
  ['pitchMm', 'Pitch, mm', 'mm'],
  ['packetDrills', 'Drills in an ordinary bag', 'whole'],
  ['panels', 'Panels side by side', 'whole'],
] as const;

/** The facts of a canvas, open to be corrected; what a correction costs is said before it is saved. */
export function FactsPage({ entry }: { entry: ShelfEntry }) {
  const { canvas } = entry;
  const url = `/api/canvases/${canvas.id}`;
  const { busy, fault, write } = useWrite(canvas.id);
  const form = useForm<CanvasFacts>({
    resolver: yupResolver(newCanvasSchema),
    defaultValues: factsOf(canvas),
    mode: 'onChange',
  });
  const values = form.watch();
  const { errors } = form.formState;
  const changed = changes(canvas, values);
  const isChanged = Object.keys(changed).length > 0;
  const isValid = Object.keys(errors).length === 0;
  const { report, fault: unknown } = useChangeReport(
    canvas.id,
    isChanged && isValid ? JSON.stringify(changed) : null,
  );
  const reload = () => window.location.reload();
  const save = form.handleSubmit((now) => {
    void write('PATCH', url, { id: crypto.randomUUID(), ...changes(canvas, now) }, reload);
  });
  return (
    <>
      <CheckinNav canvasId={canvas.id} here="/facts" />
      <div className="grid items-start gap-6 lg:grid-cols-[1fr_24rem]">
        <form onSubmit={save} noValidate className="slip flex max-w-2xl flex-col gap-4">
          <div className="grid gap-4 sm:grid-cols-2">
            {FIELDS.map(([name, words, kind]) => (
              <label key={name} className={`block ${name === 'title' ? 'sm:col-span-2' : ''}`}>
                <span className="mb-1 block font-semibold">{words}</span>
                <input
                  className={`field ${kind === 'text' ? '' : 'number'} ${errors[name] ? 'field-fault' : ''}`}
                  inputMode={kind === 'text' ? 'text' : 'decimal'}
                  aria-invalid={errors[name] !== undefined}
                  {...form.register(name, {
                    ...(kind === 'text' ? {} : asNumber(kind)),
                  })}
                />
                {errors[name] && (
                  <span role="alert" className="mt-1 block font-medium text-alarm">
                    {errors[name].message}
                  </span>
                )}
              </label>
            ))}
            <label className="block">
              <span className="mb-1 block font-semibold">Drills</span>
              <select className="field" {...form.register('shape')}>
                <option value="square">square</option>
                <option value="round">round</option>
              </select>
            </label>
            <label className="block">
              <span className="mb-1 block font-semibold">Bags carry</span>
              <select
                className="field"
                {...form.register('bagsCarry', { setValueAs: (value) => value || null })}
              >
                <option value="">not known: ask me</option>
                <option value="codes">codes</option>
                <option value="key numbers">key numbers</option>
              </select>
            </label>
          </div>
          <label className="flex min-h-11 items-center gap-3">
            <input type="checkbox" className="size-5 accent-accent" {...form.register('symbolsPrinted')} />
            The canvas has symbols printed on it
          </label>
          {fault && <Notice kind="fault">{fault}</Notice>}
          <button
            type="submit"
            className="button button-main self-start"
            disabled={busy || !report || report.fault !== null}
          >
            Save
          </button>
        </form>
        <section className="flex flex-col gap-3" aria-label="What it would change" aria-live="polite">
          <p className="number">{sizeInWords(values)}</p>
          <TermsHere terms={['square', 'pitch', 'panel', 'code', 'key number']} />
          {!isChanged && <p className="text-faded">Change a field to see here what it leads to.</p>}
          {unknown && <Notice kind="fault">{unknown}</Notice>}
          {report?.fault && <Notice kind="fault">{report.fault}</Notice>}
          {report && !report.fault && (
            <ul className="slip flex list-disc flex-col gap-2 pl-8">
              {report.costs.length === 0 ? <li>Nothing else changes.</li> : null}
              {report.costs.map((cost) => (
                <li key={cost}>{cost}</li>
              ))}
            </ul>
          )}
          <p>
            For those who pack kits:{' '}
            <a className="underline" href={`/canvas/${canvas.id}/checkin/packing`}>
              packing list
            </a>
          </p>
          <CorrectionHistory canvasId={canvas.id} onChanged={reload} />
        </section>
      </div>
    </>
  );
}

/** The facts that differ. */
function changes(before: CanvasFacts, after: CanvasFacts): Partial<CanvasFacts> {
  return Object.fromEntries(
    Object.entries(after).filter(
      ([name, value]) => name !== 'id' && (value || null) !== (before[name as keyof CanvasFacts] || null),
    ),
  );
}
