import type { LegendLine } from '../canvas/legend';
import { counted } from '../words/numbers';
import type { CoverFinder } from './cover';

/** What the stash already has of a colour, said before its bag is opened; null where there is nothing of use. */
export function stashInWords(line: LegendLine, find: CoverFinder): string | null {
  const same = find.sameDrills(line);
  if (same > 0) return `The stash has ${counted(same, 'drill')} of ${line.code} already.`;
  const offers = find.offers(line, 0);
  const near = offers.find(({ item, difference }) => (difference ?? 99) < 2 && item.finish === line.finish);
  return near
    ? `The stash has ${counted(near.item.drills, 'drill')} of ${near.item.code}: ${near.inWords}.`
    : null;
}
