import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clockFace, clockWishOf, dueReminders, forgottenSince } from '../../../src/core/bench/clock';
import { comfortOf, nextPace, USUAL_COMFORT } from '../../../src/core/bench/comfort';
import { crossHairInWords } from '../../../src/core/bench/crossHair';
import { colourInWords, rowBeside, rowInWords, rowsToLay } from '../../../src/core/bench/runsToSay';
import { overlappingSittings, splitSitting } from '../../../src/core/bench/sitting';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { makeChart } from '../../../src/core/cells/chart';
import { potNow, potNowInWords } from '../../../src/core/kitup/potNow';
import { chartOfRows } from '../samples';

describe('rows that are called out', () => {
  const chart = chartOfRows('1121111', '2222222', '.111..2');
  const section = { x: 0, y: 0, width: 7, height: 3 };

  it('are runs with the gaps between, from the hand that works', () => {
    const rows = rowsToLay(chart, emptyBitmap(21), section, 1);
    expect(rows.map(({ y, drills }) => [y, drills])).toEqual([
      [0, 6],
      [2, 3],
    ]);
    expect(rowInWords(rows[0]!, 'right')).toBe('Row 1, from column 1: 2, gap 1, 4.');
    expect(rowInWords(rows[0]!, 'left')).toBe('Row 1, from column 7: 4, gap 1, 2.');
    expect(rowInWords(rows[1]!, 'right')).toBe('Row 3, from column 2: 3.');
  });

  it('leave out what is laid, and what another section has', () => {
    const laid = emptyBitmap(21);
    setLaid(laid, 4, true);
    const [row] = rowsToLay(chart, laid, { ...section, width: 6 }, 1);
    expect(row).toEqual({
      y: 0,
      runs: [
        { x: 0, length: 2 },
        { x: 3, length: 1 },
        { x: 5, length: 1 },
      ],
      drills: 4,
    });
  });

  it('name every drill that is left exactly once', () => {
    const cells = fc.uint16Array({ minLength: 48, maxLength: 48, max: 3, size: 'max' });
    fc.assert(
      fc.property(cells, fc.uniqueArray(fc.nat(47), { maxLength: 48, size: 'max' }), (lines, done) => {
        const any = makeChart(8, 6, lines);
        const laid = emptyBitmap(48);
        for (const cell of done) setLaid(laid, cell, true);
        const rows = rowsToLay(any, laid, { x: 0, y: 0, width: 8, height: 6 }, 2);
        const named = rows.flatMap(({ y, runs }) =>
          runs.flatMap(({ x, length }) => Array.from({ length }, (_, i) => y * 8 + x + i)),
        );
        const wanted = [...lines.keys()].filter((cell) => lines[cell] === 2 && !done.includes(cell));
        expect(named).toEqual(wanted);
        for (const row of rows) {
          const counts = rowInWords(row, 'right')
            .split(': ')[1]!
            .match(/(?<!gap )\b\d+/g)!
            .map(Number);
          expect(counts.reduce((a, b) => a + b)).toBe(row.drills);
        }
      }),
    );
  });

  it('follow one another, and end at both ends', () => {
    const rows = rowsToLay(chart, emptyBitmap(21), section, 1);
    expect(rowBeside(rows, null, 1)?.y).toBe(0);
    expect(rowBeside(rows, 0, 1)?.y).toBe(2);
    expect(rowBeside(rows, 1, -1)?.y).toBe(0);
    expect(rowBeside(rows, 2, 1)).toBeNull();
    expect(rowBeside(rows, 0, -1)).toBeNull();
  });

  it('begin with the pot, and the code figure by figure', () =>
    expect(colourInWords('Pot 11', '755', 'Field moss', 1)).toBe('Pot 11, 7 5 5, Field moss: 1 drill.'));
});

describe('the cross-hair', () => {
  // 2.5 mm pitch: squares ÷ 4 = cm; edge marks every 50 squares (common practice, no source).
  it.each([
    [
      52,
      10,
      'Column 53, row 11: 13.1 cm from the left (3 squares past mark 50), 2.6 cm from the top (square 11 from the upper edge).',
    ],
    [49, 99, 'Column 50, row 100: 12.4 cm from the left (at mark 50), 24.9 cm from the top (at mark 100).'],
    [
      48,
      0,
      'Column 49, row 1: 12.1 cm from the left (1 square before mark 50), 0.1 cm from the top (square 1 from the upper edge).',
    ],
  ])('at %i, %i', (x, y, words) => expect(crossHairInWords({ x, y }, { pitchMm: 2.5 })).toBe(words));
});

describe('what a pot still holds', () => {
  it('is what was filled in less what was laid and the bad ones among that', () => {
    expect(potNow({ stored: 900, capacity: 400, laid: 100, trashShare: 0 })).toEqual({
      inPot: 300,
      inBag: 500,
      untilRefill: 300,
    });
    expect(potNow({ stored: 300, capacity: 400, laid: 97, trashShare: 0.03 })).toEqual({
      inPot: 200,
      inBag: 0,
      untilRefill: null,
    });
  });
  it('goes on after it was filled again from its bag', () => {
    expect(potNow({ stored: 900, capacity: 400, laid: 450, trashShare: 0 })).toEqual({
      inPot: 350,
      inBag: 100,
      untilRefill: 350,
    });
    expect(potNow({ stored: 900, capacity: 400, laid: 850, trashShare: 0 })).toEqual({
      inPot: 50,
      inBag: 0,
      untilRefill: null,
    });
  });
  it('never falls below nothing, and never holds more than was there', () => {
    fc.assert(
      fc.property(
        fc.nat(5000),
        fc.nat(800),
        fc.nat(6000),
        fc.integer({ min: 0, max: 30 }),
        (stored, capacity, laid, bad) => {
          const now = potNow({ stored, capacity, laid, trashShare: bad / 100 });
          expect(Math.min(now.inPot, now.inBag)).toBeGreaterThanOrEqual(0);
          expect(now.inPot + now.inBag).toBeLessThanOrEqual(stored);
          expect(now.inPot).toBeLessThanOrEqual(capacity);
        },
      ),
    );
  });
  it('is told with the bag once it is due here', () => {
    expect(potNowInWords({ inPot: 100, inBag: 500, untilRefill: 97 }, 3, 195)).toBe(
      'About 100 in the pot: fill up from bag 3 after 97 drills more.',
    );
    expect(potNowInWords({ inPot: 300, inBag: 500, untilRefill: 291 }, 3, 195)).toBe(
      'About 300 in the pot, 500 in bag 3.',
    );
    expect(potNowInWords({ inPot: 0, inBag: 0, untilRefill: null }, null, 5)).toBe(
      'By the count nothing is left of it.',
    );
  });
});

describe('the clock of a sitting', () => {
  const start = new Date('2026-11-27T19:00:00Z');
  const later = (minutes: number) => new Date(start.getTime() + minutes * 60_000);
  const today = (time: string) => new Date(`2026-11-27T${time}:00Z`);
  const due = (minutes: number, wish: Parameters<typeof dueReminders>[2], more = 0, told: string[] = []) =>
    dueReminders(start, later(minutes), wish, more, new Set(told), today).map(({ key }) => key);

  it('chimes at the chosen length, once, and ten minutes later when asked', () => {
    const wish = { minutes: 45, stopAt: null, rest: null };
    expect(due(44, wish)).toEqual([]);
    expect(due(45, wish)).toEqual(['length 45']);
    expect(due(46, wish, 0, ['length 45'])).toEqual([]);
    expect(due(46, wish, 10)).toEqual([]);
    expect(due(55, wish, 10)).toEqual(['length 55']);
  });
  it('tells the time to stop, tomorrow where it has passed today', () => {
    expect(due(209, { minutes: null, stopAt: '22:30', rest: null })).toEqual([]);
    expect(due(210, { minutes: null, stopAt: '22:30', rest: null })).toEqual(['stop 22:30 0']);
    expect(due(30, { minutes: null, stopAt: '18:30', rest: null })).toEqual([]);
  });
  it('reminds of rests in turn, the newest alone', () => {
    const wish = { minutes: null, stopAt: null, rest: 20 };
    expect(due(19, wish)).toEqual([]);
    expect(due(45, wish)).toEqual(['rest 2']);
    expect(due(45, wish, 0, ['rest 2'])).toEqual([]);
  });
  it('says nothing hours later, after the screen slept', () =>
    expect(due(200, { minutes: 45, stopAt: null, rest: null })).toEqual([]));
  it('keeps sensible wishes only', () => {
    expect(clockWishOf('{"minutes":30,"stopAt":"22:30","rest":-2}')).toEqual({
      minutes: 30,
      stopAt: '22:30',
      rest: null,
    });
    expect(clockWishOf('{"stopAt":"25:00"}').stopAt).toBeNull();
    expect(clockWishOf('no JSON')).toEqual({ minutes: null, stopAt: null, rest: null });
  });
  it('shows hours once there are any', () => {
    expect(clockFace(309)).toBe('5:09');
    expect(clockFace(3909)).toBe('1:05:09');
  });
  it('notices a timer that was forgotten, and where it probably ended', () => {
    const running = { startedAt: start.toISOString(), endedAt: null };
    expect(forgottenSince(running, later(20).toISOString(), later(70))).toBeNull();
    expect(forgottenSince(running, later(20).toISOString(), later(600))).toEqual(later(25));
    expect(forgottenSince(running, null, later(600))).toEqual(later(5));
    expect(forgottenSince({ ...running, endedAt: later(10).toISOString() }, null, later(600))).toBeNull();
  });
});

describe('sittings', () => {
  const sitting = (id: string, startedAt: string, endedAt: string | null) => ({ id, startedAt, endedAt });
  it('that lie over one another are found, also inside a long one', () => {
    const all = [
      sitting('c', '2026-01-01T12:00:00Z', '2026-01-01T13:00:00Z'),
      sitting('a', '2026-01-01T08:00:00Z', '2026-01-01T14:00:00Z'),
      sitting('b', '2026-01-01T09:00:00Z', '2026-01-01T10:00:00Z'),
      sitting('d', '2026-01-01T14:00:00Z', null),
    ];
    expect(overlappingSittings(all).map(([first, second]) => [first.id, second.id])).toEqual([
      ['a', 'b'],
      ['a', 'c'],
    ]);
  });
  it('are parted by a pause that lies within', () => {
    const times = { startedAt: '2026-01-01T22:00:00.000Z', endedAt: '2026-01-02T02:00:00.000Z' };
    expect(splitSitting(times, '2026-01-01T23:30:00Z', '2026-01-02T01:00:00Z')).toEqual([
      { startedAt: times.startedAt, endedAt: '2026-01-01T23:30:00.000Z' },
      { startedAt: '2026-01-02T01:00:00.000Z', endedAt: times.endedAt },
    ]);
    expect(() => splitSitting(times, '2026-01-02T01:00:00Z', '2026-01-01T23:30:00Z')).toThrow(
      'within the sitting',
    );
    expect(() => splitSitting(times, '2026-01-01T22:00:00Z', '2026-01-01T23:30:00Z')).toThrow(
      'within the sitting',
    );
    expect(() => splitSitting({ ...times, endedAt: null }, '', '')).toThrow('Stop it first');
    expect(() => splitSitting(times, 'nonsense', '')).toThrow('both ends of the pause');
  });
});

describe('what suits eyes and hands', () => {
  it('is kept as far as it makes sense', () => {
    expect(comfortOf(null)).toEqual(USUAL_COMFORT);
    expect(comfortOf('"text"')).toEqual(USUAL_COMFORT);
    expect(comfortOf('{"symbols":"large","slip":"up","voice":1,"pace":"quick"}')).toEqual({
      ...USUAL_COMFORT,
      symbols: 'large',
      pace: 'quick',
    });
  });
  it('goes round the paces of the voice', () => {
    expect(['slow', 'usual', 'quick'].map((pace) => nextPace(pace as 'slow'))).toEqual([
      'usual',
      'quick',
      'slow',
    ]);
  });
});
