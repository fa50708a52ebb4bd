import type { Canvas } from '../../core/canvas/canvas';
import type { PaperHead } from '../../core/print/page';
import { type JudgedGround, judgeSections, sheetsOf } from '../../core/sections/judge';
import { coverPlan, type PullRow, pullPages, sectionMap } from '../../core/sections/paper';
import { type SectionPlan, sectionsOfPlan } from '../../core/sections/plan';
import type { SectionWish } from '../../core/sections/wish';
import { drawingPdf } from '../print/drawingPdf';

/** What the papers of the sections are made from. */
export interface SectionPrint {
  head: PaperHead;
  canvas: Canvas;
  ground: JudgedGround;
  plan: SectionPlan;
  wish: SectionWish;
}

/** One page with all sections. */
export function sectionMapPdf({ head, canvas, plan }: SectionPrint): Promise<Uint8Array> {
  const pages = sectionMap(head, canvas, sectionsOfPlan(canvas, plan), plan.order);
  return drawingPdf({ title: `Sections: ${head.title}`, pages });
}

/** How the adhesive is covered. */
export function coverPlanPdf({ head, canvas, ground, plan, wish }: SectionPrint): Promise<Uint8Array> {
  const sections = sectionsOfPlan(canvas, plan);
  const judged = judgeSections(ground, sections, plan.order, wish);
  const pages = coverPlan(head, canvas, judged, plan.order, wish, sheetsOf(canvas, sections, wish));
  return drawingPdf({ title: `Cover plan: ${head.title}`, pages });
}

/** What to take out, to tick off. */
export function pullListPdf({
  head,
  what,
  rows,
}: {
  head: PaperHead;
  what: string;
  rows: readonly PullRow[];
}): Promise<Uint8Array> {
  return drawingPdf({ title: `${what}: ${head.title}`, pages: pullPages(head, what, rows) });
}
