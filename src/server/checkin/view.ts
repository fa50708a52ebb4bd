import type { Canvas } from '../../core/canvas/canvas';
import { countPerLine } from '../../core/cells/chart';
import { learnedTrash } from '../../core/checkin/chance';
import { sheetFindings } from '../../core/checkin/sheetSanity';
import { matchStrays } from '../../core/checkin/strays';
import { type LineSupply, summarise, supplyInWords, supplyOf } from '../../core/checkin/supply';
import { sectionsWhereShort } from '../../core/sections/shortage';
import { bitmapOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import { countedBags, trashRecords } from '../../data/checkin';
import type { Database } from '../../data/engine/database';
import { sectionsOf } from '../sections/view';
import type { CheckinView } from './contract';

export async function checkinView(database: Database, canvas: Canvas): Promise<CheckinView> {
  const legend = await legendOf(database, canvas.id);
  const { bags, history } = await countedBags(database, canvas.id);
  const trash = learnedTrash(await trashRecords(database, canvas.id));
  const chart = await chartOf(database, canvas);
  const supply = supplyOf(legend, bags, canvas.packetDrills, trash);
  if (chart && supply.some((line) => mayRunOut(line))) {
    const laid = await bitmapOf(database, canvas.id, chart.cells.length);
    const { sections } = await sectionsOf(database, canvas);
    const good = [0, ...supply.map((line) => Math.floor(line.suppliedDrills * (1 - trash.share)))];
    const short = sectionsWhereShort(chart, laid, sections, good);
    for (const line of supply) if (mayRunOut(line)) line.lastsUntilSection = short[line.line] || null;
  }
  const summary = summarise(supply, bags);
  return {
    supply,
    summary,
    sentence: supplyInWords(summary),
    bags,
    history,
    strayMatches: matchStrays(bags, legend, supply),
    findings: sheetFindings(canvas, legend, chart && countPerLine(chart, legend.length)),
    trash,
  };
}

function mayRunOut(supply: LineSupply): boolean {
  return supply.verdict.kind === 'short' || supply.verdict.kind === 'tight';
}
