import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../../src/core/chance/random';
import { fitInWords, framesFor } from '../../../src/core/finish/frames';
import { leftInWords, leftoverOf } from '../../../src/core/finish/leftovers';
import { hoursInWords, isFoundInLog, type LogFacts, logRows } from '../../../src/core/finish/logPage';
import { faultInFinish } from '../../../src/core/finish/record';

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
    expect(fitInWords({ sideMm: 50, topMm: 0 })).toBe(
      '5.0 cm (2.0 in) left and right, 0.0 cm (0.0 in) above and below.',
    );
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
  it('says hours as people do', () =>
    expect([0, 45, 120, 135].map(hoursInWords)).toEqual(['0 min', '45 min', '2 h', '2 h 15 min']));
  it('refuses days that cannot be', () => {
    expect(faultInFinish({ startedOn: '2026-05-02', finishedOn: '2026-05-01' }, '2026-06-01')).toContain(
      'before it was begun',
    );
    expect(faultInFinish({ startedOn: null, finishedOn: '2026-06-02' }, '2026-06-01')).toContain(
      'in the future',
    );
    expect(faultInFinish({ startedOn: null, finishedOn: '2026-06-01' }, '2026-06-01')).toBeNull();
  });
});
