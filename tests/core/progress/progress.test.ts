import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { burnUp, leftPerLine, percentLaid } from '../../../src/core/progress/progress';
import { stageInWords, stageOf } from '../../../src/core/shelf/stage';
import { chartOfRows } from '../samples';

describe('percent laid', () => {
  it.each([
    [0, 19_200, 0],
    [7895, 19_200, 41.11],
    [19_199, 19_200, 99.99],
    [19_200, 19_200, 100],
    [800, 400_000, 0.2],
    [29, 100, 29],
    [0, 0, 0],
  ])('%i of %i', (laid, total, percent) => expect(percentLaid(laid, total)).toBe(percent));

  it('says 100 only when all is laid', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 0, max: 1e6 }), (total, laid) => {
        expect(percentLaid(Math.min(laid, total), total) === 100).toBe(laid >= total);
      }),
    );
  });
});

describe('what is left', () => {
  it('per colour, bare cells apart', () => {
    const laid = emptyBitmap(6);
    setLaid(laid, 0, true);
    expect([...leftPerLine(chartOfRows('11.', '232'), laid, 3)]).toEqual([0, 1, 2, 1]);
  });
});

describe('burn-up', () => {
  it('adds day to day, in order, and counts lifting against laying', () => {
    expect(
      burnUp([
        { day: '2026-03-02', drills: -30 },
        { day: '2026-02-27', drills: 100 },
        { day: '2026-03-01', drills: 50 },
      ]),
    ).toEqual([
      { day: '2026-02-27', total: 100 },
      { day: '2026-03-01', total: 150 },
      { day: '2026-03-02', total: 120 },
    ]);
  });
});

describe('stage of work', () => {
  const facts = { colours: 3, bagsCounted: 0, bagsToFind: 5, kittedUp: false, laid: 0, drills: 100 };

  it.each([
    [{ ...facts, colours: 0, bagsToFind: 0 }, 'sheet', 'Waiting for its colour list'],
    [facts, 'checkin', 'Just arrived, bags to check in'],
    [{ ...facts, bagsCounted: 4, bagsToFind: 1 }, 'checkin', 'Checking in, 1 bag to find'],
    [{ ...facts, bagsCounted: 5, bagsToFind: 0 }, 'kitup', 'All bags are here, ready for kit-up'],
    [{ ...facts, bagsCounted: 5, bagsToFind: 0, kittedUp: true }, 'lay', 'Ready to lay'],
    [{ ...facts, laid: 1 }, 'bench', 'On the bench'],
    [{ ...facts, laid: 100 }, 'finish', 'All laid'],
    [{ ...facts, colours: 0, laid: 0, drills: 0 }, 'sheet', 'Waiting for its colour list'],
  ])('follows from %j', (given, stage, words) => {
    expect(stageOf(given)).toBe(stage);
    expect(stageInWords(stageOf(given), given)).toBe(words);
  });
});
