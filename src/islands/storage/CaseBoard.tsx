import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import type { CellRect } from '../../core/cells/chart';
import { rectBetween } from '../../core/cells/rect';
import { type Storage, slotCapacity, slotsInOrder, slotUnder } from '../../core/storage/storage';
import { counted, many } from '../../core/words/numbers';
import { arrowStep } from '../../ui/arrowKeys';
import { isPressed } from '../../ui/pressed';

type Unit = { x: number; y: number };

/** Room of one grid unit on the board, in the drawing's own units. */
const UNIT = 60;

/**
 * A tray as a grid to draw slots on: drag from one place to another, or move with the arrow keys, spread with Shift,
 * and press Enter.
 */
export function CaseBoard({
  storage,
  index,
  kit,
  hand,
  chosen,
  onRect,
  onChoose,
}: {
  storage: Storage;
  index: number;
  kit: Pick<Canvas, 'shape' | 'pitchMm'>;
  /** What a drawn rectangle does. */
  hand: 'choose' | 'slot' | 'fill' | 'erase';
  chosen: string | null;
  onRect: (rect: CellRect) => void;
  onChoose: (slot: string | null) => void;
}) {
  const tray = storage.trays[index]!;
  const [start, setStart] = useState<Unit | null>(null);
  const [end, setEnd] = useState<Unit>({ x: 0, y: 0 });
  const [keys, setKeys] = useState(false);
  const dragging = useRef(false);
  const rect = rectBetween(start ?? end, end);
  const numbers = new Map(
    slotsInOrder(storage.trays).map(({ slot, tray: t, number }) => [`${t} ${slot.id}`, number]),
  );
  const height = UNIT * (tray.unitDepthMm / tray.unitWidthMm);
  const unitAt = (event: PointerEvent<SVGSVGElement>): Unit => {
    const within = (unit: number, count: number) => Math.min(count - 1, Math.max(0, Math.floor(unit)));
    // The drawing may be smaller than its element, so its own matrix tells where a finger is.
    const matrix = event.currentTarget.getScreenCTM()?.inverse() ?? new DOMMatrix();
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { x: within(point.x / UNIT, tray.columns), y: within(point.y / height, tray.rows) };
  };
  const finish = (drawn: CellRect) => {
    setStart(null);
    if (hand === 'choose') onChoose(slotUnder(tray, drawn)?.id ?? null);
    else onRect(drawn);
  };
  const onKey = (event: KeyboardEvent) => {
    const move = arrowStep(event.key);
    if (move) {
      const next = {
        x: Math.min(tray.columns - 1, Math.max(0, end.x + move[0])),
        y: Math.min(tray.rows - 1, Math.max(0, end.y + move[1])),
      };
      setStart(event.shiftKey ? (start ?? end) : null);
      setEnd(next);
    } else if (event.key === 'Enter' || event.key === ' ') finish(rect);
    else if (event.key === 'Escape') setStart(null);
    else return;
    setKeys(true);
    event.preventDefault();
  };
  const under = slotUnder(tray, { ...end, width: 1, height: 1 });
  return (
    <div>
      <svg
        viewBox={`-4 -4 ${tray.columns * UNIT + 8} ${tray.rows * height + 8}`}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the board takes arrow keys itself
        tabIndex={0}
        role="application"
        aria-label={`Tray ${index + 1}, ${tray.columns} by ${tray.rows}. Arrow keys move, Shift and arrows spread, Enter draws.`}
        className="max-h-[34rem] w-full cursor-crosshair touch-none bg-cloth"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          dragging.current = true;
          setKeys(false);
          setStart(unitAt(event));
          setEnd(unitAt(event));
        }}
        onPointerMove={(event) => {
          if (!dragging.current) return;
          if (isPressed(event)) setEnd(unitAt(event));
          else event.currentTarget.releasePointerCapture(event.pointerId);
        }}
        onPointerCancel={() => {
          dragging.current = false;
          setStart(null);
        }}
        onLostPointerCapture={() => {
          if (!dragging.current) return;
          dragging.current = false;
          setKeys(false);
          finish(rect);
        }}
        onKeyDown={onKey}
        onFocus={() => setKeys(!dragging.current)}
        onBlur={() => setKeys(false)}
      >
        <rect
          x="-2"
          y="-2"
          width={tray.columns * UNIT + 4}
          height={tray.rows * height + 4}
          fill="none"
          stroke="var(--c-edge)"
          strokeWidth="4"
        />
        {Array.from({ length: tray.columns * tray.rows }, (_, i) => (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: a unit is its place
            key={i}
            cx={((i % tray.columns) + 0.5) * UNIT}
            cy={(Math.floor(i / tray.columns) + 0.5) * height}
            r="2.5"
            fill="var(--c-edge)"
          />
        ))}
        {tray.slots.map((slot) => {
          const width = slot.width * UNIT;
          const tall = slot.height * height;
          return (
            <g key={slot.id} transform={`translate(${slot.x * UNIT} ${slot.y * height})`}>
              <rect
                x="2.5"
                y="2.5"
                width={width - 5}
                height={tall - 5}
                rx={slot.form === 'round' ? Math.min(width, tall) / 2 : slot.form === 'bag' ? 10 : 3}
                fill={slot.id === chosen ? 'var(--c-lamp)' : 'var(--c-paper)'}
                stroke={slot.id === chosen ? 'var(--c-accent)' : 'var(--c-edge)'}
                strokeWidth={slot.id === chosen ? 4 : 2}
              />
              <text
                x={width / 2}
                y={tall / 2 - 2}
                textAnchor="middle"
                fontSize="15"
                fontWeight="600"
                fontFamily="var(--font-mono)"
                fill="var(--c-ink)"
              >
                {numbers.get(`${index} ${slot.id}`)}
              </text>
              <text
                x={width / 2}
                y={tall / 2 + 14}
                textAnchor="middle"
                fontSize="13"
                fontFamily="var(--font-mono)"
                fill="var(--c-faded)"
              >
                {many(slotCapacity(storage, tray, slot, kit))}
              </text>
            </g>
          );
        })}
        {(start || keys) && (
          <rect
            x={rect.x * UNIT}
            y={rect.y * height}
            width={rect.width * UNIT}
            height={rect.height * height}
            fill="none"
            stroke="var(--c-accent)"
            strokeWidth="4"
            strokeDasharray="8 5"
          />
        )}
      </svg>
      <p className="sr-only" aria-live="polite">
        {keys &&
          `Column ${end.x + 1}, row ${end.y + 1}: ${under ? `slot ${numbers.get(`${index} ${under.id}`)}, ${counted(slotCapacity(storage, tray, under, kit), 'drill')}` : 'free'}`}
      </p>
    </div>
  );
}
