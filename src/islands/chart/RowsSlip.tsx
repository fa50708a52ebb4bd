import { useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import type { Chart } from '../../core/cells/chart';
import type { CellEdit } from '../../core/chart/edit';
import { readTyped, type TypedAt, typedEdits } from '../../core/chart/typing';
import { counted } from '../../core/words/numbers';
import { AS_TYPED } from '../../ui/asTyped';
import { NumberField } from '../../ui/NumberField';
import { ToggleButton } from '../../ui/ToggleButton';

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
  const [column, setColumn] = useState(1);
  const [part, setPart] = useState(false);
  const most = by === 'row' ? chart.height : chart.width;
  const place = Math.min(most, number) - 1;
  const from = part ? Math.min(chart.width, column) - 1 : 0;
  const rowsAt = { row: place, column: from, part };
  const at: TypedAt = by === 'row' ? rowsAt : { column: place };
  const typed = text.trim() === '' ? null : readTyped(text, chart, legend, at);
  const next = (rows: number) => {
    setText('');
    setNumber(Math.min(most, place + 1 + rows));
  };
  return (
    <details className="slip" open={open}>
      <summary className="min-h-11 py-1.5 font-semibold">Type rows, or check by columns</summary>
      <form
        className="flex flex-col gap-2.5"
        onSubmit={(event) => {
          event.preventDefault();
          if (!typed || typed.fault) return;
          if (by === 'row') onSet(typedEdits(typed, chart, rowsAt));
          if (by === 'row' || typed.differs.length === 0) next(typed.rows.length);
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
        {by === 'row' && (
          <div className="grid grid-cols-2 items-end gap-2">
            <ToggleButton on={part} onChange={setPart}>
              Part of a row
            </ToggleButton>
            {part && (
              <NumberField
                words="from column"
                value={from + 1}
                least={1}
                most={chart.width}
                whole
                onChange={setColumn}
              />
            )}
          </div>
        )}
        <textarea
          className="field number min-h-24"
          aria-label="Symbols"
          {...AS_TYPED}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <p className="text-[0.95rem] text-faded">
          Symbols one after the other, or words with spaces; <span className="number">12*A</span> for twelve
          of them, <span className="number">.</span> for no drill. Several rows: one under the other.
        </p>
        {typed && (
          <p
            role="status"
            className={
              typed.fault || (by === 'column' && typed.differs.length > 0) ? 'font-medium text-alarm' : ''
            }
          >
            {typed.fault ??
              (typed.differs.length === 0 ? 'The same as on the chart.' : differsInWords(typed.differs, by))}
          </p>
        )}
        <button type="submit" className="button" disabled={!typed || typed.fault !== null}>
          {by === 'column'
            ? 'Next column'
            : !typed || typed.rows.length < 2
              ? part
                ? 'Set this part'
                : 'Set this row'
              : `Set these ${typed.rows.length} rows`}
        </button>
      </form>
    </details>
  );
}

const DIFFERS_SHOWN = 12;

/** Where what was typed differs from the chart, as one sentence. */
function differsInWords(differs: readonly { column: number; row: number }[], by: 'row' | 'column'): string {
  const rows = new Set(differs.map(({ row }) => row));
  const shown = differs
    .slice(0, DIFFERS_SHOWN)
    .map(({ column, row }) =>
      by === 'column' ? `row ${row}` : rows.size > 1 ? `${column} in row ${row}` : column,
    );
  const more = differs.length > DIFFERS_SHOWN ? ' …' : '';
  const verb = differs.length === 1 ? 'differs' : 'differ';
  return `${counted(differs.length, 'square')} ${verb} from the chart: ${shown.join(', ')}${more}`;
}
