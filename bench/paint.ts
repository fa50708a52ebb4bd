import { performance } from 'node:perf_hooks';
import { emptyBitmap, setLaid } from '../src/core/cells/bitmap';
import { makeChart } from '../src/core/cells/chart';
import type { Rgb } from '../src/core/colour/rgb';
import { clothColours, paintCloth } from '../src/core/view/paint';

/** Median time of a task in milliseconds. */
function median(task: () => void, rounds = 41): number {
  const times = Array.from({ length: rounds }, () => {
    const start = performance.now();
    task();
    return performance.now() - start;
  });
  return times.sort((a, b) => a - b)[rounds >> 1]!;
}

const [width, height, lines] = [840, 500, 76];
const cells = Uint16Array.from({ length: width * height }, (_, i) => ((i * 2654435761) >>> 8) % (lines + 1));
const chart = makeChart(width, height, cells);
const laid = emptyBitmap(cells.length);
for (let cell = 0; cell < cells.length; cell += 3) setLaid(laid, cell, true);
const drills = Array.from({ length: lines }, (_, i): Rgb => [(i * 37) % 256, (i * 91) % 256, (i * 53) % 256]);
const colours = clothColours(drills, [243, 238, 229]);
const pixels = new Uint8ClampedArray(cells.length * 4);
const source = new Uint8ClampedArray(cells.length * 4).fill(7);

// Both sides run in this one process, so the ratio says more than either time.
const floor = median(() => pixels.set(source));
const paint = median(() => paintCloth(chart, colours, { laid, focus: new Set([3]) }, pixels));
console.log(`copying ${width} × ${height} pixels      ${floor.toFixed(2)} ms`);
console.log(
  `painting the same from cells     ${paint.toFixed(2)} ms, ${(paint / floor).toFixed(1)} × the copy`,
);
