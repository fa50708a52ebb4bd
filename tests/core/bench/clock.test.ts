import { describe, expect, it } from 'vitest';
import { type ClockWish, clockWishOf, dueReminders, forgottenSince } from '../../../src/core/bench/clock';

const NONE: ClockWish = { minutes: null, stopAt: null, rest: null };
/** Times of 1 June 2026, or of the next day, at this place. */
const at = (time: string, day = 1) => {
  const [hours, minutes, seconds = 0] = time.split(':').map(Number);
  return new Date(2026, 5, day, hours, minutes, seconds);
};
const due = (now: Date, wish: Partial<ClockWish>, more = 0, told: string[] = [], from = at('20:00')) =>
  dueReminders(from, now, { ...NONE, ...wish }, more, new Set(told), (time) => at(time));

describe('what the clock tells at the bench', () => {
  it('is nothing where nothing is wished', () => expect(due(at('23:59'), {})).toEqual([]));

  it('is that the minutes are over, once, with more minutes to ask for', () => {
    expect(due(at('20:44:59'), { minutes: 45 })).toEqual([]);
    expect(due(at('20:45'), { minutes: 45 })).toEqual([
      { key: 'length 45', words: '45 minutes are over.', ends: true },
    ]);
    expect(due(at('20:46'), { minutes: 45 }, 0, ['length 45'])).toEqual([]);
    expect(due(at('20:55'), { minutes: 45 }, 10, ['length 45'])).toEqual([
      { key: 'length 55', words: '55 minutes are over.', ends: true },
    ]);
  });

  it('is not told any more half an hour later, for then the screen slept', () => {
    expect(due(at('21:14:59'), { minutes: 45 })).toHaveLength(1);
    expect(due(at('21:15'), { minutes: 45 })).toEqual([]);
  });

  it('is that the time of day has come, and with more minutes how much later it is', () => {
    expect(due(at('22:29:59'), { stopAt: '22:30' })).toEqual([]);
    expect(due(at('22:30'), { stopAt: '22:30' })).toEqual([
      { key: 'stop 22:30 0', words: 'It is 22:30.', ends: true },
    ]);
    expect(due(at('22:39'), { stopAt: '22:30' }, 10)).toEqual([]);
    expect(due(at('22:40'), { stopAt: '22:30' }, 10)).toEqual([
      { key: 'stop 22:30 10', words: 'It is 22:30, and 10 minutes later.', ends: true },
    ]);
  });

  it('is the next such time, tomorrow where it has passed by the beginning', () => {
    expect(due(at('22:00'), { stopAt: '01:00' }, 0, [], at('21:00'))).toEqual([]);
    expect(due(at('1:00', 2), { stopAt: '01:00' }, 0, [], at('21:00'))).toHaveLength(1);
    // Begun at that very minute: it means the one that comes.
    expect(due(at('21:00'), { stopAt: '21:00' }, 0, [], at('21:00'))).toEqual([]);
    expect(due(at('21:00', 2), { stopAt: '21:00' }, 0, [], at('21:00'))).toHaveLength(1);
  });

  it('is a rest every so many minutes, each another one, and none ends the sitting', () => {
    expect(due(at('20:19'), { rest: 20 })).toEqual([]);
    const words = [1, 2, 3, 4, 5].map((turn) => {
      const [rest] = due(new Date(at('20:00').getTime() + turn * 20 * 60_000), { rest: 20 });
      expect(rest).toMatchObject({ key: `rest ${turn}`, ends: false });
      return rest!.words;
    });
    expect(words[0]).toContain('Put the pen down');
    expect(new Set(words).size).toBe(4);
    expect(words[4]).toBe(words[0]);
    expect(due(at('20:21'), { rest: 20 }, 0, ['rest 1'])).toEqual([]);
    expect(due(at('20:40'), { rest: 0 })).toEqual([]);
  });
});

it('a timer is taken for forgotten after an hour without a mark', () => {
  const running = { startedAt: at('20:00').toISOString(), endedAt: null };
  const last = at('20:30').toISOString();
  expect(forgottenSince(running, last, at('21:29:59'))).toBeNull();
  expect(forgottenSince(running, last, at('21:30'))).toEqual(at('20:35'));
  expect(forgottenSince(running, null, at('21:00'))).toEqual(at('20:05'));
  // A mark from before the sitting says nothing about it.
  expect(forgottenSince(running, at('18:00').toISOString(), at('21:00'))).toEqual(at('20:05'));
  expect(forgottenSince({ ...running, endedAt: last }, last, at('23:00'))).toBeNull();
});

describe('what was wished of the clock and kept', () => {
  it.each([
    ['{"minutes":45,"rest":20,"stopAt":"22:30"}', { minutes: 45, rest: 20, stopAt: '22:30' }],
    ['{"minutes":600,"rest":1,"stopAt":"00:00"}', { minutes: 600, rest: 1, stopAt: '00:00' }],
    ['{"minutes":601,"rest":0,"stopAt":"24:00"}', NONE],
    ['{"minutes":4.5,"rest":"20","stopAt":930}', NONE],
    ['{"stopAt":"at 22:30"}', NONE],
    ['{"stopAt":"22:300"}', NONE],
    ['{"stopAt":"12:60"}', NONE],
    ['no JSON', NONE],
    ['null', NONE],
    [null, NONE],
  ] as [string | null, ClockWish][])('%s is %j', (kept, wish) => expect(clockWishOf(kept)).toEqual(wish));
});
