import type { Chart } from '../../core/cells/chart';
import { type JudgedGround, type JudgedSection, judgeSections } from '../../core/sections/judge';
import {
  type CutCanvas,
  faultInPieces,
  piecesFromJson,
  piecesFromText,
  piecesToText,
  type SectionPlan,
  sectionsOfPlan,
} from '../../core/sections/plan';
import { type CutWish, proposeCut } from '../../core/sections/propose';
import type { SectionWish } from '../../core/sections/wish';
import type { TellProgress } from '../jobs/progress';
import type { ProposalView, SectionView } from './contract';

/** The sections of a plan with all that is known of them; in a thread of its own. */
export function judgedSections({
  ground,
  plan,
  wish,
}: {
  ground: JudgedGround;
  plan: SectionPlan;
  wish: SectionWish;
}): SectionView[] {
  const sections = sectionsOfPlan(ground.canvas, plan);
  return judgeSections(ground, sections, plan.order, wish).map(told);
}

/** Cuts a canvas and judges the cut; in a thread of its own. */
export function proposedSections(
  { ground, plan, cut, wish }: { ground: JudgedGround; plan: SectionPlan; cut: CutWish; wish: SectionWish },
  report: TellProgress = () => {},
): ProposalView {
  const now = sectionsOfPlan(ground.canvas, plan);
  const { pieces, order } = proposeCut({ ...ground, now }, cut, (done) =>
    report(Math.round(done * 100), 100),
  );
  const proposed: SectionPlan = { block: null, pieces: piecesToText(pieces), order };
  return { plan: proposed, sections: judgedSections({ ground, plan: proposed, wish }) };
}

function told({ section, ...rest }: JudgedSection): SectionView {
  const { number, order, name, rects } = section;
  return { number, order, name, rects: [...rects], ...rest };
}

/**
 * Pieces as they are sent, as the text that is kept, with what is wrong with them and how many they are; in a thread of its
 * own. @throws Refusal for what are no pieces
 */
export function checkedPieces({
  pieces: sent,
  canvas,
  chart,
}: {
  pieces: unknown;
  canvas: CutCanvas;
  chart: Chart | null;
}): { text: string; fault: string | null; count: number } {
  const pieces = typeof sent === 'string' ? piecesFromText(sent) : piecesFromJson(sent);
  return { text: piecesToText(pieces), fault: faultInPieces(pieces, canvas, chart), count: pieces.length };
}
