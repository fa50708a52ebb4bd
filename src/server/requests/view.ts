import type { Canvas } from '../../core/canvas/canvas';
import { highestLine } from '../../core/canvas/legend';
import { leftPerLine } from '../../core/progress/progress';
import { knownWanting } from '../../core/requests/ranOut';
import { requestLines, requestText } from '../../core/requests/supplierRequest';
import { sectionWithMost } from '../../core/sections/sectionWithMost';
import { coverFinder } from '../../core/stash/cover';
import { bitmapOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Queries } from '../../data/engine/database';
import { inspectionEntries } from '../../data/inspection';
import { ranOutReports, requestStates } from '../../data/requests';
import { stashItems } from '../../data/stash';
import { checkinView } from '../checkin/view';
import { inTurns } from '../jobs/inTurns';
import { sectionsOf } from '../sections/view';
import type { RequestView } from './contract';

/** @param date of the letter, as it should stand there */
export async function requestView(queries: Queries, canvas: Canvas, date: string): Promise<RequestView> {
  const legend = await legendOf(queries, canvas.id);
  const { supply, trash, bags } = await checkinView(queries, canvas);
  const chart = await chartOf(queries, canvas);
  const wanting = new Map(
    [...(await ranOutReports(queries, canvas.id))].map(([line, report]) => [
      line,
      knownWanting(
        report,
        bags.filter((bag) => bag.line === line && bag.removedBy === null),
      ),
    ]),
  );
  // What was laid since, with drills from wherever, is wanting no more.
  if (chart) {
    const laid = await bitmapOf(queries, canvas.id, chart.cells.length);
    const toLay = leftPerLine(chart, laid, highestLine(legend));
    for (const [line, drills] of wanting) wanting.set(line, Math.min(drills, toLay[line] ?? 0));
  }
  const lines = requestLines(legend, supply, await requestStates(queries, canvas.id), trash, wanting);
  const inStash = coverFinder(await stashItems(queries, { shape: canvas.shape }), canvas.shape);
  const { sections } = await sectionsOf(queries, canvas);
  const showsMostIn = chart ? sectionWithMost(chart, sections, highestLine(legend)) : () => null;
  const photos = (await inspectionEntries(queries, canvas.id))
    .filter(({ removedAt }) => removedAt === null)
    .filter((entry) => entry.kind === 'sheet' && entry.hasPhoto)
    .map((entry) => entry.id);
  return {
    lines: await inTurns(lines, (each) => ({
      ...each,
      offers: inStash.offers(each.line, each.lackingDrills),
      showsMostIn: showsMostIn(each.line.line),
    })),
    text: requestText(canvas, lines, date),
    photos,
  };
}
