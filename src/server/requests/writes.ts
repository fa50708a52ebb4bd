import { randomUUID } from 'node:crypto';
import type { Canvas } from '../../core/canvas/canvas';
import type { RequestState } from '../../core/requests/supplierRequest';
import { legendOf } from '../../data/canvas';
import { addBagEntry } from '../../data/checkin';
import type { Database } from '../../data/engine/database';
import { addRequestState } from '../../data/requests';
import { addStashMove, stashItems } from '../../data/stash';
import { noteHeap } from '../checkin/heap';
import { once } from '../http/once';
import { notFound, unreadable } from '../http/problem';

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
      if (!line) throw unreadable(`The sheet has no line ${wish.line}.`);
      const item = (await stashItems(queries)).find((each) => each.id === wish.itemId);
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
      throw unreadable(`The sheet has no line ${entry.line}.`);
    }
    await addRequestState(queries, canvas.id, entry, new Date().toISOString());
  });
}
