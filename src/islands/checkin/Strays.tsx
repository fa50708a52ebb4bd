import type { LegendLine } from '../../core/canvas/legend';
import type { StrayMatch } from '../../core/checkin/strays';
import type { CountedBag } from '../../core/checkin/supply';
import { many } from '../../core/words/numbers';

/** Bags on no line, each with what it may be. */
export function Strays({
  bags,
  matches,
  legend,
  onAssign,
}: {
  bags: CountedBag[];
  matches: StrayMatch[];
  legend: LegendLine[];
  onAssign: (bag: CountedBag, line: LegendLine) => void;
}) {
  if (bags.length === 0) return null;
  return (
    <div className="slip !py-3">
      <h2>On no line of the sheet</h2>
      <ul className="flex flex-col gap-2">
        {bags.map((bag) => (
          <li key={bag.id}>
            <span className="number font-semibold">{bag.label}</span>, {many(bag.drills)} drills
            {matches
              .filter((match) => match.bagId === bag.id)
              .map((match) => {
                const line = legend[match.line - 1]!;
                return (
                  <div key={match.line} className="mt-1">
                    <p className="text-[0.95rem]">{match.reason}</p>
                    <button type="button" className="button mt-1" onClick={() => onAssign(bag, line)}>
                      Take it for {line.code}
                    </button>
                  </div>
                );
              })}
          </li>
        ))}
      </ul>
    </div>
  );
}
