import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import type { Shape } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { shortPlace } from '../../core/codes/places';
import { type Storage, slotBeside, type Tray } from '../../core/storage/storage';
import { counted } from '../../core/words/numbers';
import type { SlotView } from '../../server/kitup/contract';
import { arrowStep } from '../../ui/arrowKeys';
import { Chip } from '../../ui/Chip';
import { Check, Lock } from '../../ui/icons';

interface CaseProps {
  storage: Storage;
  slots: SlotView[];
  legend: LegendLine[];
  shape: Shape;
  filled: ReadonlySet<number>;
  /** Colour under the lamp. */
  lit: number | null;
  /** Absent where slots are only looked at. */
  onChoose?: (slot: SlotView) => void;
}

/** A case drawn to its layout, tray by tray, each slot with its colour as full as it will be. */
export function CaseDrawing(props: CaseProps) {
  return (
    <section aria-label={props.storage.name} className="flex flex-col gap-3">
      <h2>{props.storage.name}</h2>
      {props.storage.trays.map((tray, t) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: trays have no name but their place
        <TrayDrawing key={t} {...props} tray={tray} slots={props.slots.filter((slot) => slot.tray === t)} />
      ))}
    </section>
  );
}

function TrayDrawing({ tray, slots, ...props }: CaseProps & { tray: Tray }) {
  const ratio = (tray.columns * tray.unitWidthMm) / (tray.rows * tray.unitDepthMm);
  const drawn = new Map(tray.slots.map((slot) => [slot.id, slot]));
  // One stop for the Tab key: the lit pot, else the one that had the focus last; arrow keys go on from there.
  const [stop, setStop] = useState<string | null>(null);
  const lit = slots.find((view) => props.lit !== null && view.line === props.lit);
  const stopAt = stop ?? lit?.slot ?? slots[0]?.slot;
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const way = arrowStep(event.key);
    const from = way && drawn.get(stopAt ?? '');
    const next = from && slotBeside(tray.slots, from, way);
    if (!next) return;
    event.preventDefault();
    setStop(next.id);
    event.currentTarget.querySelector<HTMLElement>(`[data-slot="${next.id}"]`)?.focus();
  };
  const box = useRef<HTMLDivElement>(null);
  // On a narrow screen a tray scrolls: the kit's own pots are in view before those of others.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the tray comes up
  useEffect(() => {
    const own = slots.find((view) => view.line !== null);
    const drawing = own && box.current?.querySelector<HTMLElement>(`[data-place="${own.slot}"]`);
    if (drawing && box.current) box.current.scrollLeft = drawing.offsetLeft - 16;
  }, []);
  return (
    <div ref={box} className="relative overflow-x-auto">
      <ol
        onKeyDown={onKeyDown}
        className="grid border-[8px] border-edge bg-cloth p-1"
        style={{
          gridTemplateColumns: `repeat(${tray.columns}, minmax(0, 1fr))`,
          gridTemplateRows: `repeat(${tray.rows}, minmax(0, 1fr))`,
          // Large enough to read on any screen, small enough to see a whole case on a desk.
          width: `max(${tray.columns * 4}rem, min(100%, ${Math.round(ratio * Math.max(32, tray.rows * 4))}rem))`,
          aspectRatio: ratio,
        }}
      >
        {slots.map((view) => {
          const slot = drawn.get(view.slot)!;
          return (
            <li
              key={view.slot}
              data-place={view.slot}
              className="min-h-0 min-w-0 p-0.5"
              style={{
                gridColumn: `${slot.x + 1} / span ${slot.width}`,
                gridRow: `${slot.y + 1} / span ${slot.height}`,
              }}
            >
              <SlotDrawing
                {...props}
                view={view}
                round={slot.form === 'round'}
                isStop={view.slot === stopAt}
                onFocus={() => setStop(view.slot)}
              />
            </li>
          );
        })}
      </ol>
    </div>
  );
}

/** One slot: its number, its colour as full as it will be, the code below. */
function SlotDrawing({
  view,
  round,
  legend,
  shape,
  filled,
  lit,
  onChoose,
  isStop,
  onFocus,
}: Omit<CaseProps, 'storage' | 'slots'> & {
  view: SlotView;
  round: boolean;
  isStop: boolean;
  onFocus: () => void;
}) {
  const line = view.line === null ? undefined : ofLine(legend, view.line);
  const isLit = lit !== null && view.line === lit;
  const level = Math.min(1, view.drills / Math.max(1, view.capacity));
  const isFilled = line !== undefined && filled.has(line.line);
  const words = line
    ? `${view.place}: ${line.code} ${line.name}, ${counted(view.drills, 'drill')}${isFilled ? ', filled' : ''}${view.locked ? ', kept here' : ''}`
    : view.takenBy === null
      ? `${view.place}: free, takes ${counted(view.capacity, 'drill')}`
      : `${view.place}: in use by ${view.takenBy}`;
  const look = `relative flex size-full min-h-11 flex-col items-center justify-center overflow-hidden border-[1.5px] ${
    round ? 'rounded-full' : 'rounded-[3px]'
  } ${isLit ? 'border-accent bg-lamp text-ink outline-[5px] outline-accent' : line ? 'border-edge bg-paper' : 'border-dashed border-edge'}`;
  const inside = (
    <>
      {line && !isLit && (
        <span
          aria-hidden
          className={`absolute inset-x-0 bottom-0 ${isFilled ? 'bg-wash' : 'bg-bench'}`}
          style={{ height: `${level * 100}%` }}
        />
      )}
      {line ? (
        <>
          <span className="relative flex items-center gap-1">
            <span className="number text-[0.95rem] leading-none">{shortPlace(view.place)}</span>
            <Chip line={line} shape={shape} size={30} />
          </span>
          <span
            translate="no"
            className={`number relative mt-0.5 max-w-full truncate text-[0.95rem] leading-none font-semibold ${
              line.code.length > 5 ? 'tracking-[-0.06em]' : ''
            }`}
          >
            {line.code}
          </span>
          {isFilled && (
            <Check
              size={14}
              strokeWidth={4}
              aria-hidden
              className={`absolute top-0 ${round ? 'left-1/2 -ml-[7px]' : 'left-0.5'}`}
            />
          )}
          <span
            aria-hidden
            className="absolute bottom-[3px] left-1/4 h-[5px] w-1/2 border border-edge bg-paper"
          >
            <span className="block h-full bg-edge" style={{ width: `${level * 100}%` }} />
          </span>
          {view.locked && <Lock size={14} aria-hidden className="absolute top-0.5 right-0.5" />}
        </>
      ) : (
        <span className="number text-[0.95rem] text-faded">
          {view.takenBy === null ? shortPlace(view.place) : '×'}
        </span>
      )}
    </>
  );
  if (!onChoose) {
    return (
      <div className={look} title={words}>
        <span className="sr-only">{words}</span>
        <span aria-hidden className="contents">
          {inside}
        </span>
      </div>
    );
  }
  return (
    <button
      type="button"
      data-slot={view.slot}
      tabIndex={isStop ? 0 : -1}
      aria-label={words}
      title={words}
      className={look}
      onFocus={onFocus}
      onClick={() => onChoose(view)}
    >
      {inside}
    </button>
  );
}
