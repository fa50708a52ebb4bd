import type { Canvas } from '../core/canvas/canvas';
import type { LegendLine } from '../core/canvas/legend';
import { faultInReplacement } from '../core/checkin/replaceSheet';
import { summarise, supplyInWords, supplyOf } from '../core/checkin/supply';
import { legendOf, replaceLegend } from '../data/canvases';
import { chartOf } from '../data/chart';
import { addBagEntry, countedBags, findBagEntry } from '../data/checkin';
import type { Database } from '../data/database';
import type { CheckinView } from './contract/checkin';
import { conflict, notFound, unreadable } from './problem';

export async function checkinView(database: Database, canvas: Canvas): Promise<CheckinView> {
  const legend = await legendOf(database, canvas.id);
  const { bags, history } = await countedBags(database, canvas.id);
  const supply = supplyOf(legend, bags, canvas.packetDrills);
  const summary = summarise(supply, bags);
  return { supply, summary, sentence: supplyInWords(summary), bags, history };
}

/** A bag as it is to be entered into the ledger. */
export interface BagRequest {
  id: string;
  line: number | null;
  label: string;
  drills: number | null;
  undoes: string | null;
  redoes: string | null;
}

/**
 * Counts a bag, takes one back or counts it again. The same id a second time changes nothing.
 * @throws Problem when the bag to take back is not (or no longer) counted, or the line does not exist
 */
export async function enterBag(database: Database, canvas: Canvas, bag: BagRequest): Promise<void> {
  await database.transaction(async (queries) => {
    if (await findBagEntry(queries, canvas.id, bag.id)) return;
    const common = { id: bag.id, canvasId: canvas.id, happenedAt: new Date().toISOString() };
    if (bag.undoes !== null || bag.redoes !== null) {
      const { bags, history } = await countedBags(queries, canvas.id);
      const target = await findBagEntry(queries, canvas.id, bag.undoes ?? bag.redoes ?? '');
      if (target?.kind !== 'count') throw notFound('such bag');
      const stands = bags.some((counted) => counted.id === target.id);
      if (bag.undoes !== null && !stands) throw conflict('This bag has already been taken back.');
      if (bag.redoes !== null && history.redo !== target.id) {
        throw conflict('This bag can no longer be counted again; count it as a new one.');
      }
      const kind = bag.undoes === null ? 'count' : 'take back';
      const { line, label, drills } = target;
      await addBagEntry(queries, {
        ...common,
        kind,
        line,
        label,
        drills,
        undoes: bag.undoes,
        redoes: bag.redoes,
      });
      return;
    }
    const legend = await legendOf(queries, canvas.id);
    const line = legend.find((candidate) => candidate.line === bag.line);
    if (bag.line !== null && !line) throw unreadable(`The sheet has no line ${bag.line}.`);
    if (bag.line === null && bag.label === '')
      throw unreadable('A bag that is on no line needs its code as a label.');
    await addBagEntry(queries, {
      ...common,
      kind: 'count',
      line: bag.line,
      label: bag.label || line?.code || '',
      drills: bag.drills ?? canvas.packetDrills,
      undoes: null,
      redoes: null,
    });
  });
}

/** Saves a sheet. @throws Problem when bags or a chart already stand on lines that would change their colour */
export async function saveSheet(database: Database, canvas: Canvas, lines: LegendLine[]): Promise<void> {
  await database.transaction(async (queries) => {
    const { bags } = await countedBags(queries, canvas.id);
    const chart = await chartOf(queries, canvas);
    const used = new Set([...(chart?.cells ?? []), ...bags.map((bag) => bag.line ?? 0)]);
    used.delete(0);
    const fault = faultInReplacement(await legendOf(queries, canvas.id), lines, used);
    if (fault !== null) throw conflict(fault);
    await replaceLegend(queries, canvas.id, lines);
  });
}
