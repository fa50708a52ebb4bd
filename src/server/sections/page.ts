import type { Tips } from '../../core/placing/tips';
import type { SectionPlan } from '../../core/sections/plan';
import { tipSizes } from '../../data/placing';
import { type StationPage, stationPage } from '../http/page';
import type { SectionsStart } from './contract';
import { sectionsPage } from './view';

/** Pages stay short: a cut of hundreds of sections in steps is loaded beside the chart. */
const LONGEST_IN_PAGE = 4000;

/** A plan as a page holds it; null where that would make the page too long. */
export function planForPage(plan: SectionPlan): SectionPlan | null {
  return plan.pieces !== null && plan.pieces.length > LONGEST_IN_PAGE ? null : plan;
}

/** What every page of the station starts from. @returns null where there is no such canvas */
export async function sectionStationPage(
  id: string | undefined,
): Promise<(StationPage & { first: SectionsStart; tips: Tips }) | null> {
  const page = await stationPage(id);
  if (!page) return null;
  const own = await page.database.snapshot(async (queries) => ({
    first: await sectionsPage(queries, page.entry.canvas),
    tips: await tipSizes(queries, page.entry.canvas.shape),
  }));
  return { ...page, ...own, first: { ...own.first, plan: planForPage(own.first.plan) } };
}
