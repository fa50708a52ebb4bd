import type { Canvas } from '../../core/canvas/canvas';
import { countPlacements, planSection } from '../../core/placing/barPlan';
import { bitmapOf } from '../../data/bench';
import { chartOf } from '../../data/chart';
import type { Queries } from '../../data/engine/database';
import { ownTips } from '../../data/placing';
import { conflict, notFound } from '../http/problem';
import { sectionsOf } from '../sections/view';
import type { PlacingView } from './contract';

/** @throws Problem when there is no chart or no such section */
export async function placingView(queries: Queries, canvas: Canvas, number: number): Promise<PlacingView> {
  const chart = await chartOf(queries, canvas);
  if (!chart) throw conflict('Runs are found on the chart, and this canvas has none yet.');
  const { sections } = await sectionsOf(queries, canvas);
  const section = sections[number - 1];
  if (!section) throw notFound(`section ${number}`);
  const tips = await ownTips(queries);
  const plans = planSection(chart, section, await bitmapOf(queries, canvas.id, chart.cells.length), tips);
  return { section, tips, plans, placements: countPlacements(plans) };
}
