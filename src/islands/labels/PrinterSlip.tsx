import { useState } from 'react';
import { type LabelSheet, printerOff, TEST_CROSS_MM } from '../../core/labels/sheet';
import { NumberField } from '../../ui/NumberField';

/** Print the test page, measure its cross, and the sheet is moved back by as much as the printer is off. */
export function PrinterSlip({ sheet, onKeep }: { sheet: LabelSheet; onKeep: (sheet: LabelSheet) => void }) {
  const [across, setAcross] = useState(TEST_CROSS_MM + sheet.printerOffXMm);
  const [down, setDown] = useState(TEST_CROSS_MM + sheet.printerOffYMm);
  const field = (words: string, value: number, change: (mm: number) => void) => (
    <NumberField words={words} value={value} unit="mm" least={0} most={40} onChange={change} />
  );
  return (
    <details className="slip">
      <summary className="min-h-11 py-1.5 font-semibold">Does your printer print where it should?</summary>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          onKeep({ ...sheet, printerOffXMm: printerOff(across), printerOffYMm: printerOff(down) });
        }}
      >
        <a className="button" href={`/api/label-sheets/test-page.pdf?paper=${sheet.paper}`}>
          Test page (PDF)
        </a>
        <p>Print it, measure where its cross stands, and write that here.</p>
        <div className="grid grid-cols-2 gap-2">
          {field('From the left, mm', across, setAcross)}
          {field('From the top, mm', down, setDown)}
        </div>
        <button type="submit" className="button">
          Print with this printer
        </button>
      </form>
    </details>
  );
}
