import { useState } from 'react';
import { MAX_TRAY_UNITS, type Tray } from '../../core/storage/storage';

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
        <Measure
          key={`${name} ${tray[name]}`}
          words={words}
          value={tray[name]}
          least={least}
          most={most}
          whole={name === 'columns' || name === 'rows'}
          onChange={(value) => onChange({ ...tray, [name]: value })}
        />
      ))}
      {trays > 1 && (
        <button type="button" className="button" onClick={onRemove}>
          Take tray {number} out
        </button>
      )}
    </div>
  );
}

/** A number that counts once it is left or entered; what does not fit is told and not taken. */
function Measure({
  words,
  value,
  least,
  most,
  whole,
  onChange,
}: {
  words: string;
  value: number;
  least: number;
  most: number;
  whole: boolean;
  onChange: (value: number) => void;
}) {
  const [typed, setTyped] = useState(String(value));
  const number = Number(typed.replace(',', '.'));
  const fits =
    typed.trim() !== '' && number >= least && number <= most && (!whole || Number.isInteger(number));
  const take = () => {
    if (fits && number !== value) onChange(number);
  };
  return (
    <label className="block w-24">
      <span className="mb-0.5 block text-[0.95rem] leading-tight">{words}</span>
      <input
        className={`field number ${fits ? '' : 'field-fault'}`}
        inputMode="decimal"
        value={typed}
        aria-invalid={!fits}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
      {!fits && (
        <span role="alert" className="block text-[0.95rem] text-alarm">
          {least} to {most}
        </span>
      )}
    </label>
  );
}
