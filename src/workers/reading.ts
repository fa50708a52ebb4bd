import type { Shape } from '../core/canvas/canvas';
import type { ClassSample } from '../core/reading/classify';
import { type CellCount, countedCells } from '../core/reading/countCells';
import type { Corners } from '../core/reading/homography';
import {
  bytesFromText,
  bytesToText,
  type KeptReading,
  keepReading,
  labelsOf,
  meshToText,
} from '../core/reading/keptReading';
import { countedLoose, type LooseCount } from '../core/reading/looseDrills';
import { type Mesh, type Pin, refinedMesh } from '../core/reading/mesh';
import type { Photo } from '../core/reading/photo';
import { readPhoto, smallPhotoFor } from '../core/reading/readPhoto';
import { type Example, type Swatch, samplesOf, samplesOfExamples } from '../core/reading/samples';
import { type TrayShot, takeTrayPhoto } from '../core/reading/simulatedTray';
import { type PhotoPlace, type Stitched, stitched } from '../core/reading/stitch';
import { straightPicture } from '../core/reading/straightPicture';
import { countedSwatches, swatchesOfColumn } from '../core/reading/swatchColumn';
import { Refusal } from '../core/refusal';
import { homographyTo } from '../core/view/projective';

/** A sample as it is kept. */
export interface SentSample {
  line: number;
  glyph: string;
  tint: readonly number[];
}

/** Where the squares of a photo lie. */
export interface Squares {
  corners: Corners;
  columns: number;
  rows: number;
  pins: readonly Pin[];
}

/** What a page has this thread do; one after the other. */
export type ReadingOrder = { id: number } & (PhotoOrder | StitchOrder | TrayOrder);

/** Puts readings together. */
interface StitchOrder {
  what: 'stitch';
  readings: readonly { reading: Omit<KeptReading, 'mesh'>; at: PhotoPlace | null }[];
}

/** Has the stand-in camera photograph a tray. */
interface TrayOrder {
  what: 'tray';
  shot: TrayShot;
}

type PhotoOrder = { photo: string } /** Loose drills on a tray. */ & (
  | { what: 'loose'; shape: Shape }
  | { what: 'count'; corners: Corners }
  /** Follows the lines, to be looked at. */
  | { what: 'mesh'; squares: Squares }
  /** The swatches of a column of the printed list, `most` at most; counted where their number is null. */
  | { what: 'swatches'; corners: Corners; count: number | null; most: number }
  | { what: 'samples'; swatches: readonly Swatch[] }
  | { what: 'examples'; squares: Squares; examples: readonly Example[] }
  | { what: 'read'; squares: Squares; samples: readonly SentSample[] }
);

export type ReadingAnswer = { id: number } & (
  | { what: 'progress'; share: number }
  | { what: 'fault'; words: string }
  | { what: 'count'; count: CellCount | null }
  /** `count` is what lies between the corners as the thread counts it. */
  | { what: 'mesh'; mesh: string; count: CellCount | null }
  | { what: 'swatches'; swatches: Corners[] }
  | { what: 'samples'; samples: SentSample[] }
  | { what: 'stitch'; together: Stitched }
  | { what: 'loose'; loose: LooseCount }
  | { what: 'tray'; picture: Blob }
  | { what: 'read'; reading: KeptReading; picture: Blob; flagged: number }
);

/** Quality of the picture of the squares: it is looked at, and read again. */
const PICTURE_QUALITY = 0.88;

/** The photo that was fetched last: orders about the same one follow each other. */
let kept: { url: string; photo: Photo } | null = null;

async function photoAt(url: string): Promise<Photo> {
  if (kept?.url === url) return kept.photo;
  kept = null;
  const response = await fetch(url).catch(() => null);
  if (!response?.ok) throw new Refusal('The photo cannot be fetched. Is Oculent still running?');
  const bitmap = await createImageBitmap(await response.blob());
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  const { data, width, height } = context.getImageData(0, 0, canvas.width, canvas.height);
  kept = { url, photo: { width, height, data } };
  return kept.photo;
}

function meshFor(photo: Photo, { corners, columns, rows, pins }: Squares): Mesh {
  const small = smallPhotoFor(photo, corners, columns, rows);
  return refinedMesh(small, homographyTo(corners, columns, rows), columns, rows, pins);
}

function jpegOf({ width, height, data }: Photo): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')!.putImageData(new ImageData(Uint8ClampedArray.from(data), width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/jpeg', quality: PICTURE_QUALITY });
}

const sent = ({ line, glyph, tint }: ClassSample): SentSample => ({
  line,
  glyph: bytesToText(new Uint8Array(glyph.buffer, glyph.byteOffset, glyph.byteLength)),
  tint: [...tint],
});
const received = ({ line, glyph, tint }: SentSample): ClassSample => ({
  line,
  glyph: new Float32Array(bytesFromText(glyph).buffer),
  tint: tint as ClassSample['tint'],
});

async function done(order: ReadingOrder): Promise<ReadingAnswer> {
  const { id } = order;
  if (order.what === 'stitch') {
    const readings = order.readings.map(({ reading, at }) => ({ reading: labelsOf(reading), at }));
    return { id, what: 'stitch', together: stitched(readings) };
  }
  if (order.what === 'tray') return { id, what: 'tray', picture: await jpegOf(takeTrayPhoto(order.shot)) };
  const photo = await photoAt(order.photo);
  switch (order.what) {
    case 'loose':
      return { id, what: 'loose', loose: countedLoose(photo, order.shape) };
    case 'count':
      return { id, what: 'count', count: countedCells(photo, order.corners) };
    case 'mesh':
      return {
        id,
        what: 'mesh',
        mesh: meshToText(meshFor(photo, order.squares)),
        count: countedCells(photo, order.squares.corners),
      };
    case 'swatches':
      return {
        id,
        what: 'swatches',
        swatches: swatchesOfColumn(
          photo,
          order.corners,
          order.count ?? countedSwatches(photo, order.corners, order.most),
        ),
      };
    case 'samples':
      return { id, what: 'samples', samples: samplesOf(photo, order.swatches).map(sent) };
    case 'examples': {
      const { corners, columns, rows } = order.squares;
      const mesh = meshFor(photo, order.squares);
      const samples = samplesOfExamples(photo, corners, columns, rows, order.examples, mesh);
      return { id, what: 'samples', samples: samples.map(sent) };
    }
    case 'read': {
      const { corners, columns, rows } = order.squares;
      const tell = (share: number) => postMessage({ id, what: 'progress', share } satisfies ReadingAnswer);
      const mesh = meshFor(photo, order.squares);
      tell(0.45);
      const reading = readPhoto(photo, corners, columns, rows, order.samples.map(received), {
        mesh,
        progress: (share) => tell(0.45 + share / 2),
      });
      const picture = await jpegOf(straightPicture(photo, reading.mesh));
      const flagged = reading.flagged.reduce((sum, flag) => sum + flag, 0);
      return { id, what: 'read', reading: keepReading(reading), picture, flagged };
    }
  }
}

let before: Promise<void> = Promise.resolve();
addEventListener('message', ({ data }: MessageEvent<ReadingOrder>) => {
  before = before.then(async () => {
    try {
      postMessage(await done(data));
    } catch (error) {
      const words =
        error instanceof Refusal
          ? error.message
          : 'This photo could not be read. Load the page again, or take another.';
      postMessage({ id: data.id, what: 'fault', words } satisfies ReadingAnswer);
    }
  });
});
