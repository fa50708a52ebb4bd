import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../../src/core/chance/random';
import { fitInWords, framesFor } from '../../../src/core/finish/frames';
import { leftInWords, leftoverOf } from '../../../src/core/finish/leftovers';
import { isFoundInLog, type LogFacts, logRows } from '../../../src/core/finish/logPage';
import {
  changedFinish,
  type FinishRecord,
  faultInFinish,
  UNTOLD_FINISH,
} from '../../../src/core/finish/record';

describe('leftovers', () => {
  // By hand: at the start 3 % of 200 drills are bad, so 400 hold 12 bad ones; 300 are laid.
  it('are what came, less what is laid, less the bad ones', () => {
    const { left, bad, spread } = leftoverOf({ line: 1, suppliedDrills: 400, spread: 8 }, 300, []);
    expect([left, bad]).toEqual([88, 12]);
    // GUM (JCGM 100), 5.1.2: (0.97 × 8)² + 400 × 0.03 × 0.97 + 400² × 0.03 × 0.97 / 201 = 95.0.
    expect(spread).toBeCloseTo(Math.sqrt(60.22 + 11.64 + 23.16), 1);
    expect(leftoverOf({ line: 1, suppliedDrills: 100, spread: 0 }, 300, []).left).toBe(0);
    expect(leftInWords({ left: 88, spread: 9.75 })).toBe('about 88 (76 to 100)');
    expect(leftInWords({ left: 3, spread: 9.75 })).toBe('about 3 (0 to 15)');
    expect(leftInWords({ left: 1200, spread: 0 })).toBe('1,200');
    expect(leftInWords({ left: 1200, spread: 100 })).toBe('about 1,200 (1,072 to 1,328)');
  });

  it('hold the truth of a simulation about four times in five', () => {
    const random = seededRandom(11);
    let within = 0;
    const runs = 2000;
    for (let i = 0; i < runs; i++) {
      const came = 600 + 10 * random.normal();
      // The share of this kit, around that of the 200 drills that are known.
      const share = 0.03 + Math.sqrt((0.03 * 0.97) / 201) * random.normal();
      const bad = came * share + Math.sqrt(Math.max(0, came * share * (1 - share))) * random.normal();
      const truth = came - bad - 400;
      const { left, spread } = leftoverOf({ line: 1, suppliedDrills: 600, spread: 10 }, 400, []);
      if (Math.abs(truth - left) <= 1.2816 * spread) within++;
    }
    expect(within / runs).toBeGreaterThan(0.77);
    expect(within / runs).toBeLessThan(0.83);
  });
});

describe('frames', () => {
  // 2.5 mm pitch: squares ÷ 4 = cm (common practice, no source).
  const kit = { width: 120, height: 160, pitchMm: 2.5 };
  it('that take the picture, the closest first, upright or lying', () => {
    expect(
      framesFor(kit, 0)
        .map(({ name }) => name)
        .slice(0, 2),
    ).toEqual(['30 × 40 cm', '12 × 16 in']);
    expect(framesFor({ ...kit, width: 160, height: 120 }, 0)[0]!.name).toBe('40 × 30 cm');
    for (const frame of framesFor(kit, 40)) {
      expect(Math.min(frame.widthMm - 300, frame.heightMm - 400) / 2).toBeGreaterThanOrEqual(38);
    }
    expect(framesFor({ width: 840, height: 500, pitchMm: 2.5 }, 0)).toEqual([]);
  });
  it('are told by what is seen around it', () => {
    expect(fitInWords({ sideMm: 0, topMm: 0 })).toBe('Fits just so: nothing of the margin shows.');
    expect(fitInWords({ sideMm: 50, topMm: 50 })).toBe('5.0 cm (2.0 in) of margin or mount on every side.');
    // Two millimetres may lie under the edge; a square picture lies in a frame as it stands.
    expect(fitInWords({ sideMm: -2, topMm: 2 })).toBe('Fits just so: nothing of the margin shows.');
    expect(fitInWords({ sideMm: 2.5, topMm: 2.5 })).toBe('0.3 cm (0.1 in) of margin or mount on every side.');
    expect(fitInWords({ sideMm: 20, topMm: -1 })).toContain(
      'left and right, 0.0 cm (0.0 in) above and below',
    );
    expect(framesFor({ width: 80, height: 80, pitchMm: 2.5 }, 0)[0]).toEqual({
      ...{ name: '20 × 20 cm', widthMm: 200, heightMm: 200, sideMm: 0, topMm: 0 },
    });
    const [closest] = framesFor(kit, 20);
    expect([closest!.sideMm, closest!.topMm]).toEqual([
      (closest!.widthMm - 300) / 2,
      (closest!.heightMm - 400) / 2,
    ]);
    expect(fitInWords({ sideMm: 50, topMm: 0 })).toBe(
      '5.0 cm (2.0 in) left and right, 0.0 cm (0.0 in) above and below.',
    );
  });
});

describe('what is told of the end', () => {
  const record: FinishRecord = { ...UNTOLD_FINISH, notes: 'For the hall', checked: ['gaps', 'wipe'] };

  it('changes what is named alone, also to nothing', () => {
    expect(changedFinish(record, { finishedOn: '2026-06-01', notes: undefined })).toEqual({
      ...record,
      finishedOn: '2026-06-01',
    });
    expect(changedFinish({ ...record, minutes: 90 }, { minutes: null }).minutes).toBeNull();
    expect(changedFinish(record, {})).toEqual(record);
  });

  it('adds and takes away steps of the last walk, in the order of the walk', () => {
    expect(changedFinish(record, { steps: { loose: true, wipe: false } }).checked).toEqual(['loose', 'gaps']);
    expect(changedFinish(record, { steps: { roll: true } }).checked).toEqual(['gaps', 'wipe', 'roll']);
  });
});

describe('the log', () => {
  const facts: LogFacts = {
    ...{ id: 'a', title: 'Harbour at Dusk', shape: 'round', size: '30 × 40 cm', width: 120, height: 160 },
    ...{ colours: 32, drills: 19_200, laid: 19_200, startedOn: '2026-02-27', finishedOn: '2026-03-02' },
    ...{ minutes: 1200, sittings: 20, notes: 'For the hall', sealed: true },
  };
  it('tells days, hours and pace', () => {
    const rows = new Map(logRows(facts).map(({ name, value }) => [name, value]));
    expect(rows.get('Days between')).toBe('3');
    expect(rows.get('At the bench')).toBe('20 h in 20 sittings');
    expect(rows.get('Pace')).toBe('960 drills an hour');
    expect(rows.get('Sealed')).toBe('yes');
    const open = logRows({ ...facts, startedOn: null, finishedOn: null, minutes: 0, sealed: null });
    expect(open.map(({ name }) => name)).toEqual(['Size', 'Drills', 'Colours', 'Begun', 'Finished']);
  });
  it('is searched by any of its words', () => {
    expect(isFoundInLog(facts, 'dusk 2026-03')).toBe(true);
    expect(isFoundInLog(facts, 'hall round')).toBe(true);
    expect(isFoundInLog(facts, 'dusk square')).toBe(false);
    expect(isFoundInLog(facts, '')).toBe(true);
  });
  it('tells each fact as it stands, and what is not known', () => {
    const rows = (more: Partial<LogFacts>) =>
      new Map(logRows({ ...facts, ...more }).map(({ name, value }) => [name, value]));
    expect([...rows({})]).toEqual([
      ['Size', '30 × 40 cm, 120 × 160 squares'],
      ['Drills', '19,200 drills, round'],
      ['Colours', '32'],
      ['Begun', '27 February 2026'],
      ['Finished', '2 March 2026'],
      ['Days between', '3'],
      ['At the bench', '20 h in 20 sittings'],
      ['Pace', '960 drills an hour'],
      ['Sealed', 'yes'],
    ]);
    expect(rows({ startedOn: null }).get('Begun')).toBe('not known');
    expect(rows({ finishedOn: null }).get('Finished')).toBe('not yet');
    expect(rows({ startedOn: null }).has('Days between')).toBe(false);
    expect(rows({ finishedOn: null }).has('Days between')).toBe(false);
    expect(rows({ laid: 0 }).has('Pace')).toBe(false);
    expect(rows({ sealed: false }).get('Sealed')).toBe('no');
    expect(rows({ minutes: 45, sittings: 1 }).get('At the bench')).toBe('45 min in 1 sitting');
  });
  it('finds words across its fields and no word made of two', () => {
    expect(isFoundInLog(facts, 'dusk   hall')).toBe(true);
    expect(isFoundInLog(facts, 'duskfor')).toBe(false);
    expect(isFoundInLog({ ...facts, startedOn: null, finishedOn: null }, 'null')).toBe(false);
  });
  it('refuses days that cannot be', () => {
    expect(faultInFinish({ startedOn: '2026-05-02', finishedOn: '2026-05-01' }, '2026-06-01')).toContain(
      'before it was begun',
    );
    expect(faultInFinish({ startedOn: null, finishedOn: '2026-06-02' }, '2026-06-01')).toContain(
      'in the future',
    );
    expect(faultInFinish({ startedOn: null, finishedOn: '2026-06-01' }, '2026-06-01')).toBeNull();
    expect(faultInFinish({ startedOn: '2026-06-02', finishedOn: null }, '2026-06-01')).toBe(
      'A canvas cannot have been begun in the future.',
    );
    expect(faultInFinish({ startedOn: '2026-06-01', finishedOn: null }, '2026-06-01')).toBeNull();
    expect(faultInFinish({ startedOn: '2026-06-01', finishedOn: '2026-06-01' }, '2026-06-01')).toBeNull();
    expect(faultInFinish({ startedOn: null, finishedOn: null }, '2026-06-01')).toBeNull();
  });
});
