import type { Shape } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { placeInWords, placesInWords } from '../../core/codes/places';
import { counted, many } from '../../core/words/numbers';
import type { KitupView, SlotView } from '../../server/kitup/contract';
import { Chip } from '../../ui/Chip';
import { Lock, LockOpen, Move } from '../../ui/icons';

/** The colour you chose: where it lives, how much of it, and ways to keep or move it. */
export function SlotSlip({
  line,
  slots,
  view,
  shape,
  canvasId,
  hasChart,
  moving,
  onMove,
  onLock,
}: {
  line: LegendLine;
  /** Its pots, in the order of the case. */
  slots: readonly SlotView[];
  view: KitupView;
  shape: Shape;
  canvasId: string;
  hasChart: boolean;
  moving: boolean;
  onMove: () => void;
  onLock: (locked: boolean) => void;
}) {
  const drills = view.amounts[line.line] ?? 0;
  const locked = slots.some((slot) => slot.locked);
  const bag = view.bags.find((each) => each.line === line.line);
  return (
    <section className="slip flex flex-col gap-2" aria-label="The colour you chose" aria-live="polite">
      <div className="flex items-center gap-3">
        <Chip line={line} shape={shape} size={60} />
        <div className="min-w-0">
          <p translate="no" className="number text-xl font-semibold">
            {line.code}
          </p>
          <p className="truncate text-faded">
            {line.name}
            {line.finish !== 'plain' && `, ${line.finish}`}
          </p>
        </div>
      </div>
      <p className="big-number">{placeInWords(placesInWords(view.places[line.line] ?? ['no pot yet']))}</p>
      <p>
        {counted(drills, 'drill')} to store
        {slots.length > 0 &&
          `, ${slots.length === 1 ? 'the pot takes' : `its ${slots.length} pots take`} ${many(slots.reduce((sum, { capacity }) => sum + capacity, 0))}`}
        .{bag && !bag.whole && ` Bag ${bag.bag} keeps the other ${many(bag.drills)}.`}
        {bag?.whole && bag.reason && ` It stays in its bag: ${bag.reason}.`}
      </p>
      {view.stash[line.line] && <p>{view.stash[line.line]}</p>}
      {hasChart && (
        <a
          className="inline-flex min-h-11 items-center underline"
          href={`/canvas/${canvasId}/chart?colour=${line.line}`}
        >
          Where it goes on the canvas
        </a>
      )}
      {view.plan && (
        <div className="flex flex-wrap gap-2">
          {slots.length > 0 && (
            <button type="button" className="button" onClick={() => onLock(!locked)}>
              {locked ? <LockOpen size={18} aria-hidden /> : <Lock size={18} aria-hidden />}
              {locked ? 'Unlock' : 'Lock it here'}
            </button>
          )}
          <button
            type="button"
            className={`button ${moving ? 'button-on' : ''}`}
            aria-pressed={moving}
            onClick={onMove}
          >
            <Move size={18} aria-hidden /> Put it elsewhere
          </button>
        </div>
      )}
      {moving && <p className="font-semibold">Choose its new slot in the case.</p>}
    </section>
  );
}
