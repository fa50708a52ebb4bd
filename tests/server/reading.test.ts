import { execFile } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeChart } from '../../src/core/cells/chart';
import { CAMERA_LEVELS, takePhoto } from '../../src/core/reading/camera';
import type { Corners } from '../../src/core/reading/homography';
import { listScene } from '../../src/core/reading/listScene';
import type { Photo } from '../../src/core/reading/photo';
import { readPhoto } from '../../src/core/reading/readPhoto';
import { samplesOf } from '../../src/core/reading/samples';
import { homographyTo, mapped } from '../../src/core/view/projective';
import { type ReadJob, readJob } from '../../src/server/reading/job';
import { printsOf } from '../../src/server/reading/prints';
import { PRINTS, printedScene } from '../core/reading/prints';
import { line } from '../core/samples';

let directory: string;
beforeAll(async () => {
  directory = await mkdtemp(join(tmpdir(), 'oculent-reading-'));
});
afterAll(() => rm(directory, { recursive: true, force: true }));

const scene = printedScene(30, 18, 9);

/** @param orientation as a camera writes it that was held on its side (EXIF 2.32, tag 0x0112) */
async function save({ width, height, data }: Photo, name: string, orientation?: number): Promise<void> {
  let picture = sharp(data, { raw: { width, height, channels: 4 } }).removeAlpha();
  // Orientation 8 asks to be turned a quarter back, so that the file holds it turned forward.
  if (orientation === 8) picture = sharp(await picture.rotate(90).png().toBuffer());
  if (orientation !== undefined) picture = picture.withMetadata({ orientation });
  await picture.jpeg({ quality: 90 }).toFile(join(directory, name));
}

let taken: ReturnType<typeof takePhotos> | undefined;
/** Two photographs that overlap, the second held on its side, and one of the printed list. */
const photos = () => {
  taken ??= takePhotos();
  return taken;
};
async function takePhotos() {
  const shots = [
    { x: 1, y: 1, width: 16, height: 16 },
    { x: 11, y: 1, width: 18, height: 16 },
  ];
  const taken = shots.map((rect, i) =>
    takePhoto(scene, { rect, cellPx: 34, level: CAMERA_LEVELS.easy, seed: 40 + i }),
  );
  await save(taken[0]!.photo, 'left.jpg');
  await save(taken[1]!.photo, 'right.jpg', 8);
  const lines = [...PRINTS.keys()];
  const cells = new Uint16Array((lines.length * 2 + 1) * 3);
  for (const [i, each] of lines.entries()) cells[lines.length * 2 + 1 + 1 + 2 * i] = each;
  const list = { chart: makeChart(lines.length * 2 + 1, 3, cells), prints: PRINTS, lineWidth: 0.05 };
  const rect = { x: 0, y: 0, width: list.chart.width, height: 3 };
  const level = { ...CAMERA_LEVELS.easy, waves: 0, glare: 0 };
  const legend = takePhoto(list, { rect, cellPx: 50, level, seed: 50 });
  await save(legend.photo, 'list.jpg');
  const map = homographyTo(legend.corners, rect.width, rect.height);
  const swatches = lines.map((each, i) => {
    const [x, y] = [1 + 2 * i, 1];
    const places = [
      [x, y],
      [x + 1, y],
      [x + 1, y + 1],
      [x, y + 1],
    ] as const;
    return { line: each, corners: places.map(([u, v]) => mapped(map, u, v)) };
  });
  return {
    photos: [
      { file: 'left.jpg', corners: taken[0]!.corners, columns: 16, rows: 16, at: [1, 1] },
      { file: 'right.jpg', corners: taken[1]!.corners, columns: 18, rows: 16, at: null },
    ],
    legend: { file: 'list.jpg', swatches },
  };
}

const jobOf = async (job: unknown, name = 'job.json') => {
  const path = join(directory, name);
  await writeFile(path, typeof job === 'string' ? job : JSON.stringify(job));
  return path;
};

describe('reading without a screen', () => {
  it('reads photographs and the printed list from files, and prints the chart that they make together', async () => {
    const job = await photos();
    // As bin/read-photos starts it.
    const command = ['--import', 'tsx', 'src/server/reading/command.ts', await jobOf(job)];
    const run = () => promisify(execFile)(process.execPath, command, { maxBuffer: 64e6 });
    // Beside other work Node 20 itself has died in it (SIGSEGV, twice in some dozens of runs): that is asked once more.
    const { stdout } = await run().catch((error: { signal?: string }) => {
      if (error.signal !== 'SIGSEGV') throw error;
      return run();
    });
    const read = JSON.parse(stdout) as ReadJob;
    expect(read.photos.map(({ at }) => at)).toEqual([
      [1, 1],
      [11, 1],
    ]);
    const { chart } = read;
    expect([chart.x, chart.y, chart.columns, chart.rows]).toEqual([1, 1, 28, 16]);
    const wrong = chart.cells.filter(
      (each, cell) =>
        !chart.flagged[cell] &&
        each !== scene.chart.cells[(1 + Math.floor(cell / 28)) * 30 + 1 + (cell % 28)],
    );
    expect(wrong).toEqual([]);
    expect(chart.flagged.filter(Boolean).length).toBeLessThan(12);
    expect(read.photos[0]!.mesh).toHaveLength(17 * 17);
  });

  it('refuses photos that show different things at one place, and says of which it knows no place', async () => {
    const job = await photos();
    const elsewhere = { ...job, photos: [job.photos[0], { ...job.photos[1], at: [1, 1] }] };
    await expect(readJob(await jobOf(elsewhere))).rejects.toThrow(
      'Photo 2 shows something else than the others',
    );
    const rect = { x: 1, y: 1, width: 16, height: 16 };
    const other = takePhoto(printedScene(30, 18, 77), {
      rect,
      cellPx: 34,
      level: CAMERA_LEVELS.easy,
      seed: 44,
    });
    await save(other.photo, 'other.jpg');
    const stranger = { file: 'other.jpg', corners: other.corners, columns: 16, rows: 16, at: null };
    const told: string[] = [];
    const read = await readJob(await jobOf({ ...job, photos: [job.photos[0], stranger] }), (words) => {
      told.push(words);
    });
    expect(read.photos.map(({ at }) => at)).toEqual([[1, 1], null]);
    expect(told).toContain(
      'It is not clear where other.jpg lies, and the chart is without it. Say its place with “at”.',
    );
    expect([read.chart.columns, read.chart.rows]).toEqual([16, 16]);
  });

  it('says in a sentence why a job cannot be read', async () => {
    const job = await photos();
    const [photo] = job.photos;
    const refused = async (other: unknown) => readJob(await jobOf(other, 'bad.json'));
    await expect(readJob(join(directory, 'none.json'))).rejects.toThrow('There is no job at');
    await expect(refused('{')).rejects.toThrow('no JSON');
    await expect(refused({ photos: [] })).rejects.toThrow('at least one photo');
    await expect(refused({ photos: [photo] })).rejects.toThrow('swatches of a colour list, or examples');
    await expect(refused({ ...job, photos: [{ ...photo, columns: 17 }] })).rejects.toThrow(
      '16 columns and 16 rows',
    );
    await expect(refused({ ...job, photos: [{ ...photo, file: 'gone.jpg' }] })).rejects.toThrow(
      'no file gone.jpg',
    );
    await expect(
      refused({ ...job, photos: [{ ...photo, corners: photo!.corners.slice(1) }] }),
    ).rejects.toThrow('four corners');
    await expect(
      refused({ ...job, photos: [{ ...photo, corners: [[1, 2, 3], ...photo!.corners.slice(1)] }] }),
    ).rejects.toThrow('Entry 1 in “corners” of entry 1 in “photos” must be a list of 2 entries.');
    await expect(
      refused({ photos: [photo], examples: [{ photo: 3, line: 1, cell: [0, 0] }] }),
    ).rejects.toThrow('photo 3');
    await writeFile(
      join(directory, 'phone.heic'),
      Buffer.from('\0\0\0\x18ftypheic\0\0\0\0mif1heic', 'latin1'),
    );
    await expect(refused({ ...job, photos: [{ ...photo, file: 'phone.heic' }] })).rejects.toThrow('HEIC');
  });

  it('refuses a photo that is upside down or mirrored, and reads it upright', async () => {
    const letters = [...'FGJLPR27'].map((symbol, i) =>
      line(i + 1, { symbol, hex: ['#e8d27a', '#9fc3e0', '#e3a59b', '#b9d8a8'][i % 4]! }),
    );
    const prints = await printsOf(letters);
    const [columns, rows] = [14, 12];
    const cells = Uint16Array.from({ length: 20 * 18 }, (_, i) => 1 + ((i * 7 + Math.floor(i / 20) * 3) % 8));
    const taken = takePhoto(
      { chart: makeChart(20, 18, cells), prints, lineWidth: 0.05 },
      { rect: { x: 3, y: 3, width: columns, height: rows }, cellPx: 30, level: CAMERA_LEVELS.easy, seed: 4 },
    );
    const list = listScene(
      letters.map((each) => each.line),
      prints,
    );
    const flat = takePhoto(list.scene, {
      rect: { x: 0, y: 0, width: list.columns, height: list.rows },
      cellPx: 40,
      level: { ...CAMERA_LEVELS.easy, waves: 0, tilt: 0, glare: 0 },
      seed: 5,
    });
    const samples = samplesOf(
      flat.photo,
      list.at.map(({ line: own, column, row }) => ({
        line: own,
        corners: [
          flat.where(column, row),
          flat.where(column + 1, row),
          flat.where(column + 1, row + 1),
          flat.where(column, row + 1),
        ],
      })),
    );
    const { width, height, data } = taken.photo;
    /** The photo and its corners as they lie when every place goes elsewhere. */
    const moved = (
      to: (x: number, y: number) => [number, number],
      order: [number, number, number, number],
    ) => {
      const pixels = new Uint8ClampedArray(data.length);
      for (let y = 0; y < height; y++)
        for (let x = 0; x < width; x++) {
          const [u, v] = to(x + 0.5, y + 0.5);
          const at = (Math.floor(v) * width + Math.floor(u)) * 4;
          for (let k = 0; k < 4; k++) pixels[at + k] = data[(y * width + x) * 4 + k]!;
        }
      const corners = order.map((i) => to(...taken.corners[i]!)) as unknown as Corners;
      return readPhoto({ width, height, data: pixels }, corners, columns, rows, samples);
    };
    expect(() => moved((x, y) => [width - x, height - y], [2, 3, 0, 1])).toThrow('stand on their heads');
    expect(() => moved((x, y) => [width - x, y], [1, 0, 3, 2])).toThrow('mirrored');
    const upright = moved((x, y) => [x, y], [0, 1, 2, 3]);
    const wrong = upright.cells.filter(
      (own, cell) => own !== cells[(3 + Math.floor(cell / columns)) * 20 + 3 + (cell % columns)],
    );
    expect(wrong.length).toBe(0);
  });

  it('knows how the cells of a list are printed: in dark ink, or in light on what is dark', async () => {
    const prints = await printsOf([
      line(1, { symbol: 'H', hex: '#ffee88' }),
      line(2, { symbol: 'O', hex: '#101830' }),
    ]);
    const [light, dark] = [prints.get(1)!, prints.get(2)!];
    expect(light.ink[0]).toBeLessThan(60);
    expect(dark.ink[0]).toBeGreaterThan(200);
    const middle = (light.side / 2) * light.side + light.side / 2;
    // The bar of an H goes through its middle, an O is empty there.
    expect([light.mask[middle]! > 0.5, dark.mask[middle]! < 0.5]).toEqual([true, true]);
  });
});
