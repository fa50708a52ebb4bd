import { expect, it } from 'vitest';
import { knownWanting } from '../../../src/core/requests/ranOut';

it('what is wanting is what was to lay, less what was left and what came since', () => {
  const report = { happenedAt: '2026-05-03T10:00:00.000Z', leftDrills: 12, toLay: 240 };
  const bag = (drills: number, countedAt: string) => ({ drills, countedAt });
  expect(knownWanting(report, [])).toBe(228);
  expect(knownWanting(report, [bag(200, '2026-05-01T10:00:00.000Z')])).toBe(228);
  expect(knownWanting(report, [bag(200, '2026-05-04T10:00:00.000Z')])).toBe(28);
  expect(knownWanting({ ...report, leftDrills: 500 }, [])).toBe(0);
});
