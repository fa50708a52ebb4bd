import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { compareCodes } from '../../core/codes/codes';
import { FINISHES } from '../../core/colour/finish';
import { readHex, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { counted, many } from '../../core/words/numbers';
import type { StashView } from '../../server/stash/contract';
import { stashItemSchema } from '../../server/stash/contract';
import { DataTable } from '../../ui/DataTable';
import { Notice } from '../../ui/Notice';
import { UndoButtons } from '../writing/UndoButtons';
import { useView } from '../writing/useView';
import { useWrite } from '../writing/useWrite';

const EMPTY = {
  code: '',
  name: '',
  hex: null as string | null,
  finish: 'plain' as const,
  shape: 'square' as const,
  drills: '' as unknown as number,
};

/** Leftovers of finished kits: they fill the next kit's shortages. */
export function StashPage({ first }: { first: StashView }) {
  const [view, setView] = useView('/api/stash', first);
  const { busy, fault, enter } = useWrite();
  const form = useForm({ resolver: yupResolver(stashItemSchema.omit(['id'])), defaultValues: EMPTY });
  const { errors } = form.formState;
  const add = form.handleSubmit(async (item) => {
    await enter<StashView>('/api/stash', item, (next) => {
      setView(next);
      form.reset({ ...EMPTY, shape: item.shape, finish: item.finish });
      form.setFocus('code');
    });
  });
  const step = (what: { undoes: string } | { redoes: string }) =>
    void enter<StashView>('/api/stash/undo', what, setView);
  const field = (name: 'code' | 'name' | 'drills', words: string) => (
    <label className="block">
      <span className="mb-1.5 block font-semibold">{words}</span>
      <input
        className={`field ${name === 'name' ? '' : 'number'} ${errors[name] ? 'field-fault' : ''}`}
        inputMode={name === 'drills' ? 'numeric' : 'text'}
        {...form.register(name)}
      />
      {errors[name] && (
        <span role="alert" className="font-medium text-alarm">
          {errors[name]?.message}
        </span>
      )}
    </label>
  );
  const there = view.items.filter((item) => item.drills > 0).sort((a, b) => compareCodes(a.code, b.code));
  return (
    <div className="grid items-start gap-6 lg:grid-cols-[22rem_1fr]">
      <form onSubmit={add} noValidate className="slip flex flex-col gap-3">
        {field('code', 'Colour code')}
        {field('drills', 'Drills left over')}
        {field('name', 'Name, if you like')}
        <label className="block">
          <span className="mb-1.5 block font-semibold">Colour, like #2f6f8f</span>
          <input
            className={`field number ${errors.hex ? 'field-fault' : ''}`}
            {...form.register('hex', {
              setValueAs: (text: string | null) =>
                text === null || text === '' ? null : (readHex(text) ?? text),
            })}
          />
          {errors.hex && (
            <span role="alert" className="font-medium text-alarm">
              {errors.hex.message}
            </span>
          )}
        </label>
        <div className="grid grid-cols-2 gap-3">
          <label className="block">
            <span className="mb-1.5 block font-semibold">Shape</span>
            <select className="field" {...form.register('shape')}>
              <option value="square">square</option>
              <option value="round">round</option>
            </select>
          </label>
          <label className="block">
            <span className="mb-1.5 block font-semibold">Finish</span>
            <select className="field" {...form.register('finish')}>
              {FINISHES.map((finish) => (
                <option key={finish} value={finish}>
                  {finish}
                </option>
              ))}
            </select>
          </label>
        </div>
        {fault && <Notice kind="fault">{fault}</Notice>}
        <button type="submit" className="button button-main">
          Put it into the stash
        </button>
        <UndoButtons
          history={view.history}
          words={({ code, drills }) => `${counted(drills, 'drill')} of ${code} put into the stash`}
          busy={busy}
          onUndo={(undoes) => step({ undoes })}
          onRedo={(redoes) => step({ redoes })}
        />
      </form>
      <section className="min-w-0">
        {there.length === 0 ? (
          <p className="slip max-w-xl">
            The stash is empty. What is left over from a finished kit goes in here, and covers what the next
            kit lacks.
          </p>
        ) : (
          <div className="overflow-x-auto bg-paper">
            <DataTable
              caption="The stash, in code order"
              rows={there}
              rowKey={(item) => item.id}
              columns={[
                {
                  key: 'code',
                  header: 'Code',
                  value: (item) => item.code,
                  show: (item) => (
                    <span className="flex items-center gap-3">
                      <span
                        className={`size-8 border border-edge ${item.shape === 'round' ? 'rounded-full' : ''}`}
                        style={{ background: item.hex ?? UNKNOWN_COLOUR }}
                        aria-hidden
                      />
                      <span className="number font-semibold">{item.code}</span>
                    </span>
                  ),
                },
                { key: 'name', header: 'Name', value: (item) => item.name },
                { key: 'shape', header: 'Shape', value: (item) => item.shape },
                { key: 'finish', header: 'Finish', value: (item) => item.finish },
                {
                  key: 'drills',
                  header: 'Drills',
                  numeric: true,
                  value: (item) => item.drills,
                  show: (item) => many(item.drills),
                },
              ]}
            />
          </div>
        )}
      </section>
    </div>
  );
}
