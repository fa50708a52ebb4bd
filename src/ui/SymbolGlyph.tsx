import { type LegendLine, symbolOrKey } from '../core/canvas/legend';

/** The symbol of a colour in a line of text: as the user drew it, else its character, else the key number. */
export function SymbolGlyph({ line }: { line: LegendLine }) {
  if (line.drawing === undefined) return <span translate="no">{symbolOrKey(line)}</span>;
  return (
    <svg
      viewBox="0 0 100 100"
      className="inline-block size-[1em] align-[-0.12em]"
      role="img"
      aria-label="drawn symbol"
    >
      <path d={line.drawing} fill="currentColor" fillRule="evenodd" />
    </svg>
  );
}
