import type { LegendLine } from '../../core/canvas/legend';

/** A colour of the list, chosen from a drop-down by its code and name. */
export function ColourChoice({
  legend,
  value,
  onChoose,
  label,
  before = [],
  after = () => '',
  className = '',
}: {
  legend: readonly LegendLine[];
  /** A line, or what stands before the lines. */
  value: number | '';
  /** @param line null where the empty entry was chosen */
  onChoose: (line: number | null) => void;
  /** Its name, where no label stands around it. */
  label?: string;
  /** Entries above the colours. */
  before?: readonly { value: number | ''; words: string }[];
  /** What stands behind a colour's name. */
  after?: (line: number) => string;
  className?: string;
}) {
  return (
    <select
      className={`field ${className}`}
      aria-label={label}
      value={value}
      onChange={({ target }) => onChoose(target.value === '' ? null : Number(target.value))}
    >
      {before.map((entry) => (
        <option key={`before ${entry.value}`} value={entry.value}>
          {entry.words}
        </option>
      ))}
      {legend.map(({ line, code, name }) => (
        <option key={line} value={line}>
          {code} {name}
          {after(line)}
        </option>
      ))}
    </select>
  );
}
