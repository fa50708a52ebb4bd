import { randomUUID } from 'node:crypto';
import type { Canvas } from '../core/canvas/canvas';
import { requestLines, requestText } from '../core/checkin/supplierRequest';
import { countInRect } from '../core/sections/blockGrid';
import { coverOffers } from '../core/stash/cover';
import { legendOf } from '../data/canvases';
import { chartOf } from '../data/chart';
import { addBagEntry, findBagEntry } from '../data/checkin';
import type { Database } from '../data/database';
import { inspectionEntries } from '../data/inspection';
import { requestStates } from '../data/requests';
import { addStashMove, stashItems } from '../data/stash';
import { checkinView } from './checkin';
import type { RequestEntry, RequestView } from './contract/requests';
import { notFound, unreadable } from './problem';
import { sectionsOf } from './sections';

/** @param date of the letter, as it should stand there */
export async function requestView(database: Database, canvas: Canvas, date: string): Promise<RequestView> {
  const legend = await legendOf(database, canvas.id);
  const { supply } = await checkinView(database, canvas);
  const lines = requestLines(legend, supply, await requestStates(database, canvas.id));
  const stash = await stashItems(database);
  const chart = await chartOf(database, canvas);
  const { sections } = await sectionsOf(database, canvas);
  const perSection = chart && sections.map((section) => countInRect(chart, section, legend.length, null));
  const showsMostIn = (line: number): RequestEntry['showsMostIn'] => {
    if (!perSection) return null;
    const drills = perSection.map((counts) => counts[line]!);
    const most = Math.max(...drills);
    return most === 0 ? null : { section: drills.indexOf(most) + 1, drills: most };
  };
  const photos = (await inspectionEntries(database, canvas.id))
    .filter((entry) => entry.kind === 'sheet' && entry.hasPhoto)
    .map((entry) => entry.id);
  return {
    lines: lines.map((each) => ({
      ...each,
      offers: coverOffers(each.line, canvas.shape, each.shortDrills, stash),
      showsMostIn: showsMostIn(each.line.line),
    })),
    text: requestText(canvas, lines, date),
    photos,
  };
}

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

/** A date as it stands in a letter: `25 November 2026`. */
export function dateInWords(date: Date): string {
  return date.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
}
