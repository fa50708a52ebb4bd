import { describe, expect, it } from 'vitest';
import {
  placeInWords,
  placeParts,
  placesInCodeOrder,
  potName,
  potsInCodeOrder,
  shortPlace,
} from '../../../src/core/codes/places';
import { drillsToStore, numberedBags } from '../../../src/core/kitup/amounts';
import { leftInWords, refillInWords, resultInWords } from '../../../src/core/kitup/planInWords';
import { coverFinder } from '../../../src/core/stash/cover';
import { stashInWords } from '../../../src/core/stash/has';
import { line } from '../samples';

describe('pots', () => {
  const legend = [line(1, { code: 'SH12' }), line(2, { code: '1204' }), line(3, { code: '98' })];

  it('are numbered in natural order of the codes while nothing is planned', () => {
    expect(potsInCodeOrder(legend).map(({ place, line: { code } }) => [place, code])).toEqual([
      ['pot 1', '98'],
      ['pot 2', '1204'],
      ['pot 3', 'SH12'],
    ]);
    expect(legend.map((each) => each.code)).toEqual(['SH12', '1204', '98']);
  });

  it('are called as they were planned', () => {
    const places = { 1: ['pot B3', 'pot B9'], 2: ['bag 1'], 3: ['pot A17'] };
    expect(potsInCodeOrder(legend, places).map(({ place }) => place)).toEqual([
      'pot A17',
      'bag 1',
      'pot B3, B9',
    ]);
    expect(placesInCodeOrder(legend, places).map(({ place }) => place)).toEqual([
      'pot A17',
      'bag 1',
      'pot B3',
      'pot B9',
    ]);
    expect(placeParts('pot B3, B9')).toEqual({ word: 'Pot', number: 'B3, B9' });
    expect(shortPlace('pot A17')).toBe('A17');
    expect(shortPlace('bag 1')).toBe('bag 1');
    expect(placeInWords('pot 5')).toBe('Pot 5');
    expect(placeParts('bag 12')).toEqual({ word: 'Bag', number: '12' });
    expect(potName(0, 1, 17)).toBe('pot 17');
    expect(potName(1, 2, 17)).toBe('pot B17');
  });
});

describe('what is to be stored', () => {
  const three = line(1, { neededDrills: 500, packets: 3 });
  it('is what the sheet promises, until the bags are counted', () => {
    expect(drillsToStore(three, { drills: 0, bags: 0 }, 200)).toBe(600);
    expect(drillsToStore(three, { drills: 200, bags: 1 }, 200)).toBe(600);
    expect(drillsToStore(three, { drills: 540, bags: 3 }, 200)).toBe(540);
    expect(drillsToStore(line(2, { neededDrills: 90, packets: 0 }), { drills: 0, bags: 0 }, 200)).toBe(90);
  });

  it('overflows into numbered bags, whole colours first', () => {
    const pots = [
      { line: 4, drills: 900, capacity: 500 },
      { line: 5, drills: 400, capacity: 500 },
      { line: 6, drills: 501, capacity: 500 },
    ];
    expect(numberedBags([{ line: 9, drills: 24 }], pots)).toEqual([
      { bag: 1, line: 9, drills: 24, whole: true },
      { bag: 2, line: 4, drills: 400, whole: false },
      { bag: 3, line: 6, drills: 1, whole: false },
    ]);
  });
});

describe('a plan in words', () => {
  it('says what was reached and whether better is possible', () => {
    expect(resultInWords({ goal: 'closes', value: 0, atLeast: 0 }, 48)).toBe(
      'Every colour fits into its pot.',
    );
    expect(resultInWords({ goal: 'overflow', value: 1240, atLeast: 1240 }, 48)).toBe(
      '1,240 drills in overflow bags. No plan does better.',
    );
    expect(resultInWords({ goal: 'neighbours', value: 2, atLeast: 1 }, 48)).toBe(
      '2 pairs side by side. Perhaps not the best: it might go down to 1.',
    );
    // √(400 ÷ 4) = 10 places.
    expect(resultInWords({ goal: 'order', value: 400, atLeast: 400 }, 4)).toContain(
      '10 places away from their place',
    );
    expect(resultInWords({ goal: 'order', value: 2, atLeast: 2 }, 40)).toContain('less than one place');
  });

  it('says why a colour stays in its bag, and when a pot runs empty', () => {
    expect(leftInWords('fewest drills', 24, 61, 200)).toBe('only 24 drills');
    expect(leftInWords('last used', 24, 61, 200)).toBe('not needed before section 61');
    expect(leftInWords('last used', 24, 0, 200)).toBe('only 24 drills');
    // What holds for all alike is no reason.
    expect(leftInWords('fewest drills', 1000, 0, 1000)).toBe('no pot is left for it');
    const refill = { line: 1, nth: 1, section: 12, laid: 485, workDone: 0.384, drills: 420 };
    expect(refillInWords(refill, 'Pot 17', 3)).toBe(
      'Pot 17 runs empty in section 12, 38 % into the work: 420 drills from bag 3.',
    );
    expect(refillInWords({ ...refill, section: null }, 'Pot 17', 3)).toContain('about 38 % into the work');
  });

  it('says what the stash has of a colour, the same or one that no eye tells apart', () => {
    const item = {
      id: 'x',
      code: '401',
      name: '',
      hex: '#2f6f8f',
      finish: 'plain',
      shape: 'square',
      drills: 145,
    } as const;
    expect(stashInWords(line(1), coverFinder([item], 'square'))).toBe(
      'The stash has 145 drills of 401 already.',
    );
    const lots = coverFinder(Array(6).fill(item), 'square');
    expect(stashInWords(line(1), lots)).toBe('The stash has 870 drills of 401 already.');
    expect(stashInWords(line(1), coverFinder([item], 'round'))).toBeNull();
    expect(stashInWords(line(1), coverFinder([{ ...item, code: '77', hex: '#306f8f' }], 'square'))).toContain(
      '145 drills of 77',
    );
    expect(
      stashInWords(line(1), coverFinder([{ ...item, code: '77', hex: '#ff0000' }], 'square')),
    ).toBeNull();
  });
});
