import { randomUUID } from 'node:crypto';
import type { Canvas } from '../../core/canvas/canvas';
import { MAX_LINE, ofLine } from '../../core/canvas/legend';
import { leftPerLine } from '../../core/progress/progress';
import type { RequestState } from '../../core/requests/supplierRequest';
import { bitmapOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import { addBagEntry } from '../../data/checkin';
import type { Database, Queries } from '../../data/engine/database';
import { addRanOut, addRequestState } from '../../data/requests';
import { addStashMove, stashItems } from '../../data/stash';
import { noteHeap } from '../checkin/heap';
import { once } from '../http/once';
import { conflict, notFound, unreadable } from '../http/problem';

/**
 * Takes drills out of the stash and counts them as a bag of the line, both or neither. The same request again changes
 * nothing.
 * @throws Problem when the stash has fewer, the line or item does not exist, or the id is taken
 */
export async function coverFromStash(
  database: Database,
  canvas: Canvas,
  wish: { id: string; line: number; itemId: string; drills: number },
  screenId: string | null = null,
): Promise<void> {
  await once(
    database,
    { id: wish.id, what: 'cover', canvasId: canvas.id, content: wish },
    async (queries) => {
      const line = (await legendOf(queries, canvas.id)).find((each) => each.line === wish.line);
      if (!line) throw unreadable(`The colour list has no colour number ${wish.line}.`);
      const [item] = await stashItems(queries, { id: wish.itemId });
      if (!item) throw notFound('such item in the stash');
      if (item.drills < wish.drills) {
        throw unreadable(`The stash has ${item.drills} of ${item.code}, not ${wish.drills}.`);
      }
      const happenedAt = new Date().toISOString();
      await addBagEntry(queries, {
        id: wish.id,
        canvasId: canvas.id,
        screenId,
        happenedAt,
        kind: 'count',
        line: line.line,
        label: `${item.code} from the stash`.slice(0, 40),
        drills: wish.drills,
        how: 'counted',
        spread: 0,
        shared: [],
        origin: 'stash',
        subject: null,
        undoes: null,
        redoes: null,
      });
      await noteHeap(queries, canvas);
      await addStashMove(
        queries,
        { id: randomUUID(), itemId: item.id, drills: -wish.drills, bagId: wish.id },
        happenedAt,
      );
    },
  );
}

/** Says how far the request for a colour has come. @throws Problem when there is no such line, or the id is taken */
export async function noteRequestState(
  database: Database,
  canvas: Canvas,
  entry: { id: string; line: number; state: RequestState },
): Promise<void> {
  const request = { id: entry.id, what: 'request state', canvasId: canvas.id, content: entry };
  await once(database, request, async (queries) => {
    if (!(await legendOf(queries, canvas.id)).some(({ line }) => line === entry.line)) {
      throw unreadable(`The colour list has no colour number ${entry.line}.`);
    }
    await addRequestState(queries, canvas.id, entry, new Date().toISOString());
  });
}

/**
 * Notes that a colour ran out at the bench, with what is still to lay of it by the chart.
 * @throws Problem when there is no such colour or no chart, more is left than is to lay, or the id is taken
 */
export async function noteRanOut(
  database: Database,
  canvas: Canvas,
  { id, line, left }: { id: string; line: number; left: number },
): Promise<{ toLay: number }> {
  const stillToLay = async (queries: Queries) => {
    const chart = await chartOf(queries, canvas);
    if (!chart) throw conflict('Without a chart nobody knows what is still to lay of one colour.');
    return leftPerLine(chart, await bitmapOf(queries, canvas.id, chart.cells.length), MAX_LINE)[line]!;
  };
  const request = { id, what: 'ran out', canvasId: canvas.id, content: { line, left } };
  await once(database, request, async (queries) => {
    if (!ofLine(await legendOf(queries, canvas.id), line))
      throw unreadable('The colour list no longer has this colour.');
    const toLay = await stillToLay(queries);
    await addRanOut(queries, canvas.id, id, line, {
      happenedAt: new Date().toISOString(),
      leftDrills: left,
      toLay,
    });
  });
  return { toLay: await stillToLay(database) };
}
