import { potNow, potNowInWords } from '../../core/kitup/potNow';
import type { Tray } from '../../core/storage/storage';
import type { KitupView, SlotView } from '../../server/kitup/contract';

/** The case that holds a colour, drawn small, with its slots lit; nothing where it lives in no case. */
export function SmallCase({ view, line }: { view: KitupView | null; line: number }) {
  const found = view?.cases
    .flatMap(({ storage, slots }) =>
      storage.trays.map((tray, t) => ({ tray, own: slots.filter((slot) => slot.tray === t) })),
    )
    .find(({ own }) => own.some((slot) => slot.line === line));
  if (!found) return null;
  return <SmallTray tray={found.tray} slots={found.own} line={line} />;
}

const WIDTH = 104;

function SmallTray({ tray, slots, line }: { tray: Tray; slots: readonly SlotView[]; line: number }) {
  const unitWidth = WIDTH / tray.columns;
  const unitHeight = Math.min((unitWidth * tray.unitDepthMm) / tray.unitWidthMm, 84 / tray.rows);
  const height = unitHeight * tray.rows;
  const lit = new Set(slots.filter((slot) => slot.line === line).map(({ slot }) => slot));
  const names = slots.filter((slot) => slot.line === line).map(({ place }) => place);
  return (
    <svg
      width={WIDTH}
      height={height}
      viewBox={`-1 -1 ${WIDTH + 2} ${height + 2}`}
      className="ml-auto shrink-0"
      role="img"
      aria-label={`Its place in the case: ${names.join(', ')}`}
    >
      <rect
        x={-0.5}
        y={-0.5}
        width={WIDTH + 1}
        height={height + 1}
        fill="var(--c-cloth)"
        stroke="var(--c-edge)"
      />
      {tray.slots.map(({ id, x, y, width, height: tall, form }) => {
        const isLit = lit.has(id);
        return (
          <rect
            key={id}
            x={x * unitWidth + 0.8}
            y={y * unitHeight + 0.8}
            width={width * unitWidth - 1.6}
            height={tall * unitHeight - 1.6}
            rx={form === 'round' ? Math.min(unitWidth, unitHeight) / 2 : 1}
            fill={isLit ? 'var(--c-accent)' : 'var(--c-paper)'}
            stroke={isLit ? 'var(--c-ink)' : 'var(--c-line)'}
            strokeWidth={isLit ? 1.6 : 0.8}
          />
        );
      })}
    </svg>
  );
}

/** What is left of a colour in its pots and when its bag is due; nothing where no pot was planned. */
export function PotLeft({
  view,
  line,
  laid,
  leftHere,
}: {
  view: KitupView | null;
  line: number;
  /** Drills of the colour that are laid on the whole canvas. */
  laid: number;
  leftHere: number;
}) {
  if (!view || view.cases.length === 0) return null;
  const capacity = view.cases
    .flatMap(({ slots }) => slots)
    .filter((slot) => slot.line === line)
    .reduce((sum, slot) => sum + slot.capacity, 0);
  const bag = view.bags.find((each) => each.line === line)?.bag ?? null;
  const now = potNow({ stored: view.amounts[line] ?? 0, capacity, laid, trashShare: view.trashShare });
  // As high for few words as for many, so that no key below moves from colour to colour.
  return <p className="min-h-[2lh] text-[0.95rem] text-faded">{potNowInWords(now, bag, leftHere)}</p>;
}
