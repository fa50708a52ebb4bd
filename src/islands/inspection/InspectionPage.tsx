import { yupResolver } from '@hookform/resolvers/yup';
import { useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import { INSPECTION_KINDS, type InspectionKey, inspectionKind } from '../../core/inspection/inspection';
import { faultInPhoto } from '../../core/inspection/photo';
import { KEPT_DAYS } from '../../core/shelf/deleted';
import { counted } from '../../core/words/numbers';
import { type InspectionView, inspectionSchema } from '../../server/inspection/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Pencil, Trash2 } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { asNumber } from '../../ui/typedNumber';
import { TOO_SOON_MS } from '../../ui/useTooSoon';
import { CheckinNav } from '../checkin/CheckinNav';
import { sendFile, sendJson } from '../writing/api';
import { useView } from '../writing/useView';
import { useWrite } from '../writing/useWrite';

const EMPTY = {
  kind: 'print' as InspectionKey,
  note: '',
  widthCm: null as number | null,
  heightCm: null as number | null,
};

/** A dated record of the canvas out of its box, with what is usually done about each fault. */
export function InspectionPage({ entry, first }: { entry: ShelfEntry; first: InspectionView[] }) {
  const { canvas } = entry;
  const url = `/api/canvases/${canvas.id}/inspection`;
  const [view, setView] = useView(url, first, ['other']);
  const { fault, setFault, write, act } = useWrite(canvas.id);
  const photo = useRef<HTMLInputElement>(null);
  const [edited, setEdited] = useState<string | null>(null);
  const kept = view.filter(({ removedAt }) => removedAt === null);
  const removed = view.filter(({ removedAt }) => removedAt !== null);
  const form = useForm({
    resolver: yupResolver(inspectionSchema.omit(['id'])),
    defaultValues: EMPTY,
  });
  const kind = form.watch('kind');
  const { errors } = form.formState;
  const hint = inspectionKind(kind);

  /** When the form was emptied last: the second press of a double one would write down what is not there. */
  const emptied = useRef(Number.NEGATIVE_INFINITY);
  const save = form.handleSubmit(async (values) => {
    const isEmpty = JSON.stringify(form.getValues()) === JSON.stringify(EMPTY) && !photo.current?.files?.[0];
    if (isEmpty && performance.now() - emptied.current < TOO_SOON_MS) return;
    const id = crypto.randomUUID();
    const file = photo.current?.files?.[0];
    const unfit = file ? faultInPhoto(file) : null;
    if (unfit) return setFault(unfit);
    const clear = () => {
      emptied.current = performance.now();
      form.reset(EMPTY);
      setEdited(null);
      if (photo.current) photo.current.value = '';
    };
    const written = JSON.stringify(form.getValues());
    // The answer may be late, and the next note begun.
    const isStillThere = () => JSON.stringify(form.getValues()) === written;
    const noted = async (next: InspectionView[]) => {
      setView(next);
      if (file) {
        const sent = await act(async () =>
          setView(await sendFile<InspectionView[]>('PUT', `${url}/${id}/photo.jpg`, file, file.type)),
        );
        if (!sent && edited) return setEdited(id);
        // A new note whose photo was refused is not left behind: it is written again with the right one.
        if (!sent) return withdrawQuietly(id);
      }
      if (isStillThere()) clear();
    };
    let done: Promise<void> | undefined;
    const then = (next: InspectionView[]) => {
      done = noted(next);
    };
    if (edited) await write('PUT', `${url}/${edited}`, { id, ...values }, then);
    else await write('POST', url, { id, ...values }, then);
    await done;
  });
  const withdrawQuietly = async (id: string) => {
    const said = await sendJson<InspectionView[]>('DELETE', `${url}/${id}`).catch(() => null);
    if (said) setView(said);
  };
  const withdraw = (id: string) => void write<InspectionView[]>('DELETE', `${url}/${id}`, undefined, setView);

  return (
    <>
      <CheckinNav canvasId={canvas.id} here="/inspection" />
      <div className="grid items-start gap-6 lg:grid-cols-[24rem_1fr]">
        <form onSubmit={save} noValidate className="slip flex flex-col gap-3">
          <h2 className="text-xl">{edited ? 'Correct what was written' : 'Something about the canvas'}</h2>
          <label className="block">
            <span className="mb-1.5 block font-semibold">What is it</span>
            <select className="field" {...form.register('kind')}>
              {INSPECTION_KINDS.map((each) => (
                <option key={each.key} value={each.key}>
                  {each.name}
                </option>
              ))}
            </select>
          </label>
          {kind === 'size' && (
            <div className="grid grid-cols-2 gap-3">
              {(['widthCm', 'heightCm'] as const).map((side) => (
                <label key={side} className="block">
                  <span className="mb-1.5 block font-semibold">
                    {side === 'widthCm' ? 'Width, cm' : 'Height, cm'}
                  </span>
                  <input
                    className={`field number ${errors[side] ? 'field-fault' : ''}`}
                    inputMode="decimal"
                    {...form.register(side, {
                      setValueAs: (text: string | null) =>
                        text === '' || text === null ? null : asNumber('cm').setValueAs(text),
                    })}
                  />
                  {errors[side] && (
                    <span role="alert" className="font-medium text-alarm">
                      {errors[side]?.message}
                    </span>
                  )}
                </label>
              ))}
            </div>
          )}
          <label className="block">
            <span className="mb-1.5 block font-semibold">Note</span>
            <textarea className="field h-24" maxLength={1000} {...form.register('note')} />
          </label>
          <label className="block">
            <span className="mb-1.5 block font-semibold">Photo</span>
            <input ref={photo} type="file" accept="image/jpeg,image/png,image/webp" className="field !py-2" />
          </label>
          <Notice kind="hint">
            {hint.remedy} {hint.caution}
          </Notice>
          {fault && <Notice kind="fault">{fault}</Notice>}
          <button type="submit" className="button button-main" disabled={form.formState.isSubmitting}>
            {edited ? 'Save' : 'Write it down'}
          </button>
          {edited && (
            <button
              type="button"
              className="button"
              onClick={() => {
                form.reset(EMPTY);
                setEdited(null);
              }}
            >
              Cancel
            </button>
          )}
        </form>
        <section aria-label="The record" className="flex min-w-0 flex-col gap-3">
          {kept.length === 0 && (
            <p className="slip max-w-xl">
              Nothing is written down yet. Look over print, edges and adhesive before you start; a dated photo
              helps when you write to the seller.
            </p>
          )}
          {kept.map((each) => (
            <article key={each.id} className="slip flex flex-wrap gap-4 !py-3" aria-label={each.name}>
              {each.hasPhoto && (
                <a href={`${url}/${each.id}/photo.jpg`}>
                  <img
                    src={`${url}/${each.id}/photo.jpg`}
                    alt={each.name}
                    className="h-32 w-auto border border-edge"
                  />
                </a>
              )}
              <div className="min-w-0 grow basis-72">
                <h3 className="text-lg font-semibold">{each.name}</h3>
                <p className="text-faded">
                  {new Date(each.happenedAt).toLocaleString('en-GB', {
                    dateStyle: 'long',
                    timeStyle: 'short',
                  })}
                </p>
                {each.size && <p className="font-semibold">{each.size}</p>}
                {each.note && <p className="whitespace-pre-line">{each.note}</p>}
                <p className="text-[0.95rem]">
                  {each.remedy} {each.caution}
                </p>
              </div>
              <button
                type="button"
                className="button self-start !px-2.5"
                aria-label={`Edit ${each.name}`}
                title="Edit"
                onClick={() => {
                  const { kind: of, note, widthCm, heightCm } = each;
                  form.reset({ kind: of, note, widthCm, heightCm });
                  setEdited(each.id);
                }}
              >
                <Pencil size={19} aria-hidden />
              </button>
              <button
                type="button"
                className="button self-start !px-2.5"
                aria-label={`Delete ${each.name}`}
                title="Delete"
                onClick={() => withdraw(each.id)}
              >
                <Trash2 size={19} aria-hidden />
              </button>
            </article>
          ))}
          {removed.length > 0 && (
            <details className="slip !py-2">
              <summary className="min-h-11 py-2 font-semibold">
                {counted(removed.length, 'deleted note')}, kept for {KEPT_DAYS} days
              </summary>
              <ul className="flex flex-col divide-y divide-line">
                {removed.map((each) => (
                  <li key={each.id} className="flex flex-wrap items-center gap-3 py-2">
                    <span className="min-w-0 grow">
                      <span className="font-semibold">{each.name}</span> {each.note}
                    </span>
                    <button
                      type="button"
                      className="button"
                      onClick={() =>
                        void write<InspectionView[]>('POST', `${url}/${each.id}`, undefined, setView)
                      }
                    >
                      Bring back<span className="sr-only"> {each.name}</span>
                    </button>
                  </li>
                ))}
              </ul>
            </details>
          )}
        </section>
      </div>
    </>
  );
}
