import { expect, it } from 'vitest';
import { MachineClock } from '../../src/islands/writing/machineClock';

const START = Date.UTC(2026, 4, 1, 18, 0, 0, 400);
/** A device, and the machine whose clock is `off` milliseconds later; answers take half of their time either way. */
function devices(off: number) {
  let moment = START;
  const clock = new MachineClock(() => moment);
  const ask = (takesMs: number, off: number) => {
    const askedAt = moment;
    const date = new Date(moment + takesMs / 2 + off).toUTCString();
    moment += takesMs;
    clock.heard(date, askedAt);
  };
  return {
    clock,
    ask: (takesMs: number, now = off) => ask(takesMs, now),
    wait: (ms: number) => (moment += ms),
    error: (now = off) => clock.now().getTime() - (moment + now),
  };
}

it('is the device’s own where both go alike, whatever part of a second it is and however long an answer takes', () => {
  const { ask, wait, error } = devices(0);
  for (const takesMs of [0, 3, 40, 999, 1, 30_000, 7]) {
    ask(takesMs);
    wait(173);
    expect(error()).toBe(0);
  }
});

it('is the machine’s where the device goes hours late, early, or began anew, within a second of it', () => {
  for (const off of [3_600_000, -5_400_000, 2500, 20 * 365 * 86_400_000]) {
    const { ask, wait, error } = devices(off);
    ask(25_000);
    for (let i = 0; i < 20; i++) {
      ask(20);
      wait(333);
      expect(Math.abs(error())).toBeLessThan(1100);
    }
    // Somebody sets it right.
    ask(20, 0);
    expect(Math.abs(error(0))).toBeLessThan(1100);
  }
});

it('learns nothing from an answer without a date, with a broken one, or over which the clock was set back', () => {
  const { clock, ask, error } = devices(3_600_000);
  ask(20);
  const before = error();
  clock.heard(null, START);
  clock.heard('yesterday', START);
  clock.heard(new Date(START).toUTCString(), START + 9_000_000);
  expect(error()).toBe(before);
});
