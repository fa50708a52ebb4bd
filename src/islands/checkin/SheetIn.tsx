import { useMemo, useRef, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { type ColumnMapping, FIELD_IN_WORDS, SHEET_FIELDS } from '../../core/checkin/sheetColumns';
import { readSheetLines } from '../../core/checkin/sheetLines';
import {
  readSheetTable,
  type SheetTable,
  type TableNotice,
  unusedColumns,
} from '../../core/checkin/sheetTable';
import { withoutNumbers } from '../../core/corrections/colourList';
import { counted, many } from '../../core/words/numbers';
import { SPREADSHEET_TYPES } from '../../core/words/spreadsheetTypes';
import { readText } from '../../core/words/text';
import type { ShelfEntry } from '../../server/shelf/contract';
import { AS_TYPED } from '../../ui/asTyped';
import { Chip } from '../../ui/Chip';
import { DataTable, type TableColumn } from '../../ui/DataTable';
import { FilePicker } from '../../ui/FilePicker';
import { Download } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { TermsHere } from '../../ui/TermsHere';
import { ToggleButton } from '../../ui/ToggleButton';
import { withLegend } from '../../ui/withLegend';
import { ColourTable } from '../corrections/ColourTable';
import { sendFile } from '../writing/api';
import { useWrite } from '../writing/useWrite';
import { CheckinNav } from './CheckinNav';
import { HowRead, NO_OPTIONS, type ReadOptions, type ReadTable, type SheetSource } from './HowRead';
import { SheetPhoto } from './SheetPhoto';

/** The colour list, typed in or corrected as a table, or read from a sheet. */
export const SheetPage = withLegend(SheetPageWithList);

function SheetPageWithList({ entry, legend }: { entry: ShelfEntry; legend: LegendLine[] }) {
  const [way, setWay] = useState<'file' | 'photo' | 'typing'>(legend.length > 0 ? 'typing' : 'file');
  /** What a photo of the sheet was read as. */
  const [photographed, setPhotographed] = useState<ReadTable | null>(null);
  return (
    <>
      <CheckinNav canvasId={entry.canvas.id} here="/sheet" />
      <div className="mb-4 flex flex-wrap gap-2">
        <ToggleButton on={way === 'file'} onChange={() => setWay('file')}>
          Read a file
        </ToggleButton>
        <ToggleButton on={way === 'photo'} onChange={() => setWay('photo')}>
          Photograph it
        </ToggleButton>
        <ToggleButton on={way === 'typing'} onChange={() => setWay('typing')}>
          {legend.length > 0 ? 'Correct the list' : 'Type it in'}
        </ToggleButton>
      </div>
      {way === 'typing' ? (
        <ColourTable
          entry={entry}
          onSaved={() => {
            // A first list leads on; a correction stays where it was made.
            if (legend.length === 0) window.location.assign(afterSheet(entry));
          }}
        />
      ) : way === 'photo' ? (
        <SheetPhoto
          canvas={entry.canvas}
          onTable={(table) => {
            setPhotographed(table);
            setWay('file');
          }}
        />
      ) : (
        <SheetIn entry={entry} legend={legend} first={photographed} />
      )}
    </>
  );
}

/** Where the work goes on once the colours are known. */
function afterSheet({ canvas, hasChart }: ShelfEntry): string {
  return `/canvas/${canvas.id}/${hasChart ? 'checkin' : 'chart/read'}`;
}

/** Reads the inventory sheet: paste or choose a file, look at what was understood, then save. */
function SheetIn({
  entry,
  legend,
  first,
}: {
  entry: ShelfEntry;
  legend: LegendLine[];
  /** A table that was read from a photo; null to begin with a file. */
  first: ReadTable | null;
}) {
  const { canvas } = entry;
  const [text, setText] = useState('');
  const [source, setSource] = useState<SheetSource | null>(null);
  const [options, setOptions] = useState<ReadOptions>(NO_OPTIONS);
  const [table, setTable] = useState<ReadTable | null>(first);
  const [mapping, setMapping] = useState<ColumnMapping | null>(first?.mapping ?? null);
  const [agreed, setAgreed] = useState(false);
  const { busy, fault, setFault, write, act } = useWrite(canvas.id);
  /** Counts what was chosen or pasted: an answer about what came before says nothing any more. */
  const turn = useRef(0);
  const reading = useMemo(() => table && mapping && readSheetLines(table.rows, mapping), [table, mapping]);
  const unused = useMemo(() => (table && mapping ? unusedColumns(table, mapping) : []), [table, mapping]);
  const drills = reading?.lines.reduce((sum, line) => sum + line.neededDrills, 0) ?? 0;
  const doubt =
    reading && mapping && reading.lines.length > 0
      ? mapping.code === null
        ? 'No column holds the colour codes, so the key numbers are used instead.'
        : drills === 0
          ? 'No drills are read for any colour, so no bag can be checked.'
          : null
      : null;

  const show = (next: ReadTable) => {
    setTable(next);
    setMapping(next.mapping);
    setAgreed(false);
  };
  const read = (from: SheetSource, how: ReadOptions) => {
    const own = ++turn.current;
    const isNewest = () => own === turn.current;
    setSource(from);
    setOptions(how);
    setFault(null);
    if (from.kind === 'text' && from.text.trim() === '') return setTable(null);
    void act(async () => {
      if (from.kind === 'workbook') {
        const query = new URLSearchParams({ sheet: String(how.sheet) });
        if (how.headerLine !== null) query.set('header', String(how.headerLine));
        const url = `/api/sheet-readings?${query}`;
        const next = await sendFile<ReadTable>('POST', url, from.file, from.type).catch((error) => {
          if (isNewest()) throw error;
        });
        if (next && isNewest()) show(next);
        return;
      }
      const words = from.kind === 'text' ? from.text : readText(from.bytes, how.encoding);
      show({ ...readSheetTable(words, how), sheets: [] });
    }).then((well) => {
      if (!well && isNewest()) setTable(null);
    });
  };
  const choose = (file: File) => {
    if (file.size > 4_000_000)
      return setFault(`${file.name} is larger than 4 MB, so it cannot be an inventory sheet.`);
    setText('');
    void act(async () => {
      const kind = file.name.split('.').at(-1)!.toLowerCase();
      if (kind === 'xlsx' || kind === 'ods')
        return read({ kind: 'workbook', file, type: SPREADSHEET_TYPES[kind] }, NO_OPTIONS);
      const own = ++turn.current;
      const bytes = new Uint8Array(await file.arrayBuffer());
      if (own === turn.current) read({ kind: 'bytes', bytes }, NO_OPTIONS);
    });
  };
  const save = () =>
    reading &&
    void write('PUT', `/api/canvases/${canvas.id}/sheet`, { lines: withoutNumbers(reading.lines) }, () =>
      window.location.assign(afterSheet(entry)),
    );

  return (
    <div className="grid gap-5 lg:grid-cols-[23rem_1fr]">
      <section className="flex flex-col gap-3">
        <h2 className="text-xl">The inventory sheet</h2>
        <p>
          Paste its rows from a spreadsheet, or choose a CSV, XLSX or ODS file. Columns may be separated by
          tab, comma or semicolon. Nothing is saved until you say so.
        </p>
        <FilePicker
          words="Choose a file"
          accept=".csv,.tsv,.txt,.xlsx,.ods,text/csv,text/plain"
          onChoose={choose}
        />
        <label className="block">
          <span className="font-semibold">Or paste the rows here</span>
          <textarea
            className="field number h-52 text-[0.9rem]"
            value={text}
            {...AS_TYPED}
            placeholder={'Key\tSymbol\tCode\tName\tHex\tFinish\tDrills\tBags'}
            onChange={(event) => {
              setText(event.target.value);
              read({ kind: 'text', text: event.target.value }, NO_OPTIONS);
            }}
          />
        </label>
        {fault && <Notice kind="fault">{fault}</Notice>}
        {source && (table || fault) && (
          <HowRead source={source} table={table} options={options} onChange={(how) => read(source, how)} />
        )}
        {legend.length > 0 && (
          <Notice kind="hint">
            This canvas has a colour list of {counted(legend.length, 'colour')}. A corrected one can take its
            place.{' '}
            <a className="underline" href={`/api/canvases/${canvas.id}/sheet.csv`}>
              <Download size={16} className="inline" aria-hidden /> Download as CSV
            </a>{' '}
            or{' '}
            <a className="underline" href={`/api/canvases/${canvas.id}/sheet.xlsx`}>
              XLSX
            </a>
            ; with the result of check-in as{' '}
            <a className="underline" href={`/api/canvases/${canvas.id}/checkin.csv`}>
              CSV
            </a>{' '}
            or{' '}
            <a className="underline" href={`/api/canvases/${canvas.id}/checkin.xlsx`}>
              XLSX
            </a>
            .
          </Notice>
        )}
      </section>
      {table && mapping && reading ? (
        <section className="flex min-w-0 flex-col gap-4">
          <div className="flex flex-wrap items-end justify-between gap-4">
            <div>
              <p className="big-number">{counted(reading.lines.length, 'colour')}</p>
              <p>
                {many(drills)} drills needed,{' '}
                {many(reading.lines.reduce((sum, line) => sum + line.packets, 0))} bags
                {reading.faults.length > 0 && `; ${counted(reading.faults.length, 'row')} left out`}
              </p>
            </div>
            <button
              type="button"
              className="button button-main"
              disabled={busy || reading.lines.length === 0 || (doubt !== null && !agreed)}
              onClick={save}
            >
              {reading.faults.length > 0
                ? `Save the ${counted(reading.lines.length, 'good row')}`
                : 'Save this colour list'}
            </button>
          </div>
          {doubt && (
            <Notice kind="fault">
              {doubt}
              <label className="flex min-h-11 items-center gap-3">
                <input
                  type="checkbox"
                  className="size-5 accent-accent"
                  checked={agreed}
                  onChange={(event) => setAgreed(event.target.checked)}
                />
                Yes, save it like this
              </label>
            </Notice>
          )}
          <Faults title="Rows that cannot be read" faults={reading.faults} kind="fault" />
          <Faults title="Good to know" faults={[...table.notices, ...reading.notices]} kind="hint" />
          {(unused.length > 0 || table.guessed.length > 0) && (
            <Notice kind="hint">
              {table.guessed.length > 0 && (
                <p>
                  Guessed from what is in them, so please check:{' '}
                  {table.guessed.map((field) => FIELD_IN_WORDS[field]).join(', ')}.
                </p>
              )}
              {unused.length > 0 && <p>Not used: {unused.join(', ')}.</p>}
            </Notice>
          )}

          <Columns table={table} mapping={mapping} onChange={setMapping} />
          <div className="overflow-x-auto bg-paper">
            <DataTable
              caption="Rows of the sheet, as read"
              rows={reading.lines}
              rowKey={(line) => String(line.line)}
              columns={lineColumns(canvas.shape)}
            />
          </div>
        </section>
      ) : (
        <section className="slip hidden max-w-xl self-start lg:block">
          <p>
            The sheet lists every colour of the kit: key number, symbol, colour code, drills needed and bags
            supplied. Only the colour code is needed; the more columns there are, the more Oculent can check.
          </p>
          <TermsHere terms={['inventory sheet', 'key number', 'code', 'finish']} />
        </section>
      )}
    </div>
  );
}

function Faults({ title, faults, kind }: { title: string; faults: TableNotice[]; kind: 'fault' | 'hint' }) {
  if (faults.length === 0) return null;
  return (
    <Notice kind={kind}>
      <strong>
        {title}
        {faults.length > 1 && `: ${many(faults.length)}`}
      </strong>
      {/* Cut through a line, so that more below is seen. */}
      <ul className="max-h-[10.2rem] overflow-y-auto">
        {faults.map(({ lineNumber, reason }) => (
          <li key={`${lineNumber} ${reason}`}>
            {lineNumber !== null && <span className="number">Row {lineNumber}:</span>} {reason}
          </li>
        ))}
      </ul>
    </Notice>
  );
}

function Columns({
  table,
  mapping,
  onChange,
}: {
  table: SheetTable;
  mapping: ColumnMapping;
  onChange: (mapping: ColumnMapping) => void;
}) {
  return (
    <fieldset className="border border-line bg-paper p-3">
      <legend className="px-1 font-semibold">Which column is what</legend>
      {!table.hasHeader && (
        <p className="mb-2">No row has headings that we know, so please check whether this is right.</p>
      )}
      <div className="grid gap-x-4 gap-y-2 sm:grid-cols-2 xl:grid-cols-4">
        {SHEET_FIELDS.map((field) => (
          <label key={field} className="block">
            <span className="text-[0.95rem]">{FIELD_IN_WORDS[field]}</span>
            <select
              className="field"
              value={mapping[field] ?? ''}
              onChange={(event) =>
                onChange({
                  ...mapping,
                  [field]: event.target.value === '' ? null : Number(event.target.value),
                })
              }
            >
              <option value="">not in the list</option>
              {table.columns.map((column, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a sheet's columns have no other identity
                <option key={i} value={i}>
                  {column}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

function lineColumns(shape: 'square' | 'round'): TableColumn<LegendLine>[] {
  return [
    { key: 'key', header: 'Key', value: (line) => line.keyNumber },
    {
      key: 'symbol',
      header: 'Symbol',
      value: (line) => line.symbol ?? '',
      show: (line) => (
        <span className="flex items-center gap-2">
          <Chip line={line} shape={shape} size={32} />
          <span className="sr-only">{line.symbol ?? 'none'}</span>
        </span>
      ),
    },
    {
      key: 'code',
      header: 'Code',
      value: (line) => line.code,
      show: (line) => (
        <span translate="no" className="number">
          {line.code}
        </span>
      ),
    },
    { key: 'name', header: 'Name', value: (line) => line.name },
    { key: 'finish', header: 'Finish', value: (line) => line.finish },
    {
      key: 'needed',
      header: 'Drills',
      value: (line) => line.neededDrills,
      show: (line) => many(line.neededDrills),
      numeric: true,
    },
    { key: 'bags', header: 'Bags', value: (line) => line.packets, numeric: true },
  ];
}
