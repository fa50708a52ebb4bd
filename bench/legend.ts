import type { LegendLine } from '../src/core/canvas/legend';

/** A made-up sheet of so many colours. */
export function legendOfColours(colours: number): LegendLine[] {
  return Array.from({ length: colours }, (_, i) => ({
    line: i + 1,
    keyNumber: String(i + 1),
    symbol: String.fromCodePoint(0x2460 + (i % 20)),
    code: String(1000 + i * 7),
    name: '',
    hex: `#${((i * 2_654_435_761) >>> 8).toString(16).padStart(6, '0').slice(-6)}`,
    finish: 'plain',
    neededDrills: 1000,
    packets: 5,
  }));
}
