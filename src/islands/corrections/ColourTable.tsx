import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { SheetField } from '../../core/checkin/sheetColumns';
import {
  emptyRow,
  isEmptyRow,
  pastedInto,
  readTypedList,
  TYPED_FIELDS,
  type TypedRow,
  typedRow,
} from '../../core/corrections/typedList';
import { counted, many } from '../../core/words/numbers';
import type { ColourListView } from '../../server/corrections/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { isComposed } from '../../ui/composing';
import { keptHere } from '../../ui/kept';
import { Notice } from '../../ui/Notice';
import { useAnswer } from '../writing/useAnswer';
import { useWrite } from '../writing/useWrite';
import { ColourRow, HEADS, type RowAct } from './ColourRow';
import { CorrectionHistory } from './CorrectionHistory';

const draftKey = (canvasId: string) => `oculent-list-${canvasId}`;

/** What is typed and not saved yet, with the state of the list that it began from. */
interface Draft {
  version: string;
  rows: TypedRow[];
}

/** The colour list as a table that is typed in; every cell can be corrected at any time. */
export function ColourTable({ entry, onSaved }: { entry: ShelfEntry; onSaved: () => void }) {
  const { answer, fault, reload } = useAnswer<ColourListView>(`/api/canvases/${entry.canvas.id}/sheet`, [
    'sheet',
  ]);
  if (fault) return <Notice kind="fault">{fault}</Notice>;
  if (!answer) return <p aria-live="polite">Loading…</p>;
  return <Table entry={entry} list={answer} onChanged={reload} onSaved={onSaved} />;
}

function Table({
  entry,
  list,
  onChanged,
  onSaved,
}: {
  entry: ShelfEntry;
  list: ColourListView;
  onChanged: () => void;
  onSaved: () => void;
}) {
  const { canvas } = entry;
  // What the rows are compared with: the list as it was when the last of them was unchanged.
  const [base, setBase] = useState(list);
  const saved = useMemo(() => rowsOf(base), [base]);
  const [draft] = useState(() => storedDraft(canvas.id));
  const [rows, setRows] = useState<TypedRow[]>(() => withSpare(draft?.rows ?? saved));
  const [version, setVersion] = useState(draft?.version ?? list.version);
  const { busy, fault, setFault, write } = useWrite(canvas.id);
  const table = useRef<HTMLTableElement>(null);
  const reading = useMemo(() => readTypedList(rows), [rows]);
  const changed = useMemo(
    () => JSON.stringify(rows.filter((row) => !isEmptyRow(row))) !== JSON.stringify(saved),
    [rows, saved],
  );
  const adopt = (newer: ColourListView) => {
    setBase(newer);
    setVersion(newer.version);
    setRows(withSpare(rowsOf(newer)));
  };
  // What another screen saves is shown at once, unless something is typed here: that stays, with the hand in it.
  const [seen, setSeen] = useState(list);
  if (list !== seen) {
    setSeen(list);
    if (!changed) adopt(list);
  }
  useEffect(() => {
    if (changed) keptHere.set(draftKey(canvas.id), JSON.stringify({ version, rows }));
    else keptHere.remove(draftKey(canvas.id));
  }, [canvas.id, changed, rows, version]);

  const set = useCallback((key: string, field: SheetField, text: string) => {
    setRows((all) => withSpare(all.map((row) => (row.key === key ? { ...row, [field]: text } : row))));
  }, []);
  const paste = useCallback((key: string, field: SheetField, text: string) => {
    setRows((all) => {
      const at = all.findIndex((row) => row.key === key);
      return withSpare(pastedInto(all, at, field, text, () => crypto.randomUUID()));
    });
  }, []);
  const act = useCallback((key: string, what: RowAct) => {
    setRows((all) => {
      const at = all.findIndex((row) => row.key === key);
      const next = [...all];
      if (what === 'insert') next.splice(at + 1, 0, emptyRow(crypto.randomUUID()));
      else if (what === 'delete') next.splice(at, 1);
      else {
        const to = at + (what === 'up' ? -1 : 1);
        if (to < 0 || to >= next.length) return all;
        [next[at], next[to]] = [next[to]!, next[at]!];
      }
      return withSpare(next);
    });
  }, []);
  /** Enter goes on to the next cell, and from the last one to the next row; up and down stay in the column. */
  const onKeyDown = (event: KeyboardEvent<HTMLTableElement>) => {
    if (isComposed(event.nativeEvent)) return;
    const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-cell]');
    const step = { Enter: 1, ArrowDown: TYPED_FIELDS.length, ArrowUp: -TYPED_FIELDS.length }[event.key];
    if (!cell || step === undefined || (cell.tagName === 'SELECT' && event.key !== 'Enter')) return;
    event.preventDefault();
    const cells = [...table.current!.querySelectorAll<HTMLElement>('[data-cell]')];
    const next = cells[cells.indexOf(cell) + (event.shiftKey ? -step : step)];
    next?.focus();
    if (next instanceof HTMLInputElement) next.select();
  };
  const save = () =>
    void write<ColourListView>(
      'PUT',
      `/api/canvases/${canvas.id}/sheet`,
      { id: crypto.randomUUID(), lines: reading.colours, basedOn: version },
      (answer) => {
        // The page may be left before the next effect; what was typed meanwhile is put there again by it.
        keptHere.remove(draftKey(canvas.id));
        setBase(answer);
        setVersion(answer.version);
        // What was typed while this was under way is not saved yet.
        setRows((now) => (now === rows ? withSpare(rowsOf(answer)) : now));
        onChanged();
        onSaved();
      },
    );
  const cancel = () => {
    keptHere.remove(draftKey(canvas.id));
    setFault(null);
    adopt(list);
  };
  const drills = reading.colours.reduce((sum, { neededDrills }) => sum + neededDrills, 0);
  const bags = reading.colours.reduce((sum, { packets }) => sum + packets, 0);

  return (
    <section className="flex min-w-0 flex-col gap-3" aria-label="The colour list">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <p className="big-number">{counted(reading.colours.length, 'colour')}</p>
          <p>
            {many(drills)} drills, {counted(bags, 'bag')}
            {reading.faults.size > 0 && `; ${counted(reading.faults.size, 'row')} cannot be taken yet`}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          {changed && (
            <button type="button" className="button" onClick={cancel}>
              Cancel the changes
            </button>
          )}
          <button
            type="button"
            className="button button-main"
            disabled={busy || !changed || reading.colours.length === 0 || reading.faults.size > 0}
            onClick={save}
          >
            {changed ? `Save ${counted(reading.colours.length, 'colour')}` : 'All saved'}
          </button>
        </div>
      </div>
      {changed && version !== list.version && (
        <Notice kind="hint">
          The list was changed at another screen after you began typing here. Cancel the changes to see it.
        </Notice>
      )}
      {drills === 0 && reading.colours.length > 0 && (
        <Notice kind="hint">No drills are given yet, so the bags cannot be judged.</Notice>
      )}
      {fault && <Notice kind="fault">{fault}</Notice>}
      <CorrectionHistory key={base.version} canvasId={canvas.id} onChanged={onChanged} />
      <div className="relative overflow-x-auto bg-paper">
        <table ref={table} className="w-full border-collapse" onKeyDown={onKeyDown}>
          <caption className="sr-only">The colour list</caption>
          <thead>
            <tr>
              {TYPED_FIELDS.map((field) => (
                <th key={field} className="px-1 py-1.5 text-[0.95rem]">
                  {HEADS[field]}
                </th>
              ))}
              <th className="px-1 py-1.5">
                <span className="sr-only">Row</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row, i) => (
              <ColourRow
                key={row.key}
                row={row}
                number={i + 1}
                fault={reading.faults.get(row.key) ?? null}
                notice={reading.notices.get(row.key) ?? null}
                onSet={set}
                onPaste={paste}
                onAct={act}
              />
            ))}
          </tbody>
        </table>
      </div>
      <p className="text-[0.95rem] text-faded">
        Enter goes on to the next cell; rows copied from a spreadsheet can be pasted into any cell. Bags, pots
        and squares stay with their colour when its code is corrected.
      </p>
    </section>
  );
}

const rowsOf = (list: ColourListView) => list.lines.map((colour) => typedRow(colour, String(colour.line)));

/** There is always one empty row at the end to type into. */
function withSpare(rows: TypedRow[]): TypedRow[] {
  const last = rows.at(-1);
  return last && isEmptyRow(last) ? rows : [...rows, emptyRow(crypto.randomUUID())];
}

function storedDraft(canvasId: string): Draft | null {
  return keptHere.json(draftKey(canvasId)) as Draft | null;
}
