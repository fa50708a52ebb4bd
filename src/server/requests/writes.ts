import { randomUUID } from 'node:crypto';
import type { Canvas } from '../../core/canvas/canvas';
import { legendOf } from '../../data/canvas';
import { addBagEntry, findBagEntry } from '../../data/checkin';
import type { Database } from '../../data/engine/database';
import { addStashMove, stashItems } from '../../data/stash';
import { notFound, unreadable } from '../http/problem';

/**
 * Takes drills out of the stash and counts them as a bag of the line, both or neither.
 * @throws Problem when the stash has fewer, or the line or item does not exist
 */
export async function coverFromStash(
  database: Database,
  canvas: Canvas,
  wish: { id: string; line: number; itemId: string; drills: number },
): Promise<void> {
  await database.transaction(async (queries) => {
    if (await findBagEntry(queries, canvas.id, wish.id)) return;
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
      happenedAt,
      kind: 'count',
      line: line.line,
      label: `${item.code} from the stash`.slice(0, 40),
      drills: wish.drills,
      how: 'counted',
      spread: 0,
      subject: null,
      undoes: null,
      redoes: null,
    });
    await addStashMove(
      queries,
      { id: randomUUID(), itemId: item.id, drills: -wish.drills, bagId: wish.id },
      happenedAt,
    );
  });
}
