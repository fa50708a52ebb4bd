import { useState } from 'react';
import { type LabelSheet, printerOff, TEST_CROSS_MM } from '../../core/labels/sheet';

/** Print the test page, measure its cross, and the sheet is moved back by as much as the printer is off. */
export function PrinterSlip({ sheet, onKeep }: { sheet: LabelSheet; onKeep: (sheet: LabelSheet) => void }) {
  const [across, setAcross] = useState(String(TEST_CROSS_MM + sheet.printerOffXMm));
  const [down, setDown] = useState(String(TEST_CROSS_MM + sheet.printerOffYMm));
  const numbers = [across, down].map((text) => Number(text.replace(',', '.')));
  const usable =
    [across, down].every((text) => text.trim() !== '') && numbers.every((n) => n >= 0 && n <= 40);
  const field = (words: string, value: string, change: (text: string) => void) => (
    <label className="block">
      <span className="mb-0.5 block text-[0.95rem]">{words}</span>
      <input
        className="field number"
        inputMode="decimal"
        value={value}
        onChange={(event) => change(event.target.value)}
      />
    </label>
  );
  return (
    <details className="slip">
      <summary className="min-h-11 py-1.5 font-semibold">Does your printer print where it should?</summary>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          const [x, y] = numbers;
          onKeep({ ...sheet, printerOffXMm: printerOff(x!), printerOffYMm: printerOff(y!) });
        }}
      >
        <a className="button" href={`/api/label-sheets/test-page.pdf?paper=${sheet.paper}`} download>
          Test page (PDF)
        </a>
        <p>Print it, measure where its cross stands, and write that here.</p>
        <div className="grid grid-cols-2 gap-2">
          {field('From the left, mm', across, setAcross)}
          {field('From the top, mm', down, setDown)}
        </div>
        {!usable && (
          <p role="alert" className="font-medium text-alarm">
            Give both distances in millimetres, between 0 and 40.
          </p>
        )}
        <button type="submit" className="button" disabled={!usable}>
          Print with this printer
        </button>
      </form>
    </details>
  );
}
