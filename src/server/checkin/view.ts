import type { Canvas } from '../../core/canvas/canvas';
import { highestLine } from '../../core/canvas/legend';
import { type Chart, countPerLine } from '../../core/cells/chart';
import { listedBags, standingBags } from '../../core/checkin/bagLedger';
import { learnedTrash } from '../../core/checkin/chance';
import { learnedFilling } from '../../core/checkin/filling';
import { goodDrills, mayRunOut } from '../../core/checkin/lacking';
import { sheetFindings } from '../../core/checkin/sheetSanity';
import { matchStrays } from '../../core/checkin/strays';
import { type LineSupply, packetSizes, summarise, supplyInWords, supplyOf } from '../../core/checkin/supply';
import { sectionsWhereShort } from '../../core/sections/shortage';
import { bitmapOf } from '../../data/bench';
import { chartOf } from '../../data/chart';
import { bagFacts, trashEntries, trashRecords } from '../../data/checkin';
import type { Queries } from '../../data/engine/database';
import { undoViewOf } from '../../data/history';
import { revisionOf } from '../../data/once';
import { sectionsOf } from '../sections/view';
import type { BagAnswer, CheckinView } from './contract';
import { type Heap, heapOf } from './heap';

/** What there is of each colour, without the section in which it would run out. */
export async function supplyNow(queries: Queries, canvas: Canvas): Promise<LineSupply[]> {
  const { legend, rows } = await heapOf(queries, canvas.id);
  const trash = learnedTrash(await trashRecords(queries, canvas.id));
  return supplyOf(legend, standingBags(rows).bags, canvas.packetDrills, trash);
}

/** @param screenId the screen for which undo is told */
export async function checkinView(
  queries: Queries,
  canvas: Canvas,
  screenId: string | null = null,
): Promise<CheckinView> {
  const { legend, rows } = await heapOf(queries, canvas.id);
  const { bags } = standingBags(rows);
  const records = await trashEntries(queries, canvas.id);
  const trash = learnedTrash(records.filter(({ removed }) => !removed));
  const chart = await chartOf(queries, canvas);
  const supply = supplyOf(legend, bags, canvas.packetDrills, trash);
  await untilWhichSection(queries, canvas, supply, supply.filter(mayRunOut), trash.share, chart);
  const summary = summarise(supply, bags);
  return {
    revision: await revisionOf(queries, canvas.id),
    supply,
    summary,
    sentence: supplyInWords(summary),
    bags: listedBags(rows, screenId),
    history: await bagHistory(queries, canvas.id, screenId),
    strayMatches: matchStrays(bags, legend, supply),
    findings: sheetFindings(canvas, legend, chart && countPerLine(chart, highestLine(legend))),
    trash,
    trashRecords: records,
    filling: learnedFilling(bags, packetSizes(canvas.packetDrills)),
  };
}

/**
 * What an entry changed: the colours that it concerns and the sums, not the whole view, because a heap is counted bag by
 * bag.
 * @param heap as it stands with the entry
 * @param lines legend lines that the entry concerns
 */
export async function bagAnswer(
  queries: Queries,
  canvas: Canvas,
  { legend, rows }: Heap,
  lines: readonly (number | null)[],
  screenId: string | null,
): Promise<BagAnswer> {
  const { bags } = standingBags(rows);
  const trash = learnedTrash(await trashRecords(queries, canvas.id));
  const supply = supplyOf(legend, bags, canvas.packetDrills, trash);
  const touched = supply.filter(({ line }) => lines.includes(line));
  // While bags are still to find, nobody asks how long the first of them lasts.
  const short = touched.filter((each) => mayRunOut(each) && each.bagsToFind === 0);
  const chart = short.length > 0 ? await chartOf(queries, canvas) : null;
  await untilWhichSection(queries, canvas, supply, short, trash.share, chart);
  const summary = summarise(supply, bags);
  return {
    revision: await revisionOf(queries, canvas.id),
    supply: touched,
    summary,
    sentence: supplyInWords(summary),
    bags: listedBags(rows, screenId).filter(({ line }) => line === null || lines.includes(line)),
    history: await bagHistory(queries, canvas.id, screenId),
    strayMatches: matchStrays(bags, legend, supply),
    filling: learnedFilling(bags, packetSizes(canvas.packetDrills)),
  };
}

/** Enters into the colours of `short` the section in which each would run out. */
async function untilWhichSection(
  queries: Queries,
  canvas: Canvas,
  supply: readonly LineSupply[],
  short: readonly LineSupply[],
  trashShare: number,
  chart: Chart | null,
): Promise<void> {
  if (!chart || short.length === 0) return;
  const laid = await bitmapOf(queries, canvas.id, chart.cells.length);
  const { sections } = await sectionsOf(queries, canvas);
  const sectionOf = sectionsWhereShort(chart, laid, sections, goodDrills(supply, trashShare));
  for (const each of short) each.lastsUntilSection = sectionOf[each.line] || null;
}

function bagHistory(queries: Queries, canvasId: string, screenId: string | null) {
  return undoViewOf(queries, 'bag_entry', canvasId, screenId, (ids) => bagFacts(queries, ids));
}
