import { useState } from 'react';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import type { ListedBag } from '../../core/checkin/bagLedger';
import type { StrayMatch } from '../../core/checkin/strays';
import { UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { many } from '../../core/words/numbers';

/** So many at once: each offers all colours, and a heap of another kit has hundreds. */
const AT_ONCE = 12;

/** Bags of no colour in the list, each with what it may be: given to a colour, kept in the stash, or thrown out. */
export function Strays({
  bags,
  matches,
  legend,
  onAssign,
  onKeep,
  onRemove,
}: {
  bags: ListedBag[];
  matches: StrayMatch[];
  legend: LegendLine[];
  onAssign: (bag: ListedBag, line: LegendLine) => void;
  /** @param hex the tint that its drills have; null for unknown */
  onKeep: (bag: ListedBag, hex: string | null) => void;
  onRemove: (bag: ListedBag) => void;
}) {
  const [keeping, setKeeping] = useState<string | null>(null);
  const [hex, setHex] = useState<string | null>(null);
  const [shown, setShown] = useState(AT_ONCE);
  if (bags.length === 0) return null;
  return (
    <div className="slip !py-3">
      <h2>Not in the colour list{bags.length > 1 && `: ${many(bags.length)} bags`}</h2>
      <ul className="flex flex-col divide-y divide-line">
        {bags.slice(0, shown).map((bag) => (
          <li key={bag.id} className="flex flex-col gap-2 py-2">
            <p>
              <span className="number font-semibold">{bag.label}</span>, {many(bag.drills)} drills
            </p>
            {matches
              .filter((match) => match.bagId === bag.id)
              .map((match) => {
                const line = ofLine(legend, match.line)!;
                return (
                  <div key={match.line}>
                    <p className="text-[0.95rem]">{match.reason}</p>
                    <button type="button" className="button mt-1" onClick={() => onAssign(bag, line)}>
                      Take it for {line.code}
                    </button>
                  </div>
                );
              })}
            <div className="flex flex-wrap gap-2">
              <select
                className="field number !w-auto"
                aria-label={`Give ${bag.label} to a colour`}
                value=""
                onChange={(event) => {
                  const line = ofLine(legend, Number(event.target.value));
                  if (line) onAssign(bag, line);
                }}
              >
                <option value="">Give it to…</option>
                {legend.map((line) => (
                  <option key={line.line} value={line.line} translate="no">
                    {line.code}
                  </option>
                ))}
              </select>
              <button
                type="button"
                className="button"
                aria-expanded={keeping === bag.id}
                onClick={() => {
                  setHex(null);
                  setKeeping(keeping === bag.id ? null : bag.id);
                }}
              >
                Keep in the stash
              </button>
              <button type="button" className="button" onClick={() => onRemove(bag)}>
                Throw out
              </button>
            </div>
            {keeping === bag.id && (
              <div className="flex flex-wrap items-center gap-2">
                <label className="flex items-center gap-2">
                  <span>Its tint</span>
                  <input
                    type="color"
                    className="h-11 w-16"
                    value={hex ?? UNKNOWN_COLOUR}
                    onChange={(event) => setHex(event.target.value)}
                  />
                </label>
                <button
                  type="button"
                  className="button button-main"
                  onClick={() => {
                    setKeeping(null);
                    onKeep(bag, hex);
                  }}
                >
                  {hex === null ? 'Keep without a tint' : 'Keep with this tint'}
                </button>
              </div>
            )}
          </li>
        ))}
      </ul>
      {bags.length > shown && (
        <button type="button" className="button mt-2" onClick={() => setShown(shown + AT_ONCE)}>
          Show {many(Math.min(AT_ONCE, bags.length - shown))} more
        </button>
      )}
    </div>
  );
}
