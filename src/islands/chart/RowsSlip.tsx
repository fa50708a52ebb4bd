import { useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import type { Chart } from '../../core/cells/chart';
import type { CellEdit } from '../../core/chart/edit';
import { readTyped, rowEdits } from '../../core/chart/typing';
import { counted } from '../../core/words/numbers';
import { NumberField } from '../../ui/NumberField';

/** For those without a file: rows are typed as they are printed, and read again by columns to find slips. */
export function RowsSlip({
  chart,
  legend,
  onSet,
}: {
  chart: Chart;
  legend: LegendLine[];
  onSet: (edits: CellEdit[]) => void;
}) {
  // A chart that was just begun is there to be typed.
  const [open] = useState(() => chart.cells.every((cell) => cell === 0));
  const [by, setBy] = useState<'row' | 'column'>('row');
  const [number, setNumber] = useState(1);
  const [text, setText] = useState('');
  const most = by === 'row' ? chart.height : chart.width;
  const place = Math.min(most, number) - 1;
  const typed =
    text.trim() === ''
      ? null
      : readTyped(text, chart, legend, by === 'row' ? { row: place } : { column: place });
  const next = () => {
    setText('');
    setNumber(Math.min(most, place + 2));
  };
  return (
    <details className="slip" open={open}>
      <summary className="min-h-11 py-1.5 font-semibold">Type rows, or check by columns</summary>
      <form
        className="flex flex-col gap-2.5"
        onSubmit={(event) => {
          event.preventDefault();
          if (!typed || typed.fault) return;
          if (by === 'row') onSet(rowEdits(typed, chart, place));
          if (by === 'row' || typed.differs.length === 0) next();
        }}
      >
        <div className="grid grid-cols-2 gap-2">
          <select
            className="field"
            aria-label="What is typed"
            value={by}
            onChange={(event) => setBy(event.target.value as 'row' | 'column')}
          >
            <option value="row">set row</option>
            <option value="column">check column</option>
          </select>
          <NumberField
            hidden
            words={by === 'row' ? 'Row' : 'Column'}
            value={place + 1}
            least={1}
            most={most}
            whole
            onChange={setNumber}
          />
        </div>
        <textarea
          className="field number min-h-24"
          aria-label="Symbols"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <p className="text-[0.95rem] text-faded">
          Symbols one after the other, or words with spaces; <span className="number">12*A</span> for twelve
          of them, <span className="number">.</span> for no drill.
        </p>
        {typed && (
          <p
            role="status"
            className={
              typed.fault || (by === 'column' && typed.differs.length > 0) ? 'font-medium text-alarm' : ''
            }
          >
            {typed.fault ??
              (typed.differs.length === 0
                ? 'Just as on the chart.'
                : `${counted(typed.differs.length, 'cell')} ${typed.differs.length === 1 ? 'differs' : 'differ'} from the chart: ${typed.differs.slice(0, 12).join(', ')}${typed.differs.length > 12 ? ' …' : ''}`)}
          </p>
        )}
        <button type="submit" className="button" disabled={!typed || typed.fault !== null}>
          {by === 'row' ? 'Set this row' : 'Next column'}
        </button>
      </form>
    </details>
  );
}
