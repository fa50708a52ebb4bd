import { randomUUID } from 'node:crypto';
import { asCanvas, type Canvas } from '../src/core/canvas/canvas';
import type { LegendLine } from '../src/core/canvas/legend';
import { makeChart } from '../src/core/cells/chart';
import { addCanvas, replaceLegend } from '../src/data/canvas';
import { putChart } from '../src/data/chart';
import type { Database } from '../src/data/engine/database';

/** A made-up sheet of so many colours. */
export function legendOfColours(colours: number): LegendLine[] {
  return Array.from({ length: colours }, (_, i) => ({
    line: i + 1,
    keyNumber: String(i + 1),
    symbol: String.fromCodePoint(0x2200 + i),
    code: String(1000 + i * 7),
    name: '',
    hex: `#${((i * 2_654_435_761) >>> 8).toString(16).padStart(6, '0').slice(-6)}`,
    finish: 'plain',
    neededDrills: 1000,
    packets: 5,
  }));
}

/** Puts a made-up canvas with sheet and chart on a shelf: blocks and confetti, as pictures have them. */
export async function shelve(
  to: Database,
  width: number,
  height: number,
  colours: number,
  title = 'Bench',
): Promise<Canvas> {
  const canvas: Canvas = asCanvas({
    id: randomUUID(),
    title,
    shape: 'square',
    pitchMm: 2.5,
    bagsCarry: null,
    width,
    height,
    panels: 1,
    symbolsPrinted: true,
    packetDrills: 200,
  });
  const cells = Uint16Array.from({ length: width * height }, (_, i) => {
    const block = ((((i % width) >> 3) * 31 + (Math.floor(i / width) >> 3) * 17) % colours) + 1;
    const noise = Math.imul(i, 2_654_435_761) >>> 8;
    return noise % 3 === 0 ? 1 + (noise % colours) : block;
  });
  await addCanvas(to, canvas, new Date().toISOString());
  await to.transaction(async (queries) => {
    await replaceLegend(queries, canvas.id, legendOfColours(colours));
    await putChart(queries, canvas.id, makeChart(width, height, cells));
  });
  return canvas;
}
