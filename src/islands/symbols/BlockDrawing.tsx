import { type LegendLine, ofLine, symbolOrKey } from '../../core/canvas/legend';
import { inkOn } from '../../core/colour/contrast';
import { hexToRgb, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { fontShare, SYMBOL_INSET, SYMBOL_SHARE } from '../../core/symbols/symbolInCell';
import type { Meeting } from '../../server/symbols/contract';

/** A block of the canvas with the symbols of two colours on it, as the eye meets them there. */
export function BlockDrawing({
  block,
  lines,
  legend,
}: {
  block: Meeting;
  lines: [LegendLine, LegendLine];
  legend: LegendLine[];
}) {
  return (
    <svg
      viewBox={`0 0 ${block.width * 10} ${block.height * 10}`}
      className="w-32 shrink-0 border border-edge max-sm:hidden"
      aria-hidden
    >
      {block.cells.map((cell, i) => {
        const line = ofLine(legend, cell);
        const hex = line ? (line.hex ?? UNKNOWN_COLOUR) : '#ffffff';
        const x = (i % block.width) * 10;
        const y = Math.floor(i / block.width) * 10;
        const shown = line !== undefined && lines.some((each) => each.line === line.line);
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a cell is its place
          <g key={i} transform={`translate(${x} ${y})`}>
            <rect width="10" height="10" fill={hex} stroke="var(--c-edge)" strokeWidth="0.2" />
            {shown && line.drawing !== undefined && (
              <path
                d={line.drawing}
                transform={`translate(${10 * SYMBOL_INSET} ${10 * SYMBOL_INSET}) scale(${SYMBOL_SHARE / 10})`}
                fill={inkOn(hexToRgb(hex))}
                fillRule="evenodd"
              />
            )}
            {shown && line.drawing === undefined && (
              <text
                className="notranslate"
                x="5"
                y="7.6"
                textAnchor="middle"
                fontSize={10 * fontShare(symbolOrKey(line))}
                fontWeight="600"
                fontFamily="var(--font-mono)"
                fill={inkOn(hexToRgb(hex))}
              >
                {symbolOrKey(line)}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
