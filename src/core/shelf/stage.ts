/** How far a canvas has come, in the order of the work. */
export type Stage = 'sheet' | 'checkin' | 'kitup' | 'bench' | 'finish';

export interface StageFacts {
  colours: number;
  bagsCounted: number;
  bagsToFind: number;
  laid: number;
  drills: number;
}

/** The stage of work: laid drills say more than bags, bags more than the sheet. */
export function stageOf(facts: StageFacts): Stage {
  if (facts.drills > 0 && facts.laid >= facts.drills) return 'finish';
  if (facts.laid > 0) return 'bench';
  if (facts.colours === 0) return 'sheet';
  if (facts.bagsCounted > 0 && facts.bagsToFind === 0) return 'kitup';
  return 'checkin';
}

export function stageInWords(stage: Stage, facts: StageFacts): string {
  switch (stage) {
    case 'sheet':
      return 'Waiting for its sheet';
    case 'checkin':
      return facts.bagsCounted === 0
        ? 'Just arrived, bags to check in'
        : `Checking in, ${facts.bagsToFind} ${facts.bagsToFind === 1 ? 'bag' : 'bags'} to find`;
    case 'kitup':
      return 'All bags here, ready to kit up';
    case 'bench':
      return 'On the bench';
    case 'finish':
      return 'All laid';
  }
}
