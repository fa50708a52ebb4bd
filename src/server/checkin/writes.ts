import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { faultInReplacement } from '../../core/checkin/replaceSheet';
import type { BagMeasure, CountedBag } from '../../core/checkin/supply';
import { legendOf, replaceLegend } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import { addBagEntry, type BagEntry, countedBags, findBagEntry } from '../../data/checkin';
import type { Database, Queries } from '../../data/engine/database';
import { freeSlot } from '../../data/kitup';
import { returnToStash, stashItems, takeAgainFromStash } from '../../data/stash';
import { putLidMark } from '../../data/symbols';
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
 * Counts a bag, takes back or repeats an entry, or gives a stray to a line. The same id a second time changes nothing.
 * @throws Problem when the entry to take back does not (or no longer) stand, or the line does not exist
 */
export async function enterBag(database: Database, canvas: Canvas, bag: BagRequest): Promise<void> {
  await database.transaction(async (queries) => {
    if (await findBagEntry(queries, canvas.id, bag.id)) return;
    const ledger = await countedBags(queries, canvas.id);
    const legend = await legendOf(queries, canvas.id);
    const line = legend.find((candidate) => candidate.line === bag.line);
    if (bag.line !== null && !line) throw unreadable(`The sheet has no line ${bag.line}.`);
    const happenedAt = new Date().toISOString();
    await addBagEntry(queries, {
      id: bag.id,
      canvasId: canvas.id,
      happenedAt,
      ...(bag.undoes !== null || bag.redoes !== null
        ? await repeatOrTakeBack(queries, canvas, bag, ledger)
        : bag.assigns !== null
          ? assignment(bag, ledger.bags)
          : freshCount(bag, line, canvas)),
    });
    // Drills that came from the stash go back there with the bag, and come again with it.
    if (bag.undoes !== null) await returnToStash(queries, bag.undoes, happenedAt);
    else if (bag.redoes !== null) {
      await takeAgainFromStash(queries, bag.redoes, bag.id, happenedAt);
      if ((await stashItems(queries)).some((item) => item.drills < 0)) {
        throw conflict('The stash no longer has the drills of this bag; they were used elsewhere.');
      }
    }
  });
}

type EntryBody = Omit<BagEntry, 'id' | 'canvasId' | 'happenedAt'>;

async function repeatOrTakeBack(
  queries: Queries,
  canvas: Canvas,
  bag: BagRequest,
  { bags, history, standing }: Awaited<ReturnType<typeof countedBags>>,
): Promise<EntryBody> {
  const target = await findBagEntry(queries, canvas.id, bag.undoes ?? bag.redoes ?? '');
  if (!target || target.kind === 'take back') throw notFound('such bag');
  if (bag.undoes !== null && !standing.has(target.id))
    throw conflict('This bag has already been taken back.');
  const counted = bags.find((each) => each.id === target.id);
  if (bag.undoes !== null && target.line === null && counted && counted.line !== null) {
    throw conflict('This bag was given to a line since. Take that back first.');
  }
  if (bag.redoes !== null && history.redo !== target.id) {
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
  });
}
