import type { Canvas } from '../../core/canvas/canvas';
import type { OutTable } from '../../core/checkin/checkinTable';
import { LOG_PHOTOS, type LogFacts } from '../../core/finish/logPage';
import type { PaperName } from '../../core/print/paper';
import { bitmapOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Database } from '../../data/engine/database';
import { photoOf, photosOf } from '../../data/photos';
import type { LogPrint } from './print';
import { logFacts } from './view';

const PICTURE_PX = 1600;

/** What the log page of a canvas is made from. */
export async function logPrint(
  database: Database,
  canvas: Canvas,
  zone: string,
  paper: PaperName,
): Promise<LogPrint> {
  return database.snapshot(async (queries) => {
    const kept = (await photosOf(queries, canvas.id)).filter(({ removedAt }) => removedAt === null);
    const photos: Uint8Array[] = [];
    for (const { id } of kept.slice(0, LOG_PHOTOS)) photos.push((await photoOf(queries, canvas.id, id))!);
    const chart = await chartOf(queries, canvas);
    const laid = await bitmapOf(queries, canvas.id, canvas.width * canvas.height);
    return {
      facts: await logFacts(queries, canvas, zone),
      picture: chart && { chart, legend: await legendOf(queries, canvas.id), laid, width: PICTURE_PX },
      photos,
      paper,
    };
  });
}

/** The log of all canvases as a table. */
export function logTable(log: readonly LogFacts[]): OutTable {
  return {
    header: [
      'Title',
      'Size',
      'Shape',
      'Squares',
      'Colours',
      'Drills',
      'Laid',
      'Begun',
      'Finished',
      'Minutes',
      'Sittings',
      'Notes',
    ],
    rows: log.map((facts) => [
      facts.title,
      facts.size,
      facts.shape,
      `${facts.width} × ${facts.height}`,
      facts.colours,
      facts.drills,
      facts.laid,
      facts.startedOn ?? '',
      facts.finishedOn ?? '',
      facts.minutes,
      facts.sittings,
      facts.notes,
    ]),
  };
}
