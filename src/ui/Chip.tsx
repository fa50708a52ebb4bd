import type { Shape } from '../core/canvas/canvas';
import { type LegendLine, symbolOrKey } from '../core/canvas/legend';
import { inkOn } from '../core/colour/contrast';
import { hexToRgb, UNKNOWN_COLOUR } from '../core/colour/rgb';
import { fontShare, SYMBOL_INSET, SYMBOL_SHARE } from '../core/symbols/symbolInCell';

/** The cell that the symbol stands in, within the 36 units of the chip with its edge. */
const CELL = 30;

/** A drill of this colour with its symbol: square corners or round as in the kit, a cut corner for a special finish. */
export function Chip({ line, shape, size = 36 }: { line: LegendLine; shape: Shape; size?: number }) {
  const hex = line.hex ?? UNKNOWN_COLOUR;
  const symbol = symbolOrKey(line);
  const inset = (36 - CELL) / 2 + CELL * SYMBOL_INSET;
  return (
    <svg width={size} height={size} viewBox="0 0 36 36" className="notranslate shrink-0" aria-hidden>
      {shape === 'round' ? (
        <circle cx="18" cy="18" r="17" fill={hex} stroke="var(--c-edge)" />
      ) : (
        <rect x="1" y="1" width="34" height="34" fill={hex} stroke="var(--c-edge)" />
      )}
      {line.finish !== 'plain' && <path d="M24 1H35V12Z" fill="var(--c-paper)" stroke="var(--c-ink)" />}
      {line.drawing === undefined ? (
        <text
          x="18"
          y={line.finish === 'plain' ? 25 : 27}
          textAnchor="middle"
          fontSize={CELL * fontShare(symbol)}
          fontWeight="600"
          fontFamily="var(--font-mono)"
          fill={inkOn(hexToRgb(hex))}
        >
          {symbol}
        </text>
      ) : (
        <path
          d={line.drawing}
          transform={`translate(${inset} ${inset + (line.finish === 'plain' ? 0 : 2)}) scale(${(CELL * SYMBOL_SHARE) / 100})`}
          fill={inkOn(hexToRgb(hex))}
          fillRule="evenodd"
        />
      )}
    </svg>
  );
}

/** Code, name and finish of a colour in two lines. */
export function ColourName({ line }: { line: LegendLine }) {
  return (
    <span className="min-w-0 leading-tight">
      <span translate="no" className="number block font-semibold">
        {line.code}
      </span>
      <span className="block truncate text-[0.95rem] text-faded">
        {line.name || `Key ${line.keyNumber}`}
        {line.finish !== 'plain' && `, ${line.finish}`}
      </span>
    </span>
  );
}

/** Chip, code and name side by side, as tables show a colour. */
export function Colour({ line, shape, size }: { line: LegendLine; shape: Shape; size?: number }) {
  return (
    <span className="flex min-w-0 items-center gap-3">
      <Chip line={line} shape={shape} {...(size === undefined ? {} : { size })} />
      <ColourName line={line} />
    </span>
  );
}
