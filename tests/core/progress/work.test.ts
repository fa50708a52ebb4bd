import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyMark, changedCells } from '../../../src/core/bench/marking';
import { type Bitmap, countLaid, emptyBitmap } from '../../../src/core/cells/bitmap';
import { runsFromCells } from '../../../src/core/cells/cellRuns';
import { makeChart } from '../../../src/core/cells/chart';
import { USUAL_SECONDS } from '../../../src/core/pace/timeModel';
import { cellWork } from '../../../src/core/progress/cellWork';
import { changesByDay, laidAt } from '../../../src/core/progress/laidByDay';
import {
  paceByHour,
  paceByKind,
  paceBySitting,
  paceByTip,
  paceOfAll,
  trendInWords,
  trendOf,
} from '../../../src/core/progress/pace';
import { runningOut } from '../../../src/core/progress/runningOut';
import { tickedLaid } from '../../../src/core/progress/tickedLaid';
import { weekPage } from '../../../src/core/progress/weekPage';
import { makeSection } from '../../../src/core/sections/section';
import { addDays } from '../../../src/core/words/calendar';
import { chartOfRows, line } from '../samples';

describe('the work in a square', () => {
  const whole = [{ x: 0, y: 0, width: 4, height: 3 }];
  const chart = chartOfRows('1111', '2131', '....');
  // By hand: opening a colour 45 s, a bar of two to five 4 s, a single 2.8 s, confetti 1.2 s (USUAL_SECONDS).
  it('is its share of the bar, of opening its colour, and of the hunt', () => {
    const work = cellWork(chart, whole, 4, USUAL_SECONDS);
    const opening = 45 / 6;
    expect([...work.slice(0, 4)].map((seconds) => seconds - opening)).toEqual(
      [1, 1, 1, 1].map((s) => expect.closeTo(s, 4)),
    );
    // Alone in its row, but with a neighbour above: half of a bar of two.
    expect(work[5]! - opening).toBeCloseTo(2, 4);
    // Confetti: a single, the hunt, and a pot that is opened for it alone.
    expect(work[4]).toBeCloseTo(2.8 + 1.2 + 45, 4);
    expect([...work.slice(8)]).toEqual([0, 0, 0, 0]);
  });

  it('never grows with a wider bar', () => {
    fc.assert(
      fc.property(fc.uint16Array({ minLength: 60, maxLength: 60, max: 3, size: 'max' }), (lines) => {
        const any = makeChart(10, 6, lines);
        const all = [{ x: 0, y: 0, width: 10, height: 6 }];
        const sum = (widest: number) => cellWork(any, all, widest, USUAL_SECONDS).reduce((a, b) => a + b, 0);
        expect(sum(4)).toBeLessThanOrEqual(sum(2) + 1e-3);
        expect(sum(2)).toBeLessThanOrEqual(sum(1) + 1e-3);
      }),
    );
  });
});

describe('what days changed', () => {
  const cells = 90;
  const lines = new Uint16Array(cells).fill(1);
  const marks = fc.array(
    fc.record({
      kind: fc.constantFrom('lay' as const, 'lift' as const),
      on: fc.uniqueArray(fc.nat(cells - 1), { maxLength: 12 }),
      later: fc.nat(2),
    }),
    { maxLength: 40, size: 'max' },
  );

  it('gives back the canvas at the end of every day', () => {
    fc.assert(
      fc.property(marks, (wished) => {
        const laid = emptyBitmap(cells);
        const ends = new Map<string, Bitmap>();
        let day = '2026-03-28';
        const ledger = wished.map(({ kind, on, later }) => {
          day = addDays(day, later);
          const runs = changedCells({ lines, laid }, kind, runsFromCells(on));
          applyMark(laid, kind, runs);
          ends.set(day, laid.slice());
          return { day, kind, runs };
        });
        const days = changesByDay(ledger, cells);
        for (const [end, bitmap] of ends) expect(laidAt(days, end, cells)).toEqual(bitmap);
        expect(countLaid(laidAt(days, null, cells))).toBe(0);
        expect(laidAt(days, '2999-01-01', cells)).toEqual(laid);
      }),
    );
  });

  it('has what waited on a device in its own day, and ends as the ledger does', () => {
    const [friday, saturday] = ['2026-05-01', '2026-05-02'];
    const lay = (day: string, cell: number) => ({ day, kind: 'lay' as const, runs: [cell, 1] });
    // On Saturday the desk lays one and lifts another; then comes what the tablet laid on Friday.
    const ledger = [
      lay(friday, 4),
      lay(saturday, 1),
      { day: saturday, kind: 'lift' as const, runs: [4, 1] },
      lay(friday, 2),
      lay(friday, 4),
    ];
    expect(changesByDay(ledger, 8)).toEqual([
      { day: friday, laid: [2, 1, 4, 1], lifted: [] },
      { day: saturday, laid: [1, 1], lifted: [] },
    ]);
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(3), fc.nat(7), fc.boolean())), (told) => {
        const marks = told.map(([day, cell, lays]) => ({
          day: addDays(friday, day),
          kind: lays ? ('lay' as const) : ('lift' as const),
          runs: [cell, 1],
        }));
        const laid = emptyBitmap(8);
        for (const { kind, runs } of marks) applyMark(laid, kind, runs);
        expect(laidAt(changesByDay(marks, 8), '2999-01-01', 8)).toEqual(laid);
      }),
    );
  });
});

describe('the pace', () => {
  const sitting = (
    startedAt: string,
    minutes: number,
    drills: number,
    confetti = 0,
    placements: { drills: number; seconds: number }[] = [],
  ) => ({ startedAt, minutes, drills, confetti, placements });

  it('is drills an hour, oldest first, without presses too much', () => {
    expect(
      paceBySitting([
        sitting('2026-01-02T20:00:00Z', 30, 300),
        sitting('2026-01-01T20:00:00Z', 60, 300),
        sitting('2026-01-03T20:00:00Z', 1, 300),
        sitting('2026-01-03T20:00:00Z', 60, 2),
      ]),
    ).toEqual([
      { startedAt: '2026-01-01T20:00:00Z', drillsAnHour: 300 },
      { startedAt: '2026-01-02T20:00:00Z', drillsAnHour: 600 },
    ]);
  });
  it('of all sittings is all drills over all hours, not the mean of means', () => {
    expect(
      paceOfAll([sitting('2026-01-01T20:00:00Z', 60, 300), sitting('2026-01-02T20:00:00Z', 20, 300)]),
    ).toBe(450);
    expect(paceOfAll([sitting('2026-01-01T20:00:00Z', 1, 300)])).toBeNull();
    expect(trendInWords(12, 600)).toBe('quicker by about 12 with each sitting');
    expect(trendInWords(-0.2, 30)).toBe('slower by about 1 with each sitting');
    expect(trendInWords(2, 600)).toBe('steady');
  });
  it('has a trend that one odd sitting does not bend', () => {
    const steady = [100, 110, 120, 130, 140, 150, 160].map((drillsAnHour) => ({ drillsAnHour }));
    expect(trendOf(steady)).toBe(10);
    expect(trendOf([...steady.slice(0, 3), { drillsAnHour: 2000 }, ...steady.slice(4)])).toBe(10);
    expect(trendOf(steady.slice(0, 4))).toBeNull();
  });
  it('is told by kind and hour once there are four sittings of it', () => {
    const many = [1, 2, 3, 4].map((day) => sitting(`2026-01-0${day}T20:00:00Z`, 60, 600, 30));
    const confetti = [5, 6, 7, 8].map((day) => sitting(`2026-01-0${day}T09:00:00Z`, 60, 200, 120));
    expect(paceByKind([...many, ...confetti])).toEqual([
      { name: 'Mostly colour blocks', drillsAnHour: 600, from: 4 },
      { name: 'Mostly confetti', drillsAnHour: 200, from: 4 },
    ]);
    expect(paceByKind(many.slice(1))).toEqual([]);
    expect(
      paceByHour([...many, ...confetti], (moment) => Number(moment.slice(11, 13))).map(({ name }) => name),
    ).toEqual(['In the evening (18 to 24)', 'In the morning (6 to 12)']);
  });
  it('by bar is that of the median placement', () => {
    const placements = Array.from({ length: 21 }, (_, i) => ({ drills: 6, seconds: i === 0 ? 59 : 6 }));
    expect(paceByTip([sitting('2026-01-01T20:00:00Z', 60, 126, 0, placements)])).toEqual([
      { name: 'Bars of 6', drillsAnHour: 3600, from: 21 },
    ]);
    expect(paceByTip([sitting('2026-01-01T20:00:00Z', 60, 60, 0, placements.slice(0, 10))])).toEqual([]);
  });
});

describe('what may run out', () => {
  const supply = (number: number, chance: number, lastsUntilSection: number | null) =>
    ({ line: number, neededDrills: 400, suppliedDrills: 400, chance, lastsUntilSection }) as Parameters<
      typeof runningOut
    >[0][number];

  it('is told with where and when, the likeliest first, and urgent while a letter still helps', () => {
    const found = runningOut(
      [supply(1, 0.3, 9), supply(2, 0.9, 3), supply(3, 0.01, null), supply(4, 0.8, null)],
      (number) => (number === 4 ? 0 : 100),
      0.03,
      (section) => section * 10,
      '2026-01-01',
    );
    expect(found.map((each) => each.line)).toEqual([2, 1]);
    expect(found[0]).toMatchObject({ section: 3, day: '2026-01-31', urgent: false, left: 100, goodLeft: 88 });
    expect(
      runningOut(
        [supply(1, 0.3, 2)],
        () => 5,
        0.03,
        (section) => section * 10,
        '2026-01-01',
      )[0]!.urgent,
    ).toBe(true);
    expect(
      runningOut(
        [supply(1, 0.3, null)],
        () => 5,
        0.03,
        () => null,
        '2026-01-01',
      )[0],
    ).toMatchObject({ day: null, urgent: true });
  });
});

describe('what is laid without a chart', () => {
  const sections = [0, 1, 2, 3].map((i) => makeSection(i + 1, [{ x: 10 * i, y: 0, width: 10, height: 10 }]));
  const legend = [line(1, { neededDrills: 300 }), line(2, { neededDrills: 100 })];

  it('follows from what was ticked, and is sure only where whole sections are laid', () => {
    expect(tickedLaid([], sections, [1, 0.5, 0, 0], legend, 400)).toEqual({
      expected: 150,
      low: 150,
      high: 150,
    });
    const ticked = tickedLaid([{ line: 1, section: 3 }], sections, [0, 0, 0, 0], legend, 400);
    expect(ticked.expected).toBe(75);
    expect(ticked.low).toBeLessThan(75);
    expect(ticked.high).toBeGreaterThan(75);
    // All colours ticked are all of the section, however much was ticked by area.
    expect(
      tickedLaid(
        [
          { line: 1, section: 3 },
          { line: 2, section: 3 },
        ],
        sections,
        [0, 0, 0.3, 0],
        legend,
        400,
      ).expected,
    ).toBe(100);
    expect(tickedLaid([{ line: 1, section: 1 }], sections, [0, 0, 0, 0], [], 400)).toEqual({
      expected: 0,
      low: 0,
      high: 0,
    });
  });

  it('holds the truth of charts in patches about four times in five', () => {
    // Colours in patches of 3 × 3 on 40 × 40 squares, by a generator with a seed.
    let state = 7;
    const next = () => {
      state = (state * 1103515245 + 12345) % 2147483648;
      return state / 2147483648;
    };
    let within = 0;
    for (let trial = 0; trial < 300; trial++) {
      const patches = Array.from({ length: 14 * 14 }, () => 1 + Math.floor(next() * 6));
      const colourAt = (x: number, y: number) => patches[Math.floor(y / 3) * 14 + Math.floor(x / 3)]!;
      const counts = new Array<number>(7).fill(0);
      for (let y = 0; y < 40; y++) for (let x = 0; x < 40; x++) counts[colourAt(x, y)]!++;
      const list = counts.slice(1).map((neededDrills, i) => line(i + 1, { neededDrills }));
      const cuts = Array.from({ length: 16 }, (_, i) =>
        makeSection(i + 1, [{ x: 10 * (i % 4), y: 10 * (i >> 2), width: 10, height: 10 }]),
      );
      const ticks = cuts
        .slice(0, 8)
        .flatMap(({ number }) => [1, 2, 3].map((each) => ({ line: each, section: number })));
      let truth = 0;
      for (let y = 0; y < 20; y++) for (let x = 0; x < 40; x++) if (colourAt(x, y) <= 3) truth++;
      const { low, high } = tickedLaid(ticks, cuts, new Array<number>(16).fill(0), list, 1600);
      if (truth >= low && truth <= high) within++;
    }
    // Wider rather than narrower: patches of other sizes are common.
    expect(within / 300).toBeGreaterThan(0.75);
  });
});

describe('the week on paper', () => {
  it('names its seven days, its sum and its sittings', () => {
    const [page] = weekPage(
      { title: 'Test', date: 'today', paper: 'a4' },
      {
        days: [
          { day: '2026-11-22', drills: 999 },
          { day: '2026-11-23', drills: 120 },
          { day: '2026-11-29', drills: 80 },
        ],
        sittings: [
          {
            day: '2026-11-23',
            startedAt: '2026-11-23T20:00:00Z',
            endedAt: '2026-11-23T21:00:00Z',
            drills: 120,
            note: 'Calm',
          },
        ],
        laid: 200,
        drills: 400,
        forecast: { early: '2027-01-01', likely: '2027-01-15', late: '2027-02-01' },
      },
      '2026-11-25',
    );
    const words = page!.marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
    expect(words).toContain('200 drills in this week');
    expect(words).toContain('Monday 23 November');
    expect(words).toContain('Sunday 29 November');
    expect(words.some((text) => text.includes('60 minutes, 120 drills. Calm'))).toBe(true);
    expect(words.some((text) => text.includes('999'))).toBe(false);
  });

  it('has whole notes, and says how many sittings have no room on it', () => {
    const note = Array.from({ length: 40 }, (_, i) => `word${i}`).join(' ');
    const sitting = (hour: number, words: string) => ({
      ...{ day: '2026-11-23', startedAt: `2026-11-23T${hour}:00:00Z`, endedAt: `2026-11-23T${hour}:30:00Z` },
      ...{ drills: 5, note: words },
    });
    const texts = (sittings: ReturnType<typeof sitting>[]) => {
      const facts = { days: [], sittings, laid: 0, drills: 9, forecast: null };
      const [page] = weekPage({ title: 'Test', date: 'today', paper: 'letter' }, facts, '2026-11-25');
      for (const mark of page!.marks) if (mark.kind === 'text') expect(mark.y).toBeLessThan(279.4 - 13);
      return page!.marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
    };
    expect(
      texts([sitting(10, note)])
        .join(' ')
        .replace(/ +/g, ' '),
    ).toContain(note);
    const many = texts(Array.from({ length: 14 }, (_, i) => sitting(10 + i, note)));
    const shown = many.filter((text) => text.startsWith('Monday 23 November:')).length;
    expect(shown).toBeGreaterThan(3);
    expect(many.at(-1)).toBe(`and ${14 - shown} sittings more`);
    expect(texts(Array.from({ length: 8 }, (_, i) => sitting(10 + i, 'Calm'))).at(-1)).toContain('Calm');
  });
});
