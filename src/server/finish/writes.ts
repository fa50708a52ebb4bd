import type { Canvas } from '../../core/canvas/canvas';
import { changedFinish, type FinishChange, faultInFinish, UNTOLD_FINISH } from '../../core/finish/record';
import { legendOf } from '../../data/canvas';
import type { Database } from '../../data/engine/database';
import { addFinish, finishOf } from '../../data/finish';
import { putAwayOf } from '../../data/kitup';
import { once } from '../http/once';
import { conflict, unreadable } from '../http/problem';
import { notePotIn, undoPutAway } from '../kitup/writes';

/**
 * Tells something of the end of a canvas; what was told before stays in the ledger. The same request again changes
 * nothing. @param change with `notesBefore`, notes take the place of those alone @param today `YYYY-MM-DD` where the user is
 * @throws Problem when its days cannot be right, others stand where the notes go, or the id is taken
 */
export async function tellFinish(
  database: Database,
  canvas: Canvas,
  { id, notesBefore, ...change }: FinishChange & { id: string; notesBefore?: string | undefined },
  today: string,
): Promise<void> {
  await once(database, { id, what: 'finish', canvasId: canvas.id, content: change }, async (queries) => {
    const before = (await finishOf(queries, canvas.id)) ?? UNTOLD_FINISH;
    if (notesBefore !== undefined && notesBefore.trim() !== before.notes.trim()) {
      throw conflict(
        'The notes were changed on another screen meanwhile. Look at both, then keep what you want.',
      );
    }
    const record = changedFinish(before, change);
    const fault = faultInFinish(record, today);
    if (fault !== null) throw unreadable(fault);
    await addFinish(queries, canvas.id, id, record, new Date().toISOString());
  });
}

/**
 * Puts the leftovers of several colours into the stash in one go; their pots are free again. All of it happens, or
 * nothing. The same request again changes nothing. @throws Problem when a colour is put away already, or the id is taken
 */
export async function putAwayAll(
  database: Database,
  canvas: Canvas,
  wish: { id: string; colours: readonly { line: number; drills: number }[] },
  screenId: string | null,
): Promise<void> {
  const { id, colours } = wish;
  await once(database, { id, what: 'leftovers', canvasId: canvas.id, content: colours }, async (queries) => {
    const legend = await legendOf(queries, canvas.id);
    const away = await putAwayOf(queries, canvas.id);
    for (const { line, drills } of colours) {
      const code = legend.find((each) => each.line === line)?.code;
      if (code === undefined) throw unreadable(`The colour list has no colour number ${line}.`);
      if (away.has(line)) throw conflict(`The pot of ${code} is put away already.`);
      await notePotIn(queries, canvas, { line, kind: 'put away', drills }, screenId);
    }
  });
}

/**
 * Takes the putting away of several colours back in one go. All of it happens, or nothing.
 * @throws Problem when one of them is not put away, or its drills were used since
 */
export async function takeBackAll(
  database: Database,
  canvas: Canvas,
  { id, lines }: { id: string; lines: readonly number[] },
  screenId: string | null,
): Promise<void> {
  await once(database, { id, what: 'leftovers', canvasId: canvas.id, content: lines }, async (queries) => {
    for (const line of lines) await undoPutAway(queries, canvas, line, screenId);
  });
}
