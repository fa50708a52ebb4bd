import { sizeInWords } from '../../core/canvas/canvas';
import { percentLaid } from '../../core/progress/progress';
import { stageInWords, stageOf } from '../../core/shelf/stage';
import { type ShelvedCanvas, shelf } from '../../data/canvas';
import type { Queries } from '../../data/engine/database';
import { notFound } from '../http/problem';
import type { ShelfEntry } from './contract';

export async function shelfEntries(queries: Queries): Promise<ShelfEntry[]> {
  return (await shelf(queries)).map(entryOf);
}

/** @throws Problem 404 */
export async function shelfEntry(queries: Queries, id: string): Promise<ShelfEntry> {
  const [found] = await shelf(queries, id);
  if (!found) throw notFound('canvas');
  return entryOf(found);
}

function entryOf(shelved: ShelvedCanvas): ShelfEntry {
  const stage = stageOf(shelved);
  return {
    canvas: shelved.canvas,
    size: sizeInWords(shelved.canvas),
    colours: shelved.colours,
    laid: shelved.laid,
    drills: shelved.drills,
    percent: percentLaid(shelved.laid, shelved.drills),
    stage,
    stageInWords: stageInWords(stage, shelved),
    hasChart: shelved.hasChart,
  };
}
