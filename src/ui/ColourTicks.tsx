import type { ReactNode } from 'react';
import type { Shape } from '../core/canvas/canvas';
import type { LegendLine } from '../core/canvas/legend';
import { Chip, ColourName } from './Chip';

/** Colours to tick, one a row: box, chip, code, name and what the station adds. */
export function ColourTicks({
  lines,
  shape,
  isTicked,
  onTick,
  beside,
}: {
  lines: readonly LegendLine[];
  shape: Shape;
  isTicked: (line: LegendLine) => boolean;
  onTick: (line: LegendLine, ticked: boolean) => void;
  beside: (line: LegendLine) => ReactNode;
}) {
  return (
    <ul className="min-h-0 grow overflow-y-auto border border-line bg-paper">
      {lines.map((line) => (
        <li key={line.line} className="border-b border-line">
          <label className="flex min-h-12 items-center gap-3 px-2.5 py-1">
            <input
              type="checkbox"
              className="size-5 shrink-0 accent-accent"
              checked={isTicked(line)}
              onChange={({ target }) => onTick(line, target.checked)}
            />
            <Chip line={line} shape={shape} />
            <ColourName line={line} />
            <span className="number ml-auto shrink-0">{beside(line)}</span>
          </label>
        </li>
      ))}
    </ul>
  );
}
