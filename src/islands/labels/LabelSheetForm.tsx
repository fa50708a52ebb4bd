import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import type { LabelSheet } from '../../core/labels/sheet';
import { PAPER_NAMES, PAPERS } from '../../core/print/paper';
import { labelSheetSchema } from '../../server/labels/contract';
import { asNumber } from '../../ui/typedNumber';

const SIZES = [
  ['columns', 'Columns'],
  ['rows', 'Rows'],
  ['labelWidthMm', 'Width, mm'],
  ['labelHeightMm', 'Height, mm'],
  ['marginLeftMm', 'Left margin, mm'],
  ['marginTopMm', 'Upper margin, mm'],
  ['gapXMm', 'Gap across, mm'],
  ['gapYMm', 'Gap down, mm'],
] as const;

/** The grid of a label sheet, measured with a ruler. */
export function LabelSheetForm({
  sheet,
  onKeep,
  onUsual,
}: {
  sheet: LabelSheet;
  onKeep: (sheet: LabelSheet) => void;
  onUsual: () => void;
}) {
  const form = useForm({ resolver: yupResolver(labelSheetSchema), defaultValues: sheet });
  const { errors } = form.formState;
  const fault = Object.values(errors).find((error) => error?.message)?.message;
  return (
    <details className="slip">
      <summary className="min-h-11 py-1.5 font-semibold">Fit it to your label sheet</summary>
      <form
        noValidate
        className="flex flex-col gap-3"
        onSubmit={form.handleSubmit((next) => onKeep(next as LabelSheet))}
      >
        <label className="block">
          <span className="mb-1 block font-semibold">Paper</span>
          <select className="field" {...form.register('paper')}>
            {PAPER_NAMES.map((name) => (
              <option key={name} value={name}>
                {PAPERS[name].name}, {PAPERS[name].widthMm} × {PAPERS[name].heightMm} mm
              </option>
            ))}
          </select>
        </label>
        <div className="grid grid-cols-2 gap-2">
          {SIZES.map(([name, words]) => (
            <label key={name} className="block">
              <span className="mb-0.5 block text-[0.95rem]">{words}</span>
              <input
                className={`field number ${errors[name] ? 'field-fault' : ''}`}
                inputMode="decimal"
                {...form.register(name, asNumber(words.endsWith(', mm') ? 'mm' : 'whole'))}
              />
            </label>
          ))}
        </div>
        <label className="flex min-h-11 items-center gap-2.5">
          <input type="checkbox" className="size-5 accent-accent" {...form.register('cutMarks')} />
          Cutting marks
        </label>
        <label className="flex min-h-11 items-center gap-2.5">
          <input type="checkbox" className="size-5 accent-accent" {...form.register('qr')} />
          QR code that opens the colour here
        </label>
        {fault && (
          <p role="alert" className="font-medium text-alarm">
            {fault}
          </p>
        )}
        <button type="submit" className="button button-main">
          Save this sheet
        </button>
        <button type="button" className="button" onClick={onUsual}>
          Back to the usual sheet
        </button>
      </form>
    </details>
  );
}
