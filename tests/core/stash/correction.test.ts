import { expect, it } from 'vitest';
import { correctedItem, correctionOf } from '../../../src/core/stash/correction';

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

it('a leftover is corrected in what its form changed, and stays what another one made of the rest', () => {
  const seen = { code: '310', name: 'Sky', hex: null, finish: 'plain', shape: 'square', drills: 9 } as const;
  const now = { ...seen, id: 'a', name: 'Sea', hex: '#2f6f8f', drills: 4 };
  const said = { ...seen, id: 'a', code: '311', finish: 'crystal', shape: 'round' } as const;
  const kept = { id: 'a', code: '311', name: 'Sea', hex: '#2f6f8f', finish: 'crystal', shape: 'round' };
  expect(correctedItem(said, seen, now)).toEqual(kept);
  // Where nobody knows what was seen, all of it was said.
  expect(correctedItem(said, null, now)).toEqual({ ...kept, name: 'Sky', hex: null });
});
