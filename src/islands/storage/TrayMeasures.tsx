import { MAX_TRAY_UNITS, type Tray } from '../../core/storage/storage';
import { NumberField } from '../../ui/NumberField';

const MEASURES = [
  ['columns', 'Columns', 1, MAX_TRAY_UNITS],
  ['rows', 'Rows', 1, MAX_TRAY_UNITS],
  ['unitWidthMm', 'Across, mm', 5, 300],
  ['unitDepthMm', 'Down, mm', 5, 300],
  ['heightMm', 'Height, mm', 3, 400],
  ['wallMm', 'Wall, mm', 0, 20],
] as const;

/** What a ruler says of a tray. */
export function TrayMeasures({
  tray,
  number,
  trays,
  onChange,
  onRemove,
}: {
  tray: Tray;
  number: number;
  trays: number;
  onChange: (tray: Tray) => void;
  onRemove: () => void;
}) {
  return (
    <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
      <h2 className="min-w-16 pb-2.5">Tray {number}</h2>
      {MEASURES.map(([name, words, least, most]) => (
        <NumberField
          key={name}
          words={words}
          {...(words.endsWith(', mm') ? { unit: 'mm' as const } : {})}
          className="w-24"
          value={tray[name]}
          least={least}
          most={most}
          late
          whole={name === 'columns' || name === 'rows'}
          onChange={(value) => onChange({ ...tray, [name]: value })}
        />
      ))}
      {trays > 1 && (
        <button type="button" className="button" onClick={onRemove}>
          Delete tray {number}
        </button>
      )}
    </div>
  );
}
