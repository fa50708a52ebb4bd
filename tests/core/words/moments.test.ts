import { expect, it } from 'vitest';
import { momentInWords } from '../../../src/core/words/moments';

it('a moment is said as people say it, by days of the calendar and not by hours', () => {
  const at = (...parts: [number, number, number, number, number]) => new Date(...parts);
  const now = at(2026, 10, 3, 0, 30);
  expect(momentInWords(at(2026, 10, 3, 0, 5), now)).toBe('today at 0:05');
  expect(momentInWords(at(2026, 10, 2, 23, 58), now)).toBe('yesterday at 23:58');
  expect(momentInWords(at(2026, 9, 31, 14, 2), now)).toBe('on 31 October at 14:02');
  expect(momentInWords(at(2025, 11, 31, 9, 15), now)).toBe('on 31 December 2025 at 9:15');
});
