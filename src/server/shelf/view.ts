import { sizeInWords } from '../../core/canvas/canvas';
import { percentLaid } from '../../core/progress/progress';
import { onShelf, type ShelfPart } from '../../core/shelf/order';
import { stageInWords, stageOf } from '../../core/shelf/stage';
import { type ShelvedCanvas, shelf } from '../../data/canvas';
import type { Queries } from '../../data/engine/database';
import { notFound } from '../http/problem';
import { goesOnAt } from '../sections/inFront';
import type { ShelfEntry } from './contract';

export async function shelfEntries(queries: Queries): Promise<ShelfEntry[]> {
  return entriesOf(queries, await shelf(queries));
}

/** So many others are offered at the bench; the shelf has them all. */
const OTHERS = 4;

/** The canvases on the bench besides one, the one that was worked on last first. */
export async function othersOnBench(queries: Queries, id: string): Promise<ShelfEntry[]> {
  const begun = withStage(await shelf(queries, null, { begun: true }));
  const others = begun.filter(({ canvas, stage }) => canvas.id !== id && stage === 'bench');
  return entriesOf(queries, onShelf(others, '', 1).entries.slice(0, OTHERS));
}

/** What a page of the shelf shows. @param find words of titles; empty for all @param page from 1 */
export async function shelfPage(
  queries: Queries,
  find: string,
  page: number,
): Promise<ShelfPart<ShelfEntry> & { all: number }> {
  const shelved = withStage(await shelf(queries));
  const part = onShelf(shelved, find, page);
  return { ...part, entries: await entriesOf(queries, part.entries), all: shelved.length };
}

/** @throws Problem 404 */
export async function shelfEntry(queries: Queries, id: string): Promise<ShelfEntry> {
  const [found] = await shelf(queries, id);
  if (!found) throw notFound('canvas');
  return entryOf(queries, found);
}

function withStage(shelved: readonly ShelvedCanvas[]) {
  return shelved.map((each) => ({ ...each, stage: stageOf(each) }));
}

async function entriesOf(queries: Queries, shelved: readonly ShelvedCanvas[]): Promise<ShelfEntry[]> {
  const entries: ShelfEntry[] = [];
  for (const each of shelved) entries.push(await entryOf(queries, each));
  return entries;
}

async function entryOf(queries: Queries, shelved: ShelvedCanvas): Promise<ShelfEntry> {
  const stage = stageOf(shelved);
  const { canvas, inFront } = shelved;
  return {
    canvas,
    size: sizeInWords(canvas),
    colours: shelved.colours,
    laid: shelved.laid,
    drills: shelved.drills,
    percent: percentLaid(shelved.laid, shelved.drills),
    stage,
    stageInWords: stageInWords(stage, shelved),
    hasChart: shelved.hasChart,
    inFront,
    goesOnAt: inFront && stage === 'bench' ? await goesOnAt(queries, canvas, inFront) : null,
  };
}
