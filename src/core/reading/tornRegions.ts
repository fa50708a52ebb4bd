import { makeChart } from '../cells/chart';
import { floodCells } from '../cells/flood';
import { type CellLooks, LOOK_PIXELS } from './cellLooks';
import { labOfLight } from './light';

/** Neighbours look alike that differ no more than this share of all neighbours within a region do, in tint and in glyph. */
const ALIKE_SHARE = 0.9;
/** So many neighbours on both sides of a border, and this share of them, have to look alike. */
const LEAST_ALIKE = 3;
const ALIKE_BORDER = 0.5;
/** A region that is so many times as large as the one torn off it is taken to be right. */
const FAR_LARGER = 5;

/** Of cells in two regions that look like one, about so many are wrong. */
export const TORN_DOUBT = 0.3;

/** Two cells side by side: regions, difference of their tints as they are seen (ΔE), correlation of their glyphs. */
interface Neighbours {
  regions: readonly [number, number];
  far: number;
  like: number;
}

/**
 * Regions of one class that end where nothing ends: cells on both sides of the border look as alike as neighbours within
 * a region do, yet were taken for two colours. Where a reflection or a shadow lies over a part of a region, that part may
 * be taken for another colour, every cell of it without a doubt.
 * @param classes index of the class of each cell, row by row
 * @returns 1 for each cell of both regions, of the smaller one alone where the other is far larger
 */
export function tornRegions(
  looks: CellLooks,
  classes: Int32Array,
  columns: number,
  rows: number,
): Uint8Array {
  const { regionOf, sizes } = regionsOfClasses(classes, columns, rows);
  const all = neighboursOf(looks, regionOf, columns, rows);
  const within = all.filter(({ regions: [a, b] }) => a === b);
  const usual = Math.floor((within.length - 1) * ALIKE_SHARE);
  const far = within.map((each) => each.far).sort((a, b) => a - b)[usual] ?? 0;
  const like = within.map((each) => each.like).sort((a, b) => b - a)[usual] ?? 1;
  const borders = new Map<string, { smaller: number; larger: number; count: number; alike: number }>();
  for (const each of all) {
    const [a, b] = each.regions;
    if (a === b) continue;
    const [smaller, larger] = sizes[a]! <= sizes[b]! ? [a, b] : [b, a];
    const name = `${Math.min(a, b)} ${Math.max(a, b)}`;
    const border = borders.get(name) ?? { smaller, larger, count: 0, alike: 0 };
    borders.set(name, border);
    border.count++;
    if (each.far <= far && each.like >= like) border.alike++;
  }
  const torn = new Set<number>();
  for (const { smaller, larger, count, alike } of borders.values()) {
    if (alike < LEAST_ALIKE || alike < count * ALIKE_BORDER) continue;
    torn.add(smaller);
    if (sizes[larger]! < FAR_LARGER * sizes[smaller]!) torn.add(larger);
  }
  return Uint8Array.from(regionOf, (region) => (torn.has(region) ? 1 : 0));
}

/** Cells of one class that hang together by their sides. */
function regionsOfClasses(
  classes: Int32Array,
  columns: number,
  rows: number,
): { regionOf: Int32Array; sizes: number[] } {
  const chart = makeChart(columns, rows, Uint16Array.from(classes));
  const regionOf = new Int32Array(classes.length).fill(-1);
  const sizes: number[] = [];
  for (let first = 0; first < regionOf.length; first++) {
    if (regionOf[first] !== -1) continue;
    const cells = floodCells(chart, first % columns, Math.floor(first / columns));
    for (const cell of cells) regionOf[cell] = sizes.length;
    sizes.push(cells.length);
  }
  return { regionOf, sizes };
}

function neighboursOf(looks: CellLooks, regionOf: Int32Array, columns: number, rows: number): Neighbours[] {
  const { glyphs, tints } = looks;
  const labs = Array.from(regionOf, (_, cell) =>
    labOfLight(tints[cell * 3]!, tints[cell * 3 + 1]!, tints[cell * 3 + 2]!),
  );
  const all: Neighbours[] = [];
  for (let cell = 0; cell < columns * rows; cell++) {
    const right = cell % columns < columns - 1 ? [cell + 1] : [];
    const below = cell + columns < columns * rows ? [cell + columns] : [];
    for (const other of [...right, ...below]) {
      const [a, b] = [labs[cell]!, labs[other]!];
      let like = 0;
      for (let i = 0; i < LOOK_PIXELS; i++)
        like += glyphs[cell * LOOK_PIXELS + i]! * glyphs[other * LOOK_PIXELS + i]!;
      const far = Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
      all.push({ regions: [regionOf[cell]!, regionOf[other]!], far, like });
    }
  }
  return all;
}
