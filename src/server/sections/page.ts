import type { Tips } from '../../core/placing/tips';
import { ownTips } from '../../data/placing';
import { type StationPage, stationPage } from '../http/page';
import type { SectionsPage } from './contract';
import { sectionsPage } from './view';

/** What every page of the station starts from. @returns null where there is no such canvas */
export async function sectionStationPage(
  id: string | undefined,
): Promise<(StationPage & { first: SectionsPage; tips: Tips }) | null> {
  const page = await stationPage(id);
  if (!page) return null;
  const own = await page.database.snapshot(async (queries) => ({
    first: await sectionsPage(queries, page.entry.canvas),
    tips: await ownTips(queries),
  }));
  return { ...page, ...own };
}
