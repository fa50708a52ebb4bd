import { Refusal } from '../core/refusal';
import { type JudgedOrder, judgedOrders } from '../core/sections/hand';
import { type JudgedGround, type JudgedSection, judgeSections, sheetsOf } from '../core/sections/judge';
import { piecesToText, type SectionPlan, sectionsOfPlan } from '../core/sections/plan';
import { type CutWish, proposeCut } from '../core/sections/propose';
import type { SectionWish } from '../core/sections/wish';

/** What a page has this thread do. */
export type SectionTask = { ground: JudgedGround; plan: SectionPlan; wish: SectionWish } & (
  | { what: 'judge' }
  | { what: 'cut'; cut: CutWish }
  | { what: 'orders' }
);

/** Sections with what is known of them, and the plan that they follow from. */
export interface JudgedPlan {
  plan: SectionPlan;
  sections: JudgedSection[];
}

export type SectionAnswer =
  | { done: number }
  | { judged: JudgedPlan }
  | { orders: JudgedOrder[] }
  | { fault: string };

const answer = (message: SectionAnswer) => postMessage(message);

addEventListener('message', ({ data }: MessageEvent<SectionTask>) => {
  try {
    answer(work(data));
  } catch (error) {
    if (error instanceof Refusal) answer({ fault: error.message });
    // Ends the work through the page's own sentence, and stands in the console.
    else throw error;
  }
});

function work(task: SectionTask): SectionAnswer {
  const { ground, wish } = task;
  if (task.what === 'judge') return { judged: judgedPlan(ground, task.plan, wish) };
  const now = sectionsOfPlan(ground.canvas, task.plan);
  if (task.what === 'orders') {
    const sheets = sheetsOf(ground.canvas, now, wish).map(({ rect }) => rect);
    const { canvas, chart, laid } = ground;
    return {
      orders: judgedOrders(canvas, chart, laid, now, task.plan.order.focal, { ...wish, sheets }),
    };
  }
  const { pieces, order } = proposeCut({ ...ground, now }, task.cut, (done) => answer({ done }));
  return { judged: judgedPlan(ground, { block: null, pieces: piecesToText(pieces), order }, wish) };
}

function judgedPlan(ground: JudgedGround, plan: SectionPlan, wish: SectionWish): JudgedPlan {
  return { plan, sections: judgeSections(ground, sectionsOfPlan(ground.canvas, plan), plan.order, wish) };
}
