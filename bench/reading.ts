import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import sharp from 'sharp';
import { buildPrograms } from '../bin/programs';
import { kingfisherKit, lanternKit } from '../demo/kits';
import type { LegendLine } from '../src/core/canvas/legend';
import type { Chart } from '../src/core/cells/chart';
import { CAMERA_LEVELS, type CameraLevelName, type Scene, takePhoto } from '../src/core/reading/camera';
import type { ClassSample } from '../src/core/reading/classify';
import type { Corners } from '../src/core/reading/homography';
import { listScene } from '../src/core/reading/listScene';
import type { Photo } from '../src/core/reading/photo';
import type { Reading } from '../src/core/reading/readPhoto';
import { samplesOf } from '../src/core/reading/samples';
import { type PhotoPlace, stitched } from '../src/core/reading/stitch';
import { homographyTo, mapped } from '../src/core/view/projective';
import { openBrowserReader } from './browserReader';
import { inventedChart, inventedColours, sceneOf, tapped } from './readingScenes';

/*
 * How well photographs of the simulated camera are read, by level and number of colours, from seeds that no number was
 * fitted to: share of cells that are wrong, wrong without being shown to anybody, and shown. Read by the program as it is
 * built, for what runs the sources here makes each function dearer; in Node, and in a browser as in the product.
 * `npx tsx bench/reading.ts`.
 */
const BUILT = resolve('node_modules/.cache/bench');
await buildPrograms({ readPhoto: 'src/core/reading/readPhoto.ts' }, BUILT);
const { readPhoto } = (await import(
  pathToFileURL(`${BUILT}/readPhoto.mjs`).href
)) as typeof import('../src/core/reading/readPhoto');

const inBrowser = await openBrowserReader();

const COLUMNS = 60;
const ROWS = 48;
/** Share of symbols and tints that are look-alikes, and pixels of a cell. */
const KINDS = {
  easy: { alike: 0.1, px: 55 },
  normal: { alike: 0.3, px: 45 },
  hard: { alike: 0.6, px: 32 },
} as const;
const SEEDS = [5001];
/** So often a photo is read again, for its time. */
const AGAIN = 3;
/** Where on an invented chart its photo begins. */
const ASIDE: PhotoPlace = { column: 5, row: 5 };
/** Doubt of every cell that was read, and whether it was wrong. */
const doubts: { doubt: number; wrong: boolean }[] = [];

function timesInWords([first, ...again]: number[]): string {
  const usual = again.sort((a, b) => a - b)[again.length >> 1]!;
  return `${(first! / 1000).toFixed(1)} s, then ${(usual / 1000).toFixed(1)} s`;
}

async function asJpeg(photo: Photo, quality: number): Promise<Photo> {
  const raw = { width: photo.width, height: photo.height, channels: 4 as const };
  const jpeg = await sharp(photo.data, { raw }).jpeg({ quality }).toBuffer();
  const { data, info } = await sharp(jpeg).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data };
}

/** Samples from a photograph of the printed list. */
async function samplesFor(
  level: CameraLevelName,
  legend: readonly LegendLine[],
  prints: Scene['prints'],
  seed: number,
): Promise<ClassSample[]> {
  const list = listScene(
    legend.map(({ line }) => line),
    prints,
  );
  const { photo, corners } = takePhoto(list.scene, {
    rect: { x: 0, y: 0, width: list.columns, height: list.rows },
    cellPx: 60,
    // The list lies flat on the table, and nobody photographs it in a reflection.
    level: { ...CAMERA_LEVELS[level], waves: 0, tilt: 2, glare: 0, motion: 0 },
    seed,
  });
  const map = homographyTo(corners, list.columns, list.rows);
  const swatches = list.at.map(({ line, column, row }) => ({
    line,
    corners: [
      mapped(map, column, row),
      mapped(map, column + 1, row),
      mapped(map, column + 1, row + 1),
      mapped(map, column, row + 1),
    ] as Corners,
  }));
  return samplesOf(await asJpeg(photo, CAMERA_LEVELS[level].jpeg), swatches);
}

async function readShot(
  level: CameraLevelName,
  scene: Scene,
  samples: ClassSample[],
  seed: number,
  at: PhotoPlace = ASIDE,
): Promise<{ reading: Reading; seconds(): Promise<string>; mega: number }> {
  const { px } = KINDS[level];
  const taken = takePhoto(scene, {
    rect: { x: at.column, y: at.row, width: COLUMNS, height: ROWS },
    cellPx: px,
    level: CAMERA_LEVELS[level],
    seed,
  });
  const photo = await asJpeg(taken.photo, CAMERA_LEVELS[level].jpeg);
  const corners = tapped(taken.corners, 0.06, px, seed + 1);
  const read = () => {
    const from = performance.now();
    const reading = readPhoto(photo, corners, COLUMNS, ROWS, samples);
    return { reading, ms: performance.now() - from };
  };
  const first = read();
  /** How long it takes at first, and when the program has read others; here, and in a worker of a browser. */
  const seconds = async () => {
    const here = [first.ms, ...Array.from({ length: AGAIN }, () => read().ms)];
    const there = await inBrowser.read({ photo, corners, columns: COLUMNS, rows: ROWS, samples }, 1 + AGAIN);
    return `${timesInWords(here)}, in a browser ${timesInWords(there)}`;
  };
  return { reading: first.reading, seconds, mega: (photo.width * photo.height) / 1e6 };
}

const truthAt = (chart: Chart, { column, row }: PhotoPlace, cell: number) =>
  chart.cells[(row + Math.floor(cell / COLUMNS)) * chart.width + column + (cell % COLUMNS)]!;

function remember(chart: Chart, { cells, doubt }: Reading, at: PhotoPlace = ASIDE): void {
  cells.forEach((line, cell) => {
    doubts.push({ doubt: doubt[cell]!, wrong: line !== truthAt(chart, at, cell) });
  });
}

type Counts = Record<'cells' | 'wrong' | 'missed' | 'shown', number>;

function counted(
  chart: Chart,
  cells: ArrayLike<number>,
  flagged: ArrayLike<number>,
  at: PhotoPlace = ASIDE,
): Counts {
  const counts: Counts = { cells: cells.length, wrong: 0, missed: 0, shown: 0 };
  for (let cell = 0; cell < cells.length; cell++) {
    const isWrong = cells[cell] !== truthAt(chart, at, cell);
    if (isWrong) counts.wrong++;
    if (isWrong && !flagged[cell]) counts.missed++;
    counts.shown += flagged[cell]!;
  }
  return counts;
}

function inWords(all: readonly Counts[]): string {
  const sum = (what: keyof Counts) => all.reduce((total, counts) => total + counts[what], 0);
  const share = (what: keyof Counts) => `${((100 * sum(what)) / sum('cells')).toFixed(2)} %`.padStart(8);
  return `wrong ${share('wrong')}   unshown ${share('missed')}   shown ${share('shown')}`;
}

function told(chart: Chart, cells: ArrayLike<number>, flagged: ArrayLike<number>): string {
  return inWords([counted(chart, cells, flagged)]);
}

/** Shares of doubt between which cells are counted. */
const STEPS = [0, 0.001, 0.003, 0.01, 0.03, 0.1, 0.3, 0.6, 1.01];

/** Whether doubt means what it says: of cells between two shares, how many are wrong. */
function curve(): string {
  return STEPS.slice(1)
    .map((to, i) => {
      const own = doubts.filter(({ doubt }) => doubt >= STEPS[i]! && doubt < to);
      const said = own.reduce((sum, { doubt }) => sum + doubt, 0) / Math.max(1, own.length);
      const wrong = own.filter((each) => each.wrong).length;
      const share = (value: number) => `${(100 * value).toFixed(2)} %`.padStart(8);
      return `doubt up to ${share(Math.min(1, to))}   ${String(own.length).padStart(6)} squares   said ${share(said)}   wrong ${share(wrong / Math.max(1, own.length))}`;
    })
    .join('\n');
}

for (const level of ['easy', 'normal', 'hard'] as const) {
  for (const colours of [30, 60]) {
    for (const seed of SEEDS) {
      const legend = inventedColours(colours, KINDS[level].alike, seed);
      const chart = inventedChart(COLUMNS + 10, ROWS + 10, colours, seed + 1);
      const scene = await sceneOf(legend, chart);
      const samples = await samplesFor(level, legend, scene.prints, seed + 2);
      const first = await readShot(level, scene, samples, seed + 3);
      const name = `${level.padEnd(7)} ${colours} colours`;
      console.log(
        `${name}   ${told(chart, first.reading.cells, first.reading.flagged)}   ${await first.seconds()} for ${first.mega.toFixed(1)} megapixels`,
      );
      remember(chart, first.reading);
      if (level !== 'hard') continue;
      const second = await readShot(level, scene, samples, seed + 50);
      remember(chart, second.reading);
      const at = { column: 0, row: 0 };
      const both = stitched([first, second].map(({ reading }) => ({ reading, at })));
      console.log(`${name}   ${told(chart, both.cells, both.flagged)}   two photos, the light moved`);
    }
  }
}

await inBrowser.close();

/** Parts of each picture, each taken twice with the light moved: single photos differ so much that few of them say little. */
const PICTURE_SHOTS = 27;

/** Drawn pictures at the hardest level: regions of one colour as wide as a hand, which blobs with grain have not. */
for (const [name, make] of [
  ['Kingfisher at the Sluice', kingfisherKit],
  ['Lantern Harbour', lanternKit],
] as const) {
  const { legend, chart } = await make();
  const scene = await sceneOf(legend, chart);
  const samples = await samplesFor('hard', legend, scene.prints, 6002);
  const singles: Counts[] = [];
  const merged: Counts[] = [];
  for (let shot = 0; shot < PICTURE_SHOTS; shot++) {
    const at = {
      column: Math.round((chart.width - COLUMNS) * ((0.3 + shot * 0.618) % 1)),
      row: Math.round((chart.height - ROWS) * ((0.6 + shot * 0.382) % 1)),
    };
    const rounds: Reading[] = [];
    for (const seed of [6003 + 100 * shot, 6050 + 100 * shot]) {
      const { reading } = await readShot('hard', scene, samples, seed, at);
      remember(chart, reading, at);
      const counts = counted(chart, reading.cells, reading.flagged, at);
      console.log(`  ${name}, ${at.column} across, ${at.row} down   ${inWords([counts])}`);
      singles.push(counts);
      rounds.push(reading);
    }
    const both = stitched(rounds.map((reading) => ({ reading, at: { column: 0, row: 0 } })));
    merged.push(counted(chart, both.cells, both.flagged, at));
  }
  console.log(`hard    ${name}   ${inWords(singles)}   ${singles.length} photos`);
  console.log(`hard    ${name}   ${inWords(merged)}   two photos each, the light moved`);
}
console.log(curve());
