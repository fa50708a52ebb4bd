import type { ReactNode } from 'react';
import type { Shape } from '../core/canvas/canvas';
import type { LegendLine } from '../core/canvas/legend';
import { Chip, ColourName } from './Chip';

/** Colours to choose from, one a row: chip, code, name and what the station adds. */
export function ColourList({
  label,
  lines,
  shape,
  chosen,
  onChoose,
  beside,
  atLeastSix = false,
}: {
  label: string;
  lines: readonly LegendLine[];
  shape: Shape;
  chosen: number | null;
  onChoose: (line: LegendLine) => void;
  beside: (line: LegendLine) => ReactNode;
  /** Six colours are in sight, however little room there is. */
  atLeastSix?: boolean;
}) {
  return (
    <ul
      aria-label={label}
      className={`grow overflow-y-auto border border-line bg-paper ${atLeastSix ? 'min-h-[18.1rem] shrink-0 basis-0' : 'min-h-0'}`}
      tabIndex={-1}
    >
      {lines.map((line) => (
        <li key={line.line}>
          <button
            type="button"
            aria-pressed={line.line === chosen}
            onClick={() => onChoose(line)}
            className={`flex min-h-12 w-full items-center gap-3 border-b border-line px-2.5 py-1 text-left ${
              line.line === chosen ? 'bg-wash shadow-[inset_5px_0_0_var(--c-accent)]' : 'hover:bg-cloth'
            }`}
          >
            <Chip line={line} shape={shape} />
            <ColourName line={line} />
            <span className="number ml-auto shrink-0 text-right">{beside(line)}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
