import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import type { BagRow } from '../../core/checkin/bagLedger';
import { faultInReplacement } from '../../core/checkin/replaceSheet';
import type { BagMeasure, CountedBag } from '../../core/checkin/supply';
import { legendOf, replaceLegend } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import { addBagEntry, addTrashRecord, countedBags, findBagEntry } from '../../data/checkin';
import type { Database, Queries } from '../../data/engine/database';
import { standingOf } from '../../data/history';
import { freeSlot } from '../../data/kitup';
import { bumpRevision } from '../../data/once';
import { isOverdrawn, returnToStash, takeAgainFromStash } from '../../data/stash';
import { putLidMark } from '../../data/symbols';
import { once } from '../http/once';
import { conflict, notFound, unreadable } from '../http/problem';

/** A bag as it is to be entered into the ledger. */
export interface BagRequest {
  id: string;
  line: number | null;
  label: string;
  drills: number | null;
  how: BagMeasure;
  spread: number | null;
  assigns: string | null;
  undoes: string | null;
  redoes: string | null;
}

/**
 * Counts a bag, takes back or repeats an entry, or gives a stray to a line. The same request a second time changes
 * nothing.
 * @throws Problem when the entry to take back does not (or no longer) stand, the line does not exist, or the id is taken
 */
export async function enterBag(
  database: Database,
  canvas: Canvas,
  bag: BagRequest,
  screenId: string | null = null,
): Promise<void> {
  const request = { id: bag.id, what: 'bag', canvasId: canvas.id, content: bag };
  await once(database, request, async (queries) => {
    const legend = await legendOf(queries, canvas.id);
    const line = legend.find((candidate) => candidate.line === bag.line);
    if (bag.line !== null && !line) throw unreadable(`The sheet has no line ${bag.line}.`);
    const happenedAt = new Date().toISOString();
    await addBagEntry(queries, {
      id: bag.id,
      canvasId: canvas.id,
      screenId,
      happenedAt,
      ...(bag.undoes !== null || bag.redoes !== null
        ? await repeatOrTakeBack(queries, canvas, bag)
        : bag.assigns !== null
          ? assignment(bag, (await countedBags(queries, canvas.id)).bags)
          : freshCount(bag, line, canvas)),
    });
    // Drills that came from the stash go back there with the bag, and come again with it.
    if (bag.undoes !== null) await returnToStash(queries, bag.undoes, happenedAt);
    else if (bag.redoes !== null) {
      await takeAgainFromStash(queries, bag.redoes, bag.id, happenedAt);
      if (await isOverdrawn(queries)) {
        throw conflict('The stash no longer has the drills of this bag; they were used elsewhere.');
      }
    }
  });
}

type EntryBody = Omit<BagRow, 'id'>;

async function repeatOrTakeBack(queries: Queries, canvas: Canvas, bag: BagRequest): Promise<EntryBody> {
  const id = (bag.undoes ?? bag.redoes)!;
  const standing = await standingOf(queries, 'bag_entry', canvas.id, id);
  const target = standing === 'unknown' ? null : await findBagEntry(queries, canvas.id, id);
  if (!target) throw notFound('such bag');
  if (bag.undoes !== null) {
    if (standing !== 'stands')
      throw conflict('This bag has already been taken back, perhaps at another screen.');
    const { bags } = await countedBags(queries, canvas.id);
    const counted = bags.find((each) => each.id === target.id);
    if (target.line === null && counted && counted.line !== null) {
      throw conflict('This bag was given to a line since. Take that back first.');
    }
  } else if (standing !== 'taken back') {
    throw conflict('This bag can no longer be counted again; count it as a new one.');
  }
  const kind = bag.undoes === null ? target.kind : 'take back';
  const { line, label, drills, how, spread, subject } = target;
  return { kind, line, label, drills, how, spread, subject, undoes: bag.undoes, redoes: bag.redoes };
}

function assignment(bag: BagRequest, bags: readonly CountedBag[]): EntryBody {
  const stray = bags.find((counted) => counted.id === bag.assigns);
  if (!stray) throw notFound('such bag');
  if (stray.line !== null) throw conflict('This bag already has its line.');
  if (bag.line === null) throw unreadable('Say to which line the bag goes.');
  const { label, drills, how, spread } = stray;
  return {
    kind: 'assign',
    line: bag.line,
    label,
    drills,
    how,
    spread,
    subject: stray.id,
    undoes: null,
    redoes: null,
  };
}

function freshCount(bag: BagRequest, line: LegendLine | undefined, canvas: Canvas): EntryBody {
  if (!line && bag.label === '') throw unreadable('A bag that is on no line needs its code as a label.');
  if (bag.how === 'weighed' && bag.spread === null) throw unreadable('A weighed bag needs its uncertainty.');
  return {
    kind: 'count',
    line: bag.line,
    label: bag.label || line?.code || '',
    drills: bag.drills ?? canvas.packetDrills,
    how: bag.how,
    spread: bag.how === 'counted' ? 0 : bag.how === 'weighed' ? bag.spread : null,
    subject: null,
    undoes: null,
    redoes: null,
  };
}

/** Records bad drills among those that went through the hand. @throws Problem when the id is taken */
export async function recordTrash(
  database: Database,
  canvas: Canvas,
  record: { id: string; handled: number; thrown: number },
): Promise<void> {
  const request = { id: record.id, what: 'trash', canvasId: canvas.id, content: record };
  await once(database, request, (queries) =>
    addTrashRecord(queries, canvas.id, record, new Date().toISOString()),
  );
}

/** Saves a sheet. @throws Problem when bags or a chart already stand on lines that would change their colour */
export async function saveSheet(database: Database, canvas: Canvas, lines: LegendLine[]): Promise<void> {
  await database.transaction(async (queries) => {
    const { bags } = await countedBags(queries, canvas.id);
    const chart = await chartOf(queries, canvas);
    const used = new Set([...(chart?.cells ?? []), ...bags.map((bag) => bag.line ?? 0)]);
    used.delete(0);
    const before = await legendOf(queries, canvas.id);
    const fault = faultInReplacement(before, lines, used);
    if (fault !== null) throw conflict(fault);
    await replaceLegend(queries, canvas.id, lines);
    // A pot or a lid mark belongs to a colour, not to a place on the sheet.
    for (const line of before) {
      if (lines[line.line - 1]?.code === line.code) continue;
      await freeSlot(queries, canvas.id, line.line);
      await putLidMark(queries, canvas.id, line.line, null);
    }
    await bumpRevision(queries, canvas.id);
  });
}
