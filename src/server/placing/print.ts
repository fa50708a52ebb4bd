import type { LegendLine } from '../../core/canvas/legend';
import { placingSheet } from '../../core/placing/paper';
import { type PlacingGround, PlacingPlanner } from '../../core/placing/plan';
import type { PlacingWish } from '../../core/placing/wish';
import type { PaperHead } from '../../core/print/page';
import { drawingPdf } from '../print/drawingPdf';

/** The plan of a section on paper. */
export function placingPdf({
  head,
  what,
  ground,
  wish,
  legend,
}: {
  head: PaperHead;
  what: string;
  ground: PlacingGround;
  wish: PlacingWish;
  legend: readonly LegendLine[];
}): Promise<Uint8Array> {
  const plan = new PlacingPlanner().plan(ground, wish);
  return drawingPdf({
    title: `${what}: ${head.title}`,
    pages: placingSheet(head, what, ground.parts[0]!, plan, legend),
  });
}
