import type { Canvas } from '../../core/canvas/canvas';
import { countInRect } from '../../core/cells/rect';
import { requestLines, requestText } from '../../core/requests/supplierRequest';
import { coverOffers } from '../../core/stash/cover';
import { largest } from '../../core/words/numbers';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Database } from '../../data/engine/database';
import { inspectionEntries } from '../../data/inspection';
import { requestStates } from '../../data/requests';
import { stashItems } from '../../data/stash';
import { checkinView } from '../checkin/view';
import { sectionsOf } from '../sections/view';
import type { RequestEntry, RequestView } from './contract';

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
    const most = largest(drills);
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

/** A date as it stands in a letter: `25 November 2026`. */
export function dateInWords(date: Date): string {
  return date.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
}
