import { randomUUID } from 'node:crypto';
import { applyMark, changedCells, inverseOf, type MarkKind, onlyLine } from '../../core/bench/marking';
import { faultInSitting, splitSitting } from '../../core/bench/sitting';
import type { Canvas } from '../../core/canvas/canvas';
import { type CellRuns, countCells, faultInRuns } from '../../core/cells/cellRuns';
import { runsOfColumns } from '../../core/corrections/facts';
import { undoView } from '../../core/ledger/history';
import { counted } from '../../core/words/numbers';
import {
  addMark,
  addSitting,
  addSittingEdit,
  endSitting,
  findMark,
  laidOf,
  lastMarkOf,
  markRequest,
  moveMarks,
  runsToBytes,
  sittingBelongs,
  sittingsOf,
  stretchOf,
} from '../../data/bench';
import type { Database, Queries } from '../../data/engine/database';
import { standingOf } from '../../data/history';
import { digestOf, knownAs, type NamedRequest, noteRequest } from '../../data/once';
import { momentOfRequest } from '../http/moment';
import { once } from '../http/once';
import { conflict, idTaken, notFound, unreadable } from '../http/problem';
import type { MarkOffer, MarkView } from './contract';
import { markHistory } from './view';

export interface MarkRequest {
  id: string;
  kind: MarkKind;
  runs: CellRuns;
  /** Of the canvas when the runs were counted; its own where left out. */
  columns?: number | undefined;
  sittingId: string | null;
  /** Laid before the canvas was kept here: counts for what is laid, not for a day. */
  before?: boolean;
  /** Of a lift: whether its drills came off by themselves; null where that is not said. */
  popped?: boolean | null;
  undoes: string | null;
  redoes: string | null;
}

/**
 * Enters a mark into the ledger and says which cells it changed. Answers only once it is committed, and costs what it
 * changes: only the parts of chart and bitmap that it touches are read and written.
 * The same request a second time changes nothing and gets the same answer. A mark that changes nothing is no entry.
 * @param screenId the screen that asks
 * @throws Problem when the cells lie outside the canvas, there is nothing to undo or redo, or the id is taken
 */
export async function enterMark(
  database: Database,
  canvas: Canvas,
  wish: MarkRequest,
  screenId: string | null = null,
): Promise<MarkView> {
  const cells = canvas.width * canvas.height;
  const fresh = wish.undoes === null && wish.redoes === null;
  const said = runsOfColumns(wish.runs, wish.columns, canvas);
  if (fresh) {
    const fault = faultInRuns(said, cells);
    if (fault !== null) throw unreadable(fault);
    if (wish.runs.length === 0) throw unreadable('A mark needs at least one square.');
    if (said.length === 0) throw conflict('The canvas is smaller now and has none of these squares.');
  }
  const asked = { id: wish.id, what: 'mark', canvasId: canvas.id, digest: digestOfMark(wish) };
  return database.transaction(
    async (queries) => {
      if (!fresh) {
        const known = await repeated(queries, canvas, asked, screenId);
        if (known) return known;
      }
      const {
        kind,
        runs,
        before = false,
        popped = null,
      } = fresh ? { ...wish, runs: said } : await opposite(queries, canvas, wish);
      if (popped !== null && kind === 'lay') throw unreadable('Only a lift can say that drills came off.');
      if (wish.sittingId !== null && !(await sittingBelongs(queries, canvas.id, wish.sittingId))) {
        throw notFound('such sitting');
      }
      const last = runs.at(-2)! + runs.at(-1)! - 1;
      const stretch = await stretchOf(queries, canvas.id, runs[0]!, last, cells);
      const changed = changedCells(stretch, kind, runs);
      if (!fresh) refuseHalf(wish, kind, countCells(runs), countCells(changed));
      if (changed.length === 0) return idle(queries, canvas, asked, kind, screenId);
      applyMark(stretch.laid, kind, changed, stretch.first);
      const line = stretch.lines && onlyLine(stretch.lines, changed, stretch.first);
      const happenedAt = await whenMarked(queries, canvas.id, screenId);
      const { id, sittingId, undoes, redoes } = wish;
      const { canvasId, digest } = asked;
      const mark = {
        id,
        canvasId,
        screenId,
        sittingId,
        happenedAt,
        kind,
        changed,
        line,
        before,
        popped,
        undoes,
        redoes,
        digest,
      };
      const added = await addMark(queries, mark, stretch);
      if (added === null) return (await repeated(queries, canvas, asked, screenId))!;
      // After something new at this screen, undo acts on just that, and there is nothing to redo.
      const history = fresh
        ? undoView<MarkOffer>(
            screenId,
            { id, kind, drills: countCells(changed), line, cell: changed[0]!, own: true },
            null,
          )
        : await markHistory(queries, canvas.id, screenId);
      return { id, kind, runs: changed, ...added, history };
    },
    { canvasId: canvas.id },
  );
}

/**
 * When a mark was made. One that waited comes not before what its screen marked last: that order is sure, and how long each
 * message took is not.
 */
async function whenMarked(queries: Queries, canvasId: string, screenId: string | null): Promise<string> {
  const now = new Date();
  const made = momentOfRequest(now);
  const before = made === now || screenId === null ? null : await lastMarkOf(queries, canvasId, screenId);
  return before !== null && Date.parse(before) > made.getTime() ? before : made.toISOString();
}

/** A mark that changes nothing is no entry; only its request is remembered. @throws Problem when its id is taken */
async function idle(
  queries: Queries,
  canvas: Canvas,
  asked: NamedRequest,
  kind: MarkKind,
  screenId: string | null,
): Promise<MarkView> {
  const known = await repeated(queries, canvas, asked, screenId);
  if (known) return known;
  await noteRequest(queries, asked);
  const laid = await laidOf(queries, canvas.id);
  return {
    id: asked.id,
    kind,
    runs: [],
    laid,
    position: null,
    history: await markHistory(queries, canvas.id, screenId),
  };
}

function digestOfMark({ kind, runs, sittingId, before, popped = null, undoes, redoes }: MarkRequest): string {
  // What a mark does not say is not in it, as before it could be said: marks are sent again after an update.
  const facts = [
    kind,
    sittingId,
    undoes,
    redoes,
    ...(before ? ['before'] : []),
    ...(popped === null ? [] : [popped ? 'popped' : 'not popped']),
  ];
  return digestOf(Buffer.concat([Buffer.from(JSON.stringify(facts)), runsToBytes(runs)]));
}

/** The answer to a request that was done already; null where it was not. @throws Problem when its id is taken */
async function repeated(
  queries: Queries,
  canvas: Canvas,
  asked: NamedRequest,
  screenId: string | null,
): Promise<MarkView | null> {
  const entered = await markRequest(queries, asked.id);
  const same = entered?.canvasId === canvas.id && entered.digest === asked.digest;
  const state = entered ? (same ? 'known' : 'other') : await knownAs(queries, asked);
  if (state === 'new') return null;
  if (state === 'other') throw idTaken();
  const mark = await findMark(queries, canvas.id, asked.id);
  return {
    id: asked.id,
    kind: mark?.kind ?? 'lay',
    runs: [...(mark?.runs ?? [])],
    position: mark?.position ?? null,
    laid: await laidOf(queries, canvas.id),
    history: await markHistory(queries, canvas.id, screenId),
  };
}

/** What undoing or redoing an entry marks. @throws Problem when it does not stand, or was not taken back */
async function opposite(
  queries: Queries,
  canvas: Canvas,
  { undoes, redoes }: MarkRequest,
): Promise<Pick<MarkRequest, 'kind' | 'runs' | 'before' | 'popped'>> {
  const id = (undoes ?? redoes)!;
  const standing = await standingOf(queries, 'mark', canvas.id, id);
  const target = standing === 'unknown' ? null : await findMark(queries, canvas.id, id);
  if (!target) throw notFound('such mark');
  if (undoes !== null) {
    if (standing !== 'stands') throw conflict('This mark was undone already, perhaps at another screen.');
    return { ...target, kind: inverseOf(target.kind), popped: null };
  }
  if (standing !== 'taken back') throw conflict('This mark is not undone, so it cannot be redone.');
  return target;
}

/** A later mark may stand in the way: then undo would do something else than it says. @throws Problem */
function refuseHalf(wish: MarkRequest, kind: MarkKind, asked: number, changed: number): void {
  if (changed === asked) return;
  const other = kind === 'lay' ? 'laid' : 'lifted';
  throw conflict(
    `${wish.undoes !== null ? 'Undo' : 'Redo'} would touch ${counted(asked, 'drill')}, but ${counted(asked - changed, 'drill')} of them ${asked - changed === 1 ? 'was' : 'were'} ${other} by a later mark. Undo that one first, or mark by hand.`,
  );
}

/** When a sitting was, where it is entered by hand. */
interface EnteredTimes {
  startedAt: string | null;
  endedAt: string | null;
  note: string;
}

/**
 * Begins a sitting, or enters one that was: then the marks of its time that belong to no sitting are its own. The same
 * request again changes nothing. @throws Problem when its times cannot be right, or the id is taken
 */
export async function startSitting(
  database: Database,
  canvas: Canvas,
  id: string,
  screenId: string | null = null,
  { startedAt, endedAt, note }: EnteredTimes = { startedAt: null, endedAt: null, note: '' },
): Promise<void> {
  const content = startedAt === null ? null : { startedAt, endedAt, note };
  await once(database, { id, what: 'sitting', canvasId: canvas.id, content }, async (queries) => {
    const now = new Date();
    if (startedAt === null || endedAt === null) {
      await addSitting(queries, canvas.id, id, momentOfRequest(now).toISOString(), screenId);
      return;
    }
    const fault = faultInSitting({ startedAt, endedAt }, now);
    if (fault !== null) throw unreadable(fault);
    await addSitting(queries, canvas.id, id, startedAt, screenId);
    await endSitting(queries, id, endedAt, note);
    await moveMarks(queries, canvas.id, null, id, { startedAt, endedAt });
  });
}

/**
 * Ends a sitting.
 * @param endedAt when it ended, where that was not just now; ISO
 * @throws Problem when it is none of this canvas, or the end cannot be right
 */
export async function stopSitting(
  database: Database,
  canvas: Canvas,
  sittingId: string,
  note: string,
  endedAt: string | null = null,
): Promise<void> {
  await database.transaction(async (queries) => {
    const [sitting] = await sittingsOf(queries, canvas.id, 1, null, sittingId);
    if (!sitting) throw notFound('such sitting');
    const now = new Date();
    const fault = endedAt === null ? null : faultInSitting({ startedAt: sitting.startedAt, endedAt }, now);
    if (fault !== null) throw unreadable(fault);
    await endSitting(queries, sittingId, endedAt ?? momentOfRequest(now).toISOString(), note);
  });
}

/**
 * Parts a sitting in two, with a pause between; marks that were made after the pause go with the second. The same request
 * again changes nothing. @param wish `id` is the id of the second @throws Problem when the pause does not lie in it
 */
export async function partSitting(
  database: Database,
  canvas: Canvas,
  sittingId: string,
  wish: { id: string; pauseFrom: string; pauseTo: string },
  screenId: string | null = null,
): Promise<void> {
  const request = { id: wish.id, what: 'sitting', canvasId: canvas.id, content: { ...wish, sittingId } };
  await once(database, request, async (queries) => {
    const [sitting] = await sittingsOf(queries, canvas.id, 1, null, sittingId);
    if (!sitting || sitting.removed) throw notFound('such sitting');
    const [first, second] = splitSitting(sitting, wish.pauseFrom, wish.pauseTo);
    const { note } = sitting;
    const now = new Date().toISOString();
    const edit = { id: randomUUID(), sittingId, ...first, note, removed: false };
    await addSittingEdit(queries, canvas.id, edit, now);
    await addSitting(queries, canvas.id, wish.id, second.startedAt, screenId);
    await endSitting(queries, wish.id, second.endedAt!, note);
    await moveMarks(queries, canvas.id, sittingId, wish.id, { ...second, endedAt: null });
  });
}

/**
 * Corrects when a sitting was and what was noted, removes it or brings it back. The same request again changes nothing.
 * @throws Problem when it is none of this canvas, ends before it begins or in time to come, or the id is taken
 */
export async function correctSitting(
  database: Database,
  canvas: Canvas,
  sittingId: string,
  wish: { id: string; startedAt: string; endedAt: string | null; note: string; removed: boolean },
): Promise<void> {
  const request = { id: wish.id, what: 'sitting', canvasId: canvas.id, content: { ...wish, sittingId } };
  await once(database, request, async (queries) => {
    if (!(await sittingBelongs(queries, canvas.id, sittingId))) throw notFound('such sitting');
    const now = new Date();
    // One that cannot be right is removed all the same.
    const fault = wish.removed ? null : faultInSitting(wish, now);
    if (fault !== null) throw unreadable(fault);
    await addSittingEdit(queries, canvas.id, { ...wish, sittingId }, now.toISOString());
  });
}
