import { describe, expect, it } from 'vitest';
import { offerInWords } from '../../../src/core/kitup/planInWords';
import { potInWords } from '../../../src/core/kitup/potInWords';
import { lastOfPot, type PotEventKind, putAwayDrills } from '../../../src/core/kitup/potLedger';
import { goodLeft, potLevel, potNow, potNowInWords } from '../../../src/core/kitup/potNow';
import { line } from '../samples';

describe('a pot in words', () => {
  const legend = [line(1, { code: '412' })];
  const said = (kind: PotEventKind, drills = 0, of = 1) => potInWords({ line: of, kind, drills }, legend);

  it('says what became of it, by the code of its colour', () => {
    expect([
      said('fill'),
      said('take back'),
      said('put away'),
      said('put away', 1),
      said('put away', 1240),
    ]).toEqual([
      'pot of 412 filled',
      'pot of 412 not filled after all',
      'pot of 412 put away',
      'pot of 412 put away, 1 drill into the stash',
      'pot of 412 put away, 1,240 drills into the stash',
    ]);
    expect(said('amount', 1240)).toBe('leftover of 412 corrected to 1,240');
    expect(said('fill', 0, 9)).toBe('pot of a colour filled');
  });

  it('says what pots left over take, and what that costs, of one and of several', () => {
    expect(offerInWords({ pots: 3, colours: 2, outside: [2400, 1200], overflowing: [7, 5] })).toBe(
      '3 pots left over take 1,200 drills: 1,200 drills stay outside instead of 2,400, and 5 colours overflow instead of 7. The cost: 2 colours lie in more than one pot.',
    );
    expect(offerInWords({ pots: 1, colours: 1, outside: [2, 1], overflowing: [2, 1] })).toBe(
      '1 pot left over takes 1 drill: 1 drill stays outside instead of 2, and 1 colour overflows instead of 2. The cost: 1 colour lies in more than one pot.',
    );
  });

  it('says what is in it, and when the bag beside it is due', () => {
    const words = (
      inPot: number,
      inBag: number,
      untilRefill: number | null,
      bag: number | null,
      left: number,
    ) => potNowInWords({ inPot, inBag, untilRefill }, bag, left);
    expect(words(0, 0, null, 3, 10)).toBe('By the count nothing is left of it.');
    expect([words(0, 1240, null, 3, 10), words(0, 1240, null, null, 10)]).toEqual([
      'About 1,240 in bag 3.',
      'About 1,240 in its bag.',
    ]);
    expect(words(300, 0, null, null, 400)).toBe('About 300 in the pot.');
    expect([words(300, 500, 300, 3, 300), words(300, 500, 300, null, 195)]).toEqual([
      'About 300 in the pot, 500 in bag 3.',
      'About 300 in the pot, 500 in its bag.',
    ]);
    expect([words(300, 500, 290, 3, 291), words(300, 500, 1, null, 195)]).toEqual([
      'About 300 in the pot: fill up from bag 3 after 290 drills more.',
      'About 300 in the pot: fill up from its bag after 1 drill more.',
    ]);
  });
});

describe('what is in a pot', () => {
  /** Drill by drill: whenever the pot is empty it is filled from the bag. */
  function byHand(stored: number, capacity: number, taken: number): { inPot: number; inBag: number } {
    let inPot = Math.min(capacity, stored);
    let inBag = stored - inPot;
    for (let drill = 0; drill < taken; drill++) {
      if (inPot > 0) inPot--;
      if (inPot === 0) {
        inPot = Math.min(capacity, inBag);
        inBag -= inPot;
      }
    }
    return { inPot, inBag };
  }

  it('is what is left when drills are taken one by one, and it is filled whenever it is empty', () => {
    for (const capacity of [1, 4, 7, 20])
      for (const stored of [0, 1, 7, 8, 20, 21])
        for (let taken = 0; taken <= stored + 2; taken++) {
          const there = byHand(stored, capacity, taken);
          const of = `${taken} of ${stored}, pot of ${capacity}`;
          expect(potLevel({ capacity, drills: stored }, taken), of).toBe(there.inPot);
          expect(potNow({ stored, capacity, laid: taken, trashShare: 0 }), of).toEqual({
            ...there,
            untilRefill: there.inBag > 0 ? there.inPot : null,
          });
        }
  });

  it('is nothing where a colour has no pot and lives in its bag', () => {
    expect(potNow({ stored: 900, capacity: 0, laid: 100, trashShare: 0 })).toEqual({
      ...{ inPot: 0, inBag: 800, untilRefill: null },
    });
    expect(potLevel({ capacity: 0, drills: 900 }, 100)).toBe(800);
  });

  it('has bad drills taken out with the good ones', () => {
    // One of twenty is bad: 95 laid took 100 out of it; of 300 in the pot 285 can be laid.
    expect(potNow({ stored: 900, capacity: 400, laid: 95, trashShare: 0.05 })).toEqual({
      ...{ inPot: 300, inBag: 500, untilRefill: 285 },
    });
    expect(goodLeft({ stored: 900, laid: 95, trashShare: 0.05 })).toBe(760);
    expect(goodLeft({ stored: 100, laid: 200, trashShare: 0 })).toBe(0);
  });
});

describe('the ledger of pots', () => {
  const row = (id: string, of: number, kind: PotEventKind, drills = 0, undoes: string | null = null) => ({
    ...{ id, line: of, kind, drills, undoes },
  });
  const rows = [
    row('a', 1, 'fill'),
    row('b', 2, 'fill'),
    row('c', 1, 'put away', 40),
    row('d', 2, 'put away', 25),
    row('e', 1, 'amount', 44),
    row('f', 2, 'amount', 9),
    row('g', 2, 'amount', 9, 'f'),
  ];

  it('tells what happened to a pot last, of what stands', () => {
    expect([1, 2, 3].map((of) => lastOfPot(rows, of)?.id ?? null)).toEqual(['e', 'd', null]);
  });

  it('tells the leftovers as they were said last; what was undone is as if it had not been', () => {
    expect([...putAwayDrills(rows)]).toEqual([
      [1, 44],
      [2, 25],
    ]);
    expect([...putAwayDrills([...rows, row('h', 2, 'put away', 25, 'd')])]).toEqual([[1, 44]]);
  });
});
