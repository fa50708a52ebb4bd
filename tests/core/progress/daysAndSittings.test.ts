import { describe, expect, it } from 'vitest';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { USUAL_SECONDS } from '../../../src/core/pace/timeModel';
import { cellWork } from '../../../src/core/progress/cellWork';
import { dayChanges, progressWork, type WorkTask } from '../../../src/core/progress/work';
import { chartOfRows } from '../samples';
import { packed } from './packed';

// Two sections of 4 × 2 squares, the right one first in the order of the work; line 3 is confetti.
const chart = chartOfRows('11112222', '1131222.');
const sections = [
  { number: 2, x: 4, y: 0, width: 4, height: 2 },
  { number: 1, x: 0, y: 0, width: 4, height: 2 },
];
const at = (time: string) => `2026-05-02T${time}.000Z`;

function taskOf(marks: Parameters<typeof packed>[0], more: Partial<WorkTask> = {}): WorkTask {
  const laid = emptyBitmap(16);
  for (const { kind, runs } of marks) {
    for (let i = 0; i < runs.length; i += 2) {
      for (let cell = runs[i]!; cell < Math.min(16, runs[i]! + runs[i + 1]!); cell++)
        setLaid(laid, cell, kind === 'lay');
    }
  }
  return {
    chart,
    hasChart: true,
    laid,
    sections,
    widest: 4,
    seconds: USUAL_SECONDS,
    plainSeconds: 6,
    marks: packed(marks),
    sittings: [],
    zone: 'UTC',
    today: '2026-05-03',
    ...more,
  };
}

describe('what each day did', () => {
  it('is what was laid less what was lifted, in minutes of work too, by the day of the zone', () => {
    const work = cellWork(chart, sections, 4, USUAL_SECONDS);
    const minutes = (...cells: number[]) => cells.reduce((sum, cell) => sum + work[cell]! / 60, 0);
    const marks = [
      { at: at('22:30:00'), kind: 'lay' as const, runs: [0, 3, 8, 2] },
      { at: at('22:40:00'), kind: 'lift' as const, runs: [1, 1] },
      { at: at('23:30:00'), kind: 'lay' as const, runs: [10, 1] },
    ];
    expect(progressWork(taskOf(marks)).days).toEqual([
      { day: '2026-05-02', drills: 5, minutes: expect.closeTo(minutes(0, 2, 8, 9, 10), 4) },
    ]);
    // One hour on, the last mark is of the next day.
    expect(progressWork(taskOf(marks, { zone: 'Europe/Lisbon' })).days).toEqual([
      { day: '2026-05-02', drills: 4, minutes: expect.closeTo(minutes(0, 2, 8, 9), 4) },
      { day: '2026-05-03', drills: 1, minutes: expect.closeTo(minutes(10), 4) },
    ]);
  });

  it('comes in the order of the days, whatever the order of the marks', () => {
    const marks = [
      { at: '2026-05-03T10:00:00.000Z', kind: 'lay' as const, runs: [0, 1] },
      { at: '2026-04-30T10:00:00.000Z', kind: 'lay' as const, runs: [1, 1] },
    ];
    expect(progressWork(taskOf(marks)).days.map(({ day }) => day)).toEqual(['2026-04-30', '2026-05-03']);
  });

  it('leaves out what lies beyond the canvas, as it may once it was made smaller', () => {
    const marks = [{ at: at('10:00:00'), kind: 'lay' as const, runs: [14, 5] }];
    expect(progressWork(taskOf(marks)).days).toEqual([
      expect.objectContaining({ day: '2026-05-02', drills: 2 }),
    ]);
  });
});

describe('what is left', () => {
  it('is counted up to the end of each section, in the order of the work', () => {
    const work = cellWork(chart, sections, 4, USUAL_SECONDS);
    const marks = [{ at: at('10:00:00'), kind: 'lay' as const, runs: [4, 3, 0, 2] }];
    const { minutesLeft, untilSection, foretold } = progressWork(taskOf(marks));
    const right = [7, 12, 13, 14].reduce((sum, cell) => sum + work[cell]! / 60, 0);
    const left = [2, 3, 8, 9, 10, 11].reduce((sum, cell) => sum + work[cell]! / 60, 0);
    expect(untilSection).toEqual([
      { number: 2, minutes: expect.closeTo(right, 4) },
      { number: 1, minutes: expect.closeTo(right + left, 4) },
    ]);
    expect(minutesLeft).toBe(untilSection[1]!.minutes);
    expect(foretold).not.toBeNull();
  });

  it('counts the squares of a section of several rectangles, each once', () => {
    const corner = {
      number: 1,
      x: 0,
      y: 0,
      width: 4,
      height: 2,
      rects: [
        { x: 0, y: 0, width: 4, height: 1 },
        { x: 0, y: 1, width: 1, height: 1 },
      ],
    };
    const plain = { hasChart: false, sections: [corner] };
    // Five squares of six seconds.
    expect(progressWork(taskOf([], plain)).minutesLeft).toBeCloseTo(0.5, 6);
    expect(
      progressWork(taskOf([{ at: at('10:00:00'), kind: 'lay', runs: [0, 2] }], plain)).minutesLeft,
    ).toBeCloseTo(0.3, 6);
  });

  it('is the same for every square that wants a drill where there is no chart', () => {
    const marks = [{ at: at('10:00:00'), kind: 'lay' as const, runs: [0, 5] }];
    const { days, minutesLeft } = progressWork(taskOf(marks, { hasChart: false }));
    expect(days).toEqual([{ day: '2026-05-02', drills: 5, minutes: expect.closeTo(0.5, 6) }]);
    // Fifteen of sixteen want one.
    expect(minutesLeft).toBeCloseTo(1, 6);
  });

  it('foretells nothing once all is laid', () => {
    const marks = [{ at: at('10:00:00'), kind: 'lay' as const, runs: [0, 15] }];
    expect(progressWork(taskOf(marks))).toMatchObject({ minutesLeft: 0, foretold: null });
  });
});

describe('the pace of a sitting', () => {
  const sittings = [
    { id: 'one', startedAt: at('10:00:00'), minutes: 30 },
    { id: 'two', startedAt: at('20:00:00'), minutes: 5 },
  ];
  const lay = (time: string, runs: number[], sitting = 'one') => ({
    at: at(time),
    kind: 'lay' as const,
    runs,
    sitting,
  });

  it('counts its own marks, and as placements those that follow within a minute', () => {
    const marks = [
      lay('10:00:10', [0, 4]),
      lay('10:00:14', [8, 2]),
      // Later than a minute: a break, and no slow placement.
      lay('10:01:15', [11, 1]),
      lay('10:02:15', [10, 1]),
      { ...lay('10:02:20', [10, 1]), kind: 'lift' as const },
      lay('10:02:22', [10, 1]),
      // Nobody’s, and of a sitting that still goes on.
      { at: at('12:00:00'), kind: 'lay' as const, runs: [4, 1] },
      lay('12:00:02', [5, 1], 'three'),
      lay('20:00:01', [6, 2], 'two'),
    ];
    const { sittings: paces } = progressWork(taskOf(marks, { sittings }));
    expect(paces).toEqual([
      {
        startedAt: at('10:00:00'),
        minutes: 30,
        drills: 8,
        confetti: 1,
        placements: [
          { drills: 2, seconds: 4 },
          { drills: 1, seconds: 60 },
          { drills: 1, seconds: 2 },
        ],
      },
      { startedAt: at('20:00:00'), minutes: 5, drills: 2, confetti: 0, placements: [] },
    ]);
  });

  it('takes nothing wider than the longest bar for one placement', () => {
    const row = chartOfRows('1'.repeat(16), '1'.repeat(16));
    const sixteen = { chart: row, sections: [{ number: 1, x: 0, y: 0, width: 16, height: 2 }], sittings };
    const marks = [lay('10:00:00', [0, 1]), lay('10:00:10', [1, 15]), lay('10:00:20', [16, 16])];
    const { sittings: paces } = progressWork({
      ...taskOf([]),
      ...sixteen,
      laid: emptyBitmap(32),
      marks: packed(marks),
    });
    expect(paces[0]!.placements).toEqual([{ drills: 15, seconds: 10 }]);
    expect(paces[0]!.drills).toBe(32);
  });

  it('knows no confetti where there is no chart', () => {
    const marks = [lay('10:00:10', [0, 16])];
    const plain = { hasChart: false, sittings };
    expect(progressWork(taskOf(marks, plain)).sittings[0]).toMatchObject({ confetti: 0, drills: 16 });
  });
});

describe('what changed day by day', () => {
  it('is told by what each day began and ended with', () => {
    const marks = packed([
      { at: at('10:00:00'), kind: 'lay', runs: [0, 3] },
      { at: at('11:00:00'), kind: 'lift', runs: [1, 1] },
      { at: '2026-05-03T10:00:00.000Z', kind: 'lay', runs: [1, 1] },
    ]);
    // Of the first day square 1 is as it was before it.
    expect(dayChanges({ marks, cells: 16, zone: 'UTC' })).toEqual([
      { day: '2026-05-02', laid: [0, 1, 2, 1], lifted: [] },
      { day: '2026-05-03', laid: [1, 1], lifted: [] },
    ]);
  });
});
