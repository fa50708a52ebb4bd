import { useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import type { SharedError } from '../../core/checkin/bag';
import { BAG_ORIGINS, type BagMeasure, type BagOrigin, isEstimated } from '../../core/checkin/bag';
import type { ListedBag } from '../../core/checkin/bagLedger';
import { expanded } from '../../core/checkin/weighing';
import { momentInWords } from '../../core/words/moments';
import { counted, many } from '../../core/words/numbers';
import { NumberField } from '../../ui/NumberField';

/** What is said anew of a bag. */
export interface BagChange {
  line: number | null;
  drills: number;
  how: BagMeasure;
  spread: number | null;
  shared: readonly SharedError[];
  origin: BagOrigin;
}

const HOW_IN_WORDS: Record<BagMeasure, string> = {
  nominal: 'as printed',
  counted: 'counted by hand',
  weighed: 'weighed',
  photographed: 'counted on a photo',
};
const ORIGIN_IN_WORDS: Record<BagOrigin, string> = {
  kit: 'from the kit',
  seller: 'sent later by the seller',
  stash: 'from the stash',
  bought: 'bought',
};

/** Every bag of one colour: when it was counted, how, and at which screen; each can be changed, moved or removed. */
export function BagList({
  bags,
  legend,
  onChange,
  onRemove,
  onBringBack,
}: {
  bags: ListedBag[];
  legend: LegendLine[];
  onChange: (bag: ListedBag, change: BagChange) => void;
  onRemove: (bag: ListedBag) => void;
  onBringBack: (removedBy: string) => void;
}) {
  const [edited, setEdited] = useState<string | null>(null);
  return (
    <ul className="flex flex-col divide-y divide-line">
      {bags.map((bag) => (
        <li key={bag.id} className={`py-2 ${bag.removedBy === null ? '' : 'text-faded'}`}>
          <p>
            <span className={`number font-semibold ${bag.removedBy === null ? '' : 'line-through'}`}>
              {many(bag.drills)}
            </span>{' '}
            drills, {HOW_IN_WORDS[bag.how]}
            {isEstimated(bag.how) && `, give or take ${many(Math.ceil(expanded([bag])))}`},{' '}
            {ORIGIN_IN_WORDS[bag.origin]}
          </p>
          <p className="text-[0.95rem] text-faded">
            {bag.removedBy !== null && 'Removed. '}Counted{' '}
            {momentInWords(new Date(bag.countedAt), new Date())}{' '}
            {bag.screen === 0 ? 'here' : bag.device ? `at “${bag.device}”` : `at screen ${bag.screen}`}
            {bag.changedAt !== null &&
              bag.removedBy === null &&
              `, changed ${momentInWords(new Date(bag.changedAt), new Date())}`}
          </p>
          {edited === bag.id ? (
            <BagForm
              bag={bag}
              legend={legend}
              onCancel={() => setEdited(null)}
              onSave={(change) => {
                setEdited(null);
                onChange(bag, change);
              }}
            />
          ) : (
            <div className="mt-1 flex flex-wrap gap-2">
              {bag.removedBy === null ? (
                <>
                  <button type="button" className="button" onClick={() => setEdited(bag.id)}>
                    Edit
                  </button>
                  <button type="button" className="button" onClick={() => onRemove(bag)}>
                    Remove
                  </button>
                </>
              ) : (
                <button type="button" className="button" onClick={() => onBringBack(bag.removedBy!)}>
                  Bring back
                </button>
              )}
            </div>
          )}
        </li>
      ))}
      {bags.length === 0 && <li className="py-2">No bag of it is counted yet.</li>}
      {bags.length > 1 && (
        <li className="py-2 font-semibold">
          {counted(bags.filter(({ removedBy }) => removedBy === null).length, 'bag')},{' '}
          {many(bags.reduce((sum, { drills, removedBy }) => sum + (removedBy === null ? drills : 0), 0))}{' '}
          drills
        </li>
      )}
    </ul>
  );
}

function BagForm({
  bag,
  legend,
  onSave,
  onCancel,
}: {
  bag: ListedBag;
  legend: LegendLine[];
  onSave: (change: BagChange) => void;
  onCancel: () => void;
}) {
  // What is not touched follows the bag: another screen may correct it while this form is open.
  const [own, setOwn] = useState<Partial<Pick<BagChange, 'line' | 'drills' | 'how' | 'origin'>>>({});
  const say = (part: typeof own) => setOwn((before) => ({ ...before, ...part }));
  const { line, drills, how, origin } = { ...bag, ...own };
  const fromStash = bag.origin === 'stash';
  return (
    <form
      className="mt-1 grid grid-cols-2 gap-2"
      aria-label="Change this bag"
      onSubmit={(event) => {
        event.preventDefault();
        onSave({
          line,
          drills,
          how,
          origin,
          spread: isEstimated(how) ? bag.spread : null,
          shared: how === 'weighed' ? bag.shared : [],
        });
      }}
    >
      <label className="col-span-2 block">
        <span className="mb-0.5 block text-[0.95rem] leading-tight">Colour</span>
        <select
          className="field number"
          value={line ?? ''}
          onChange={(event) => say({ line: event.target.value === '' ? null : Number(event.target.value) })}
        >
          <option value="">none of the list</option>
          {legend.map((each) => (
            <option key={each.line} value={each.line}>
              {each.code}, key {each.keyNumber}
            </option>
          ))}
        </select>
      </label>
      {!fromStash && (
        <>
          <NumberField
            words="Drills"
            value={drills}
            least={1}
            most={100_000}
            whole
            onChange={(next) =>
              // A weight tells of another number.
              say({ drills: next, ...(isEstimated(how) && next !== bag.drills ? { how: 'counted' } : {}) })
            }
          />
          <label className="block">
            <span className="mb-0.5 block text-[0.95rem] leading-tight">How it is known</span>
            <select
              className="field"
              value={how}
              onChange={(event) => say({ how: event.target.value as BagMeasure })}
            >
              {(['nominal', 'counted', ...(isEstimated(bag.how) ? [bag.how] : [])] as const).map((each) => (
                <option key={each} value={each}>
                  {HOW_IN_WORDS[each]}
                </option>
              ))}
            </select>
          </label>
          <label className="col-span-2 block">
            <span className="mb-0.5 block text-[0.95rem] leading-tight">Where it came from</span>
            <select
              className="field"
              value={origin}
              onChange={(event) => say({ origin: event.target.value as BagOrigin })}
            >
              {BAG_ORIGINS.filter((each) => each !== 'stash').map((each) => (
                <option key={each} value={each}>
                  {ORIGIN_IN_WORDS[each]}
                </option>
              ))}
            </select>
          </label>
        </>
      )}
      <div className="col-span-2 flex gap-2">
        <button type="submit" className="button button-main">
          Save
        </button>
        <button type="button" className="button" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </form>
  );
}
