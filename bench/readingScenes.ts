import type { LegendLine } from '../src/core/canvas/legend';
import { type Chart, makeChart } from '../src/core/cells/chart';
import { seededRandom } from '../src/core/chance/random';
import { rgbToHex } from '../src/core/colour/rgb';
import type { Scene } from '../src/core/reading/camera';
import type { Corners } from '../src/core/reading/homography';
import { printsOf } from '../src/server/reading/prints';

const PLAIN = [...'AEFHJKLMNPQRTWXY34579abdefhjkmnqrty+=?#%&@$<>*/\\^~▲▼◆●■★♣♠♥♦✕✚☾♫'];
const ALIKE = ['O0', 'Il', 'S5', 'Z2', 'B8', 'G6', 'cC', 'vV', 'sS', 'zZ', 'uU', 'pP', 'oO', 'wW', 'i!'];

/** An invented list of colours: some share of its symbols are look-alikes on tints that are alike. */
export function inventedColours(count: number, alike: number, seed: number): LegendLine[] {
  const random = seededRandom(seed);
  const shuffled = <T>(all: readonly T[]) =>
    all
      .map((each) => ({ each, at: random.uniform() }))
      .sort((a, b) => a.at - b.at)
      .map(({ each }) => each);
  const tint = (): [number, number, number] =>
    [0, 1, 2].map(() => 30 + 215 * random.uniform()) as [number, number, number];
  const colours: { symbol: string; rgb: [number, number, number] }[] = [];
  const used = new Set<string>();
  for (const pair of shuffled(ALIKE)) {
    if (colours.length + 2 > count * alike) break;
    const [a, b] = [...pair] as [string, string];
    if (used.has(a) || used.has(b)) continue;
    used.add(a).add(b);
    const rgb = tint();
    const near = rgb.map((part) => Math.min(250, Math.max(12, part + 22 * random.normal()))) as [
      number,
      number,
      number,
    ];
    colours.push({ symbol: a, rgb }, { symbol: b, rgb: near });
  }
  for (const symbol of shuffled(PLAIN)) {
    if (colours.length >= count) break;
    colours.push({ symbol, rgb: tint() });
  }
  return shuffled(colours).map(({ symbol, rgb }, i) => ({
    line: i + 1,
    keyNumber: String(i + 1),
    symbol,
    code: String(100 + i),
    name: `Colour ${i + 1}`,
    hex: rgbToHex(rgb.map(Math.round) as unknown as [number, number, number]),
    finish: 'plain',
    neededDrills: 100,
    packets: 1,
  }));
}

/** Blobs with some grain, in so many colours. */
export function inventedChart(width: number, height: number, colours: number, seed: number): Chart {
  const random = seededRandom(seed);
  const wave = () =>
    [0.03 + 0.25 * random.uniform(), 0.03 + 0.25 * random.uniform(), 6.3 * random.uniform()] as const;
  const parts = Array.from({ length: 5 }, wave);
  const order = Array.from({ length: colours }, (_, i) => i + 1).sort(() => random.uniform() - 0.5);
  const cells = new Uint16Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const tone = parts.reduce((sum, [a, b, c]) => sum + Math.sin(a * x + b * y + c), 0) / 6 + 0.5;
      const grain = random.uniform() < 0.3 ? random.uniform() : tone;
      cells[y * width + x] = order[Math.max(0, Math.min(colours - 1, Math.floor(grain * colours)))]!;
    }
  }
  return makeChart(width, height, cells);
}

export async function sceneOf(legend: readonly LegendLine[], chart: Chart): Promise<Scene> {
  return { chart, prints: await printsOf(legend), lineWidth: 0.05 };
}

/** Corners moved as a hand that taps misses them. @param cells standard deviation, in cells of `cellPx` */
export function tapped(corners: Corners, cells: number, cellPx: number, seed: number): Corners {
  const random = seededRandom(seed);
  return corners.map(([x, y]) => [
    x + cells * cellPx * random.normal(),
    y + cells * cellPx * random.normal(),
  ]) as unknown as Corners;
}
