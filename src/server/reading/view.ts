import type { Canvas } from '../../core/canvas/canvas';
import { undoState } from '../../core/ledger/history';
import { standingAnswers } from '../../core/reading/answers';
import { cornersFromText, pinsFromText } from '../../core/reading/places';
import type { Queries } from '../../data/engine/database';
import {
  type ReadingPhotoRow,
  type ReadingResultRow,
  readingAnswers,
  readingChart,
  readingPhotos,
  readingResults,
  readingSamples,
} from '../../data/reading';
import type { ReadingPhoto, ReadingView } from './contract';

/** @param screenId the screen that asks, by which undo goes */
export async function readingView(
  queries: Queries,
  canvas: Pick<Canvas, 'id' | 'width' | 'height'>,
  screenId: string | null,
): Promise<ReadingView> {
  const results = new Map((await readingResults(queries, canvas.id)).map((row) => [row.photoId, row]));
  const chart = await readingChart(queries, canvas.id);
  return {
    photos: (await readingPhotos(queries, canvas.id)).map((row) => photoOfRow(row, results.get(row.id))),
    samples: await readingSamples(queries, canvas.id),
    ...(await answersView(queries, canvas, screenId)),
    accepted: chart && { at: chart.happenedAt, photos: chart.photos },
  };
}

/** What was said of squares, and what Undo takes back. */
export async function answersView(
  queries: Queries,
  canvas: Pick<Canvas, 'id' | 'width' | 'height'>,
  screenId: string | null,
): Promise<Pick<ReadingView, 'answers' | 'undo'>> {
  const ledger = await readingAnswers(queries, canvas.id);
  const { undo, own } = undoState(
    ledger.map((row) => ({ ...row, screen: row.screenId, redoes: null })),
    screenId,
  );
  const last = ledger.find((row) => row.id === undo);
  return {
    answers: [...standingAnswers(ledger, canvas)],
    undo: last ? { id: last.id, squares: last.answers.length, own } : null,
  };
}

export function photoOfRow(row: ReadingPhotoRow, result: ReadingResultRow | undefined): ReadingPhoto {
  const { id, kind, name, width, height, kept, columns, rows, atColumn, atRow, addedAt } = row;
  return {
    ...{ id, kind, name, width, height, kept, columns, rows, addedAt },
    corners: row.corners === null ? null : cornersFromText(row.corners),
    at: atColumn === null || atRow === null ? null : { column: atColumn, row: atRow },
    pins: pinsFromText(row.pins),
    removed: row.removedAt !== null,
    reading: result
      ? {
          id: result.id,
          columns: result.columns,
          rows: result.rows,
          cellPx: result.cellPx,
          cells: result.cells,
          others: result.others,
          doubt: result.doubt,
          torn: result.torn,
        }
      : null,
  };
}
