import { counted } from '../words/numbers';

/** How far a canvas has come, in the order of the work. */
export type Stage = 'sheet' | 'checkin' | 'kitup' | 'lay' | 'bench' | 'finish';

export interface StageFacts {
  colours: number;
  bagsCounted: number;
  bagsToFind: number;
  laid: number;
  drills: number;
  /** Every planned pot is filled, or none are wanted. */
  kittedUp: boolean;
}

/** The stage of work: laid drills say more than bags, bags more than the sheet. */
export function stageOf(facts: StageFacts): Stage {
  if (facts.drills > 0 && facts.laid >= facts.drills) return 'finish';
  if (facts.laid > 0) return 'bench';
  if (facts.colours === 0) return 'sheet';
  if (facts.bagsCounted > 0 && facts.bagsToFind === 0) return facts.kittedUp ? 'lay' : 'kitup';
  return 'checkin';
}

export function stageInWords(stage: Stage, facts: StageFacts): string {
  switch (stage) {
    case 'sheet':
      return 'Waiting for its colour list';
    case 'checkin':
      return facts.bagsCounted === 0
        ? 'Just arrived, bags to check in'
        : facts.bagsToFind === 0
          ? 'Checking in'
          : `Checking in, ${counted(facts.bagsToFind, 'bag')} to find`;
    case 'kitup':
      return 'All bags are here, ready for kit-up';
    case 'lay':
      return 'Ready to lay';
    case 'bench':
      return 'On the bench';
    case 'finish':
      return 'All laid';
  }
}
