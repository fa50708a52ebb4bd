import { asCanvas, type Canvas, type CanvasFacts } from '../../src/core/canvas/canvas';
import type { LegendLine } from '../../src/core/canvas/legend';
import { type Chart, makeChart } from '../../src/core/cells/chart';

/** A legend line with sensible values where a test does not care. */
export function line(number: number, more: Partial<LegendLine> = {}): LegendLine {
  return {
    line: number,
    keyNumber: String(number),
    symbol: String.fromCharCode(64 + number),
    code: String(400 + number),
    name: `Colour ${number}`,
    hex: '#2f6f8f',
    finish: 'plain',
    neededDrills: 100,
    packets: 1,
    ...more,
  };
}

/** A chart from rows of digits, one digit a cell; `.` wants no drill. */
export function chartOfRows(...rows: string[]): Chart {
  const cells = rows.flatMap((row) => [...row].map((cell) => (cell === '.' ? 0 : Number(cell))));
  return makeChart(rows[0]!.length, rows.length, Uint16Array.from(cells));
}

/** A canvas of 10 × 10 squares in one piece. */
export const sampleCanvas = (more: Partial<CanvasFacts> = {}): Canvas =>
  asCanvas({
    id: '9f0c1a52-5b0e-4c27-9a8f-0b6f7a1d2c3e',
    title: 'Hills',
    shape: 'square',
    pitchMm: 2.5,
    width: 10,
    height: 10,
    panels: 1,
    symbolsPrinted: true,
    packetDrills: 200,
    bagsCarry: null,
    ...more,
  });
