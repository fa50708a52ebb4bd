import type { Canvas } from '../../core/canvas/canvas';
import { placeOfCell } from '../../core/cells/rect';
import { type Corners, faultInCorners } from '../../core/reading/homography';
import { bytesFromText, labelsOf, meshFromText } from '../../core/reading/keptReading';
import { cornersToText, pinsToText } from '../../core/reading/places';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Database } from '../../data/engine/database';
import { revisionOf } from '../../data/once';
import {
  addReadingAnswer,
  addReadingPhoto,
  changeReadingPhoto,
  countReadingPhotos,
  dropReadingResult,
  dropReadPhotos,
  readingPhoto as findPhoto,
  putReadingChart,
  putReadingResult,
  putReadingSamples,
  readingAnswers,
} from '../../data/reading';
import { saveChart } from '../chart/writes';
import { once } from '../http/once';
import { conflict, notFound, unreadable } from '../http/problem';
import type { InferType } from '../http/schema';
import { inWorker, type Job } from '../jobs/pool';
import { acceptedInWords } from './accept';
import type {
  acceptSchema,
  readingAnswerSchema,
  readingPhotoQuery,
  readingResultSchema,
  readingSamplesSchema,
  squaringSchema,
} from './contract';
import { readingView } from './view';

/** Most photos of a canvas: a million squares in two rounds. */
const MOST_PHOTOS = 400;

/** Takes a photo in. The same request again changes nothing. @throws Problem where it is none */
export async function addPhoto(
  database: Database,
  canvas: Canvas,
  wish: InferType<typeof readingPhotoQuery>,
  bytes: Uint8Array,
  job: Job | null,
): Promise<void> {
  const { width, height, jpeg } = await inWorker('readingPhoto', { bytes }, job);
  const named = {
    id: wish.id,
    what: 'reading photo',
    canvasId: canvas.id,
    content: [wish, bytes.byteLength],
  };
  await once(database, named, async (queries) => {
    if ((await countReadingPhotos(queries, canvas.id)) >= MOST_PHOTOS)
      throw conflict(`A canvas can have at most ${MOST_PHOTOS} photos to read from.`);
    const now = new Date().toISOString();
    await addReadingPhoto(queries, canvas.id, { ...wish, width, height, bytes: jpeg }, now);
  });
}

/**
 * Says some of where the squares of a photo lie; what is not named stays as it was. What was read of it before is dropped
 * where they lie elsewhere now.
 * @throws Problem where that cannot be
 */
export async function squarePhoto(
  database: Database,
  canvas: Canvas,
  id: string,
  wish: InferType<typeof squaringSchema>,
): Promise<void> {
  await database.transaction(async (queries) => {
    const before = await findPhoto(queries, canvas.id, id);
    if (!before) throw notFound('such photo');
    const corners = wish.corners as unknown as Corners | null | undefined;
    const fault = corners && before.kind === 'canvas' ? faultInCorners(corners, before) : null;
    if (fault !== null) throw unreadable(fault);
    if (wish.at && (wish.at.column >= canvas.width || wish.at.row >= canvas.height))
      throw unreadable(`The canvas has ${canvas.width} columns and ${canvas.height} rows.`);
    const change = {
      corners: corners === undefined ? before.corners : corners && cornersToText(corners),
      columns: wish.columns === undefined ? before.columns : wish.columns,
      rows: wish.rows === undefined ? before.rows : wish.rows,
      atColumn: wish.at === undefined ? before.atColumn : (wish.at?.column ?? null),
      atRow: wish.at === undefined ? before.atRow : (wish.at?.row ?? null),
      pins: wish.pins === undefined ? before.pins : pinsToText(wish.pins),
      removed: wish.removed ?? before.removedAt !== null,
    };
    await changeReadingPhoto(queries, canvas.id, id, change, new Date().toISOString());
    const same = (['corners', 'columns', 'rows', 'pins'] as const).every(
      (key) => before[key] === change[key],
    );
    if (!same) await dropReadingResult(queries, canvas.id, id);
  });
}

/** Keeps what a photo was read as. @throws Problem where it does not fit the photo */
export async function keepResult(
  database: Database,
  canvas: Canvas,
  photoId: string,
  { picture, ...wish }: InferType<typeof readingResultSchema>,
): Promise<void> {
  const bytes = bytesFromText(picture);
  if (bytes[0] !== 0xff || bytes[1] !== 0xd8 || bytes[2] !== 0xff)
    throw unreadable('The picture of the squares is no JPEG.');
  const labels = labelsOf(wish);
  meshFromText(wish.mesh, wish.columns, wish.rows);
  const named = {
    id: wish.id,
    what: 'reading',
    canvasId: canvas.id,
    content: [photoId, wish.corners, wish.cells, wish.doubt],
  };
  await once(database, named, async (queries) => {
    const photo = await findPhoto(queries, canvas.id, photoId);
    if (!photo || photo.removedAt !== null) throw notFound('such photo');
    const same =
      photo.columns === wish.columns &&
      photo.rows === wish.rows &&
      photo.corners === cornersToText(wish.corners as unknown as Corners);
    if (!same)
      throw conflict('It was said meanwhile that the squares of this photo lie elsewhere. Read it again.');
    const known = new Set((await legendOf(queries, canvas.id)).map(({ line }) => line));
    if (labels.cells.some((line) => !known.has(line)))
      throw conflict('The colour list was changed meanwhile. Read the photo again.');
    await putReadingResult(
      queries,
      canvas.id,
      { ...wish, photoId, picture: bytes },
      new Date().toISOString(),
    );
  });
}

export async function keepSamples(
  database: Database,
  canvas: Canvas,
  wish: InferType<typeof readingSamplesSchema>,
): Promise<void> {
  for (const { glyph } of wish.samples)
    if (bytesFromText(glyph).length !== 1024) throw unreadable('A symbol has 16 × 16 numbers.');
  const named = { id: wish.id, what: 'reading samples', canvasId: canvas.id, content: wish };
  await once(database, named, async (queries) => {
    const known = new Set((await legendOf(queries, canvas.id)).map(({ line }) => line));
    const strange = wish.samples.find(({ line }) => !known.has(line));
    if (strange) throw conflict('A sample is of a colour that is no longer on the colour list.');
    await putReadingSamples(queries, canvas.id, wish.samples, wish.all, new Date().toISOString());
  });
}

/** Enters what somebody says of squares, or takes an entry back. @param screenId the screen that says it */
export async function answerSquares(
  database: Database,
  canvas: Canvas,
  wish: InferType<typeof readingAnswerSchema>,
  screenId: string | null,
): Promise<void> {
  const said = wish.answers as [square: number, line: number][];
  if (wish.undoes === null && said.length === 0) throw unreadable('Say what at least one square is.');
  const named = { id: wish.id, what: 'reading answer', canvasId: canvas.id, content: wish };
  await once(database, named, async (queries) => {
    const columns = wish.columns ?? canvas.width;
    const answers = said.map(([square, line]): [number, number, number] => {
      const { x, y } = placeOfCell(square, columns);
      return [x, y, line];
    });
    const entry = { id: wish.id, screenId, answers, undoes: wish.undoes };
    if (wish.undoes !== null) {
      const ledger = await readingAnswers(queries, canvas.id);
      const meant = ledger.find(({ id }) => id === wish.undoes);
      if (!meant || ledger.some(({ undoes }) => undoes === wish.undoes))
        throw conflict('There is nothing to undo: it was undone already.');
      entry.answers = [];
    } else {
      const known = new Set([0, ...(await legendOf(queries, canvas.id)).map(({ line }) => line)]);
      const fault = answers.some(
        ([x, y, line]) => x >= canvas.width || y >= canvas.height || !known.has(line),
      );
      if (fault) throw unreadable('An answer names a square or a colour that this canvas does not have.');
    }
    await addReadingAnswer(queries, canvas.id, entry, new Date().toISOString());
  });
}

/**
 * Makes the chart of what was read. The same request again changes nothing.
 * @returns what was done, in a sentence @throws Problem with what stands in its way
 */
export async function acceptRead(
  database: Database,
  canvas: Canvas,
  { id, keepPhotos }: InferType<typeof acceptSchema>,
  job: Job | null,
): Promise<string> {
  const { revision, photos, ...parts } = await database.snapshot(async (queries) => {
    const view = await readingView(queries, canvas, null);
    return {
      revision: await revisionOf(queries, canvas.id),
      photos: view.photos.filter(({ kind, removed }) => kind === 'canvas' && !removed),
      answers: view.answers,
      legend: await legendOf(queries, canvas.id),
      before: (await chartOf(queries, canvas))?.cells ?? null,
    };
  });
  const { chart, origins, ...figures } = await inWorker(
    'acceptReading',
    { ...parts, photos, width: canvas.width, height: canvas.height },
    job,
  );
  const named = { id, what: 'chart from photos', canvasId: canvas.id, content: keepPhotos };
  await once(database, named, async (queries) => {
    // What somebody repaired or said while the chart was made would be lost.
    if ((await revisionOf(queries, canvas.id)) !== revision)
      throw conflict('Something of this canvas was changed while the chart was made. Make it again.');
    await saveChart(queries, canvas, chart);
    await putReadingChart(queries, canvas.id, {
      happenedAt: new Date().toISOString(),
      photos: photos.filter(({ reading }) => reading).map((photo) => photo.id),
      columns: canvas.width,
      origins,
    });
    if (!keepPhotos) await dropReadPhotos(queries, canvas.id);
  });
  return acceptedInWords(figures);
}
