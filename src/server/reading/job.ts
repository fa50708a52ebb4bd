import { readFile } from 'node:fs/promises';
import { dirname, resolve } from 'node:path';
import sharp from 'sharp';
import type { ClassSample } from '../../core/reading/classify';
import { countedCells, otherCount } from '../../core/reading/countCells';
import { causeOfDoubt, countDoubtful } from '../../core/reading/doubt';
import type { Corners } from '../../core/reading/homography';
import type { Photo } from '../../core/reading/photo';
import { ENOUGH_CELL_PX, type Reading, readPhoto } from '../../core/reading/readPhoto';
import { contradictionInWords } from '../../core/reading/review';
import { samplesOf, samplesOfExamples } from '../../core/reading/samples';
import { stitched } from '../../core/reading/stitch';
import { Refusal } from '../../core/refusal';
import { many } from '../../core/words/numbers';
import { whatItIs } from '../files/pixels';
import {
  array,
  colourLine,
  type InferType,
  number,
  object,
  string,
  tuple,
  ValidationError,
} from '../http/schema';

const spot = tuple([
  number().required('A corner is two numbers.'),
  number().required('A corner is two numbers.'),
]).required();
const corners = array(spot).length(4, 'Give four corners, clockwise from the upper left.').required();
const whole = number().integer().min(0).required();

/** What is to be read, as docs/reading.md describes it. */
const jobSchema = object({
  photos: array(
    object({
      file: string().required('Name the file of the photo.'),
      corners,
      columns: number().integer().min(1).max(1000).required('Say how many columns the photo shows.'),
      rows: number().integer().min(1).max(1000).required('Say how many rows the photo shows.'),
      at: array(whole).length(2, 'The place of a photo is a column and a row.').nullable().default(null),
    }).required(),
  )
    .min(1, 'Name at least one photo.')
    .max(200, 'Read at most 200 photos at once.')
    .required('Name the photos.'),
  legend: object({
    file: string().required('Name the file with the photo of the colour list.'),
    swatches: array(object({ line: colourLine().required(), corners }).required())
      .min(2, 'Give at least two swatches.')
      .max(250, 'No list has more than 250 colours.')
      .required('Give the swatches of the colour list.'),
  }).default(undefined),
  examples: array(
    object({
      photo: whole,
      line: colourLine().required(),
      cell: array(whole).length(2, 'An example is a column and a row.').required(),
    }).required(),
  ).max(1000, 'Give at most 1,000 examples.'),
});

/** What a job comes to; cells row by row. */
export interface ReadJob {
  photos: {
    cells: number[];
    doubt: number[];
    flagged: number[];
    /** Corners of the cells in pixels, `[x, y]`, row by row. */
    mesh: [number, number][];
    cellPixels: number;
    /** Column and row of its upper left cell on the canvas; null where that could not be told. */
    at: [number, number] | null;
  }[];
  chart: {
    x: number;
    y: number;
    columns: number;
    rows: number;
    cells: number[];
    doubt: number[];
    flagged: number[];
  };
}

/** Largest photograph, in pixels. */
const MOST_PIXELS = 100e6;

/** A photograph from a file, upright as its camera meant it. @throws Refusal where it is none */
async function photoFrom(bytes: Uint8Array, name: string): Promise<Photo> {
  try {
    const { data, info } = await sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
      .rotate()
      .toColourspace('srgb')
      .ensureAlpha()
      .raw({ depth: 'uchar' })
      .toBuffer({ resolveWithObject: true });
    return { width: info.width, height: info.height, data };
  } catch {
    const isJpeg = bytes[0] === 0xff && bytes[1] === 0xd8;
    throw new Refusal(
      `${name} cannot be read as a photo. ${isJpeg ? 'It is damaged, cut short or too large.' : `${whatItIs(bytes)} Use a JPEG, PNG or WebP.`}`,
    );
  }
}

/**
 * Reads the photographs that a job names, one after the other, and puts them together.
 * @param path of the job; its files are named from there @param progress told in words @throws Refusal with a sentence
 */
export async function readJob(path: string, progress: (words: string) => void = () => {}): Promise<ReadJob> {
  const job = await jobFrom(path);
  const photoOf = async (file: string) =>
    photoFrom(
      await readFile(resolve(dirname(path), file)).catch(() => {
        throw new Refusal(`There is no file ${file} beside the job.`);
      }),
      file,
    );
  const photos = job.photos.map((each) => ({ ...each, corners: each.corners as unknown as Corners }));
  let samples: ClassSample[] = [];
  if (job.legend)
    samples = samplesOf(
      await photoOf(job.legend.file),
      job.legend.swatches.map(({ line, corners: four }) => ({ line, corners: four as unknown as Corners })),
    );
  else if (job.examples && job.examples.length > 0)
    samples = await fromExamples(job.examples, photos, photoOf);
  else throw new Refusal('Give the swatches of a colour list, or examples of each colour.');
  const readings: Reading[] = [];
  for (const [i, photo] of photos.entries()) {
    progress(`Reading ${photo.file}, ${i + 1} of ${photos.length}`);
    const picture = await photoOf(photo.file);
    const reading = readPhoto(picture, photo.corners, photo.columns, photo.rows, samples);
    const other = otherCount(countedCells(picture, photo.corners), photo, 'believed');
    if (other !== null) throw new Refusal(`${photo.file}: ${other}`);
    readings.push(reading);
    if (reading.cellPx < ENOUGH_CELL_PX)
      progress(
        `${photo.file} shows a square with ${reading.cellPx.toFixed(0)} pixels; from ${ENOUGH_CELL_PX} on it is read well.`,
      );
    const cause = causeOfDoubt(countDoubtful(reading.doubt), reading.cells.length);
    if (cause !== null)
      progress(
        `${photo.file}: ${many(countDoubtful(reading.doubt))} of ${many(reading.cells.length)} squares are in doubt. ${cause}`,
      );
  }
  const all = stitched(
    readings.map((reading, i) => {
      const at = photos[i]!.at;
      return { reading, at: at && { column: at[0]!, row: at[1]! } };
    }),
  );
  const [worst] = all.contradicted;
  if (worst)
    throw new Refusal(`${photos[worst.photo]!.file}: ${contradictionInWords(worst, worst.photo + 1)}`);
  for (const { photo } of all.unclear)
    progress(
      `It is not clear where ${photos[photo]!.file} lies, and the chart is without it. Say its place with “at”.`,
    );
  const rounded = (values: Float32Array) => Array.from(values, (value) => Math.round(value * 1e5) / 1e5);
  return {
    photos: readings.map(({ cells, doubt, flagged, mesh, cellPx }, i) => {
      const place = all.places[i];
      return {
        cells: [...cells],
        doubt: rounded(doubt),
        flagged: [...flagged],
        mesh: Array.from(mesh.x, (x, at) => [Math.round(x * 100) / 100, Math.round(mesh.y[at]! * 100) / 100]),
        cellPixels: Math.round(cellPx * 10) / 10,
        at: place ? [place.column, place.row] : null,
      };
    }),
    chart: {
      ...{ x: all.x, y: all.y, columns: all.width, rows: all.height },
      ...{ cells: [...all.cells], doubt: rounded(all.doubt), flagged: [...all.flagged] },
    },
  };
}

type Job = InferType<typeof jobSchema>;

async function jobFrom(path: string): Promise<Job> {
  const text = await readFile(path, 'utf8').catch(() => {
    throw new Refusal(`There is no job at ${path}.`);
  });
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new Refusal('The job is no JSON.');
  }
  try {
    return await jobSchema.validate(json, { strict: true });
  } catch (error) {
    if (error instanceof ValidationError) throw new Refusal(error.message);
    throw error;
  }
}

async function fromExamples(
  examples: NonNullable<Job['examples']>,
  photos: readonly { file: string; corners: Corners; columns: number; rows: number }[],
  photoOf: (file: string) => Promise<Photo>,
): Promise<ClassSample[]> {
  const samples: ClassSample[] = [];
  for (const index of new Set(examples.map(({ photo }) => photo))) {
    const photo = photos[index];
    if (!photo) throw new Refusal(`An example names photo ${index}; they are counted from 0.`);
    const known = new Set(samples.map(({ line }) => line));
    const own = examples
      .filter((each) => each.photo === index && !known.has(each.line))
      .map(({ line, cell }) => ({ line, column: cell[0]!, row: cell[1]! }));
    samples.push(
      ...samplesOfExamples(await photoOf(photo.file), photo.corners, photo.columns, photo.rows, own),
    );
  }
  return samples;
}
