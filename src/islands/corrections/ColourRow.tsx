import { memo } from 'react';
import { FIELD_IN_WORDS, type SheetField } from '../../core/checkin/sheetColumns';
import { FINISHES } from '../../core/colour/finish';
import { readColourName } from '../../core/colour/names';
import { readHex, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { TYPED_FIELDS, type TypedRow } from '../../core/corrections/typedList';
import { AS_TYPED } from '../../ui/asTyped';
import { ArrowDown, ArrowUp, Plus, Trash2 } from '../../ui/icons';

export const HEADS: Record<SheetField, string> = {
  ...FIELD_IN_WORDS,
  keyNumber: 'Key',
  code: 'Code',
  name: 'Name',
  hex: 'Colour',
  neededDrills: 'Drills',
  packets: 'Bags',
};
/** Signs that a field has room for; names take what is left. */
const SIZES: Record<SheetField, number> = {
  keyNumber: 3,
  symbol: 2,
  code: 6,
  name: 18,
  hex: 8,
  finish: 8,
  neededDrills: 5,
  packets: 3,
};

/** What can be done with a whole row. */
export type RowAct = 'up' | 'down' | 'insert' | 'delete';
const ACTS = [
  ['up', 'Move up', ArrowUp],
  ['down', 'Move down', ArrowDown],
  ['insert', 'Insert a row below', Plus],
  ['delete', 'Delete', Trash2],
] as const;

/** One colour of the list, every field open to be typed into. */
export const ColourRow = memo(function ColourRow({
  row,
  number,
  fault,
  notice,
  onSet,
  onPaste,
  onAct,
}: {
  row: TypedRow;
  number: number;
  fault: string | null;
  notice: string | null;
  onSet: (key: string, field: SheetField, text: string) => void;
  onPaste: (key: string, field: SheetField, text: string) => void;
  onAct: (key: string, what: RowAct) => void;
}) {
  const said = fault ?? notice;
  return (
    <>
      <tr className={fault ? 'outline-2 -outline-offset-2 outline-alarm' : ''}>
        {TYPED_FIELDS.map((field) => (
          <td key={field} className={`px-0.5 py-0.5 ${field === 'name' ? 'w-full' : ''}`}>
            {field === 'finish' ? (
              <select
                data-cell
                className="field !min-h-11 !min-w-[7.6rem] !px-1"
                aria-label={`${HEADS.finish}, row ${number}`}
                value={row.finish}
                onChange={(event) => onSet(row.key, 'finish', event.target.value)}
              >
                {FINISHES.map((finish) => (
                  <option key={finish} value={finish === 'plain' ? '' : finish}>
                    {finish}
                  </option>
                ))}
                {row.finish !== '' && !FINISHES.some((finish) => finish === row.finish) && (
                  <option value={row.finish}>{row.finish}</option>
                )}
              </select>
            ) : (
              <span className="flex items-center gap-1">
                {field === 'hex' && (
                  <input
                    type="color"
                    className="h-11 w-9 shrink-0"
                    aria-label={`Pick the colour of row ${number}`}
                    value={readHex(row.hex) ?? readColourName(row.hex) ?? UNKNOWN_COLOUR}
                    onChange={(event) => onSet(row.key, 'hex', event.target.value)}
                  />
                )}
                <input
                  data-cell
                  size={SIZES[field]}
                  style={{ minWidth: `${SIZES[field] + 2}ch` }}
                  className={`field !min-h-11 !px-1.5 ${field === 'name' ? '' : 'number'} ${field === 'neededDrills' || field === 'packets' ? 'text-right' : ''}`}
                  aria-label={`${HEADS[field]}, row ${number}`}
                  inputMode={field === 'neededDrills' || field === 'packets' ? 'numeric' : 'text'}
                  value={row[field]}
                  maxLength={80}
                  {...AS_TYPED}
                  onChange={(event) => onSet(row.key, field, event.target.value)}
                  onPaste={(event) => {
                    const text = event.clipboardData.getData('text/plain');
                    if (!/[\t\n]/.test(text.trim())) return;
                    event.preventDefault();
                    onPaste(row.key, field, text);
                  }}
                />
              </span>
            )}
          </td>
        ))}
        <td className="px-0.5 whitespace-nowrap">
          {ACTS.map(([what, words, Icon]) => (
            <button
              key={what}
              type="button"
              className="button !min-h-11 !border-transparent !px-1.5"
              title={words}
              aria-label={`${words}: row ${number}${row.code && `, ${row.code}`}`}
              onClick={() => onAct(row.key, what)}
            >
              <Icon size={18} aria-hidden />
            </button>
          ))}
        </td>
      </tr>
      {said && (
        <tr>
          <td
            colSpan={TYPED_FIELDS.length + 1}
            className={`px-2 pb-1 text-[0.95rem] ${fault ? 'text-alarm' : ''}`}
          >
            {said}
          </td>
        </tr>
      )}
    </>
  );
});
