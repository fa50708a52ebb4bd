import type { SheetTable } from '../../core/checkin/sheetTable';
import { NumberField } from '../../ui/NumberField';

/** Where the rows come from. */
export type SheetSource =
  | { kind: 'text'; text: string }
  | { kind: 'bytes'; bytes: Uint8Array }
  | { kind: 'workbook'; file: File; type: string };
/** What the reader says of it where the guess is wrong. */
export interface ReadOptions {
  delimiter: ',' | ';' | '\t' | '|' | null;
  headerLine: number | null;
  encoding: string | null;
  sheet: number;
}
export const NO_OPTIONS: ReadOptions = { delimiter: null, headerLine: null, encoding: null, sheet: 0 };
export type ReadTable = SheetTable & { sheets: string[] };

const DELIMITERS = [
  ['', 'found by itself'],
  ['\t', 'tab'],
  [',', 'comma'],
  [';', 'semicolon'],
  ['|', 'upright stroke |'],
] as const;
/** Encodings of text files that people still have (WHATWG Encoding Standard). */
const ENCODINGS = [
  ['', 'UTF-8, or as it says itself'],
  ['windows-1252', 'Western European'],
  ['windows-1250', 'Central European'],
  ['windows-1251', 'Cyrillic'],
  ['windows-1253', 'Greek'],
  ['windows-1254', 'Turkish'],
  ['windows-1255', 'Hebrew'],
  ['windows-1256', 'Arabic'],
  ['windows-1258', 'Vietnamese'],
  ['windows-874', 'Thai'],
  ['gb18030', 'Chinese, simplified'],
  ['big5', 'Chinese, traditional'],
  ['shift_jis', 'Japanese'],
  ['euc-kr', 'Korean'],
] as const;

/** How the sheet was read, open to be changed: worksheet, row of the headings, sign between columns, encoding. */
export function HowRead({
  source,
  table,
  options,
  onChange,
}: {
  source: SheetSource;
  /** Null where it could not be read. */
  table: ReadTable | null;
  options: ReadOptions;
  onChange: (options: ReadOptions) => void;
}) {
  return (
    <fieldset className="flex flex-wrap gap-3 border border-line bg-paper p-3">
      <legend className="px-1 font-semibold">How it was read</legend>
      {table && table.sheets.length > 1 && (
        <Choice
          words="Worksheet"
          value={String(options.sheet)}
          choices={table.sheets.map((name, i) => [String(i), name] as const)}
          onChange={(sheet) => onChange({ ...options, sheet: Number(sheet), headerLine: null })}
        />
      )}
      <NumberField
        words="Headings in row (0: none)"
        className="[&_input]:!w-28"
        value={options.headerLine ?? table?.headerLine ?? 0}
        least={0}
        most={9999}
        whole
        onChange={(headerLine) => onChange({ ...options, headerLine })}
      />
      {source.kind !== 'workbook' && (
        <Choice
          words="Between columns"
          value={options.delimiter ?? ''}
          choices={DELIMITERS}
          onChange={(sign) =>
            onChange({ ...options, delimiter: (sign || null) as ReadOptions['delimiter'], headerLine: null })
          }
        />
      )}
      {source.kind === 'bytes' && (
        <Choice
          words="Letters"
          value={options.encoding ?? ''}
          choices={ENCODINGS}
          onChange={(encoding) => onChange({ ...options, encoding: encoding || null, headerLine: null })}
        />
      )}
    </fieldset>
  );
}

function Choice({
  words,
  value,
  choices,
  onChange,
}: {
  words: string;
  value: string;
  choices: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
}) {
  return (
    <label className="block">
      <span className="mb-0.5 block text-[0.95rem]">{words}</span>
      <select className="field !w-auto" value={value} onChange={(event) => onChange(event.target.value)}>
        {choices.map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
