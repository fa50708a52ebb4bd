import { expect, it } from 'vitest';
import { correctionOf } from '../../../src/core/stash/correction';

it('a corrected amount is told apart from one that was not touched, while others take from it', () => {
  // [said, seen, now] → difference
  const cases: [number, number | null, number, number | null][] = [
    [400, 400, 400, 0],
    [400, 400, 250, 0],
    [380, 400, 400, -20],
    [410, 400, 400, 10],
    [380, 400, 250, null],
    // The same that is there by now, though another amount was seen: nobody can say whether it was meant.
    [250, 400, 250, null],
    [90, null, 250, -160],
    [0, 0, 5, 0],
  ];
  for (const [said, seen, now, difference] of cases)
    expect(correctionOf(said, seen, now), `${said} ${seen} ${now}`).toBe(difference);
});
