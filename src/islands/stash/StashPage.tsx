import { yupResolver } from '@hookform/resolvers/yup';
import { useEffect, useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import { compareCodes } from '../../core/codes/codes';
import { FINISHES } from '../../core/colour/finish';
import { readHex, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import type { StashItem } from '../../core/stash/cover';
import { isIn } from '../../core/words/isIn';
import { counted, many } from '../../core/words/numbers';
import type { StashChange, StashView } from '../../server/stash/contract';
import { stashCorrectionSchema, stashItemSchema } from '../../server/stash/contract';
import { AS_TYPED } from '../../ui/asTyped';
import { DataTable } from '../../ui/DataTable';
import { Notice } from '../../ui/Notice';
import { asNumber } from '../../ui/typedNumber';
import { Deleted } from '../shelf/Deleted';
import type { ApiProblem } from '../writing/api';
import { UndoButtons } from '../writing/UndoButtons';
import { useView } from '../writing/useView';
import { useWrite } from '../writing/useWrite';
import { afterChange } from './afterChange';

const EMPTY = {
  code: '',
  name: '',
  hex: null as string | null,
  finish: 'plain' as const,
  shape: 'square' as const,
  drills: '' as unknown as number,
};

/**
 * Leftovers of finished kits: they fill the next kit's shortages.
 * @param isWhole whether the items came with the page
 */
export function StashPage({ first, isWhole, days }: { first: StashView; isWhole: boolean; days: number }) {
  const [view, setView] = useView('/api/stash', first, ['other']);
  const isHere = isWhole || view !== first;
  /** Where the items are still to come they come with this change. */
  const changed = (change: StashChange) =>
    setView((before) => (isWhole || before !== first ? afterChange(before, change) : before));
  const { busy, fault, enter, write } = useWrite();
  /** What is corrected, as it was there when that was begun. */
  const [edited, setEdited] = useState<StashItem | null>(null);
  const schema = edited === null ? stashItemSchema : stashCorrectionSchema;
  const form = useForm({ resolver: yupResolver(schema.omit(['id'])), defaultValues: EMPTY });
  const { errors } = form.formState;
  /** Where to type next: a form that was filled anew knows its fields only once it is drawn. */
  const [next, goTo] = useState<{ field: 'code' | 'drills' } | null>(null);
  useEffect(() => {
    if (next) form.setFocus(next.field, { shouldSelect: true });
  }, [next, form]);
  /** How often the form was filled or begun anew: a late answer is not for what stands there by then. */
  const begun = useRef(0);
  const add = form.handleSubmit(async (item) => {
    const [mine, typed] = [begun.current, JSON.stringify(form.getValues())];
    const shown = (change: StashChange) => {
      changed(change);
      if (begun.current !== mine || JSON.stringify(form.getValues()) !== typed) return;
      begun.current++;
      setEdited(null);
      form.reset({ ...EMPTY, shape: item.shape, finish: item.finish });
      goTo({ field: 'code' });
    };
    if (edited === null) await enter<StashChange>('/api/stash', item, shown);
    else {
      const { id, ...before } = edited;
      const body = { id: crypto.randomUUID(), ...item, before };
      // Who was told that there is another amount by now says which of the two is right.
      const refused = ({ more: { drills } }: ApiProblem) => {
        if (typeof drills === 'number') setEdited((seen) => (seen?.id === id ? { ...seen, drills } : seen));
      };
      await write<StashChange>('PUT', `/api/stash/${id}`, body, shown, false, refused);
    }
  });
  const edit = (item: StashItem) => {
    begun.current++;
    setEdited(item);
    const { code, name, hex, finish, shape, drills } = item;
    form.reset({
      code,
      name,
      hex,
      finish: finish as typeof EMPTY.finish,
      shape: shape as typeof EMPTY.shape,
      drills,
    });
    goTo({ field: 'drills' });
  };
  const step = (what: { undoes: string } | { redoes: string }) =>
    void enter<StashChange>('/api/stash/undo', what, changed);
  const [looked, setLooked] = useState('');
  const field = (name: 'code' | 'name' | 'drills', words: string) => (
    <label className="block">
      <span className="mb-1.5 block font-semibold">{words}</span>
      <input
        className={`field ${name === 'name' ? '' : 'number'} ${errors[name] ? 'field-fault' : ''}`}
        inputMode={name === 'drills' ? 'numeric' : 'text'}
        {...(name !== 'name' && AS_TYPED)}
        {...form.register(name, name === 'drills' ? asNumber('whole') : {})}
      />
      {errors[name] && (
        <span role="alert" className="font-medium text-alarm">
          {errors[name]?.message}
        </span>
      )}
    </label>
  );
  const kept = view.items.filter((item) => item.drills > 0);
  const there = kept
    .filter(({ code, name, finish }) => isIn(`${code} ${name} ${finish}`, looked))
    .sort((a, b) => compareCodes(a.code, b.code));
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
            {...AS_TYPED}
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
          {edited === null ? 'Add to the stash' : 'Save'}
        </button>
        {edited !== null && (
          <button
            type="button"
            className="button"
            onClick={() => {
              begun.current++;
              setEdited(null);
              form.reset(EMPTY);
            }}
          >
            Cancel
          </button>
        )}
        <UndoButtons
          history={view.history}
          words={({ code, drills }) =>
            drills < 0
              ? `${counted(-drills, 'drill')} of ${code} taken from the stash`
              : `${counted(drills, 'drill')} of ${code} put into the stash`
          }
          busy={busy}
          onUndo={(undoes) => step({ undoes })}
          onRedo={(redoes) => step({ redoes })}
        />
      </form>
      <section className="min-w-0">
        {kept.length > 12 && (
          <label className="mb-3 block max-w-sm">
            <span className="mb-1 block font-semibold">Find in the stash</span>
            <input
              className="field"
              type="search"
              {...AS_TYPED}
              value={looked}
              placeholder="code, name or finish"
              onChange={(event) => setLooked(event.target.value)}
            />
          </label>
        )}
        {kept.length > 0 && there.length === 0 && <p>Nothing in the stash is called “{looked}”.</p>}
        {!isHere ? (
          <p role="status">Loading…</p>
        ) : kept.length === 0 ? (
          <p className="slip max-w-xl">
            The stash is empty. What is left over from a finished kit goes in here, and makes up for what is
            missing from the next kit.
          </p>
        ) : (
          <div className="overflow-x-auto bg-paper">
            <DataTable
              caption="The stash, in code order"
              long
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
                        className={`swatch size-8 border border-edge ${item.shape === 'round' ? 'rounded-full' : ''}`}
                        style={{ background: item.hex ?? UNKNOWN_COLOUR }}
                        aria-hidden
                      />
                      <span translate="no" className="number font-semibold">
                        {item.code}
                      </span>
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
                {
                  key: 'change',
                  header: 'Change',
                  value: () => '',
                  show: (item) => (
                    <span className="flex gap-2">
                      <button
                        type="button"
                        className="button"
                        aria-label={`Edit ${item.code} ${item.name}`}
                        onClick={() => edit(item)}
                      >
                        Edit
                      </button>
                      <button
                        type="button"
                        className="button"
                        aria-label={`Delete ${item.code} ${item.name}`}
                        onClick={() =>
                          void write<StashChange>('DELETE', `/api/stash/${item.id}`, undefined, changed)
                        }
                      >
                        Delete
                      </button>
                    </span>
                  ),
                },
              ]}
            />
          </div>
        )}
        <Deleted
          key={view.deleted.map(({ id }) => id).join()}
          first={view.deleted}
          days={days}
          one="colour"
          several="colours"
        />
      </section>
    </div>
  );
}
