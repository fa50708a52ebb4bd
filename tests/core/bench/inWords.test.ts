import { expect, it } from 'vitest';
import { overlapInWords } from '../../../src/core/bench/overlap';
import { markInWords } from '../../../src/core/bench/undoInWords';
import type { Section } from '../../../src/core/sections/section';
import { line } from '../samples';

const section = { number: 4, x: 0, y: 0, width: 2, height: 2, rects: [{ x: 0, y: 0, width: 2, height: 2 }] };

it.each([
  [{ kind: 'lay', drills: 30, line: 1, cell: 11 }, '30 of 401 laid in section 4'],
  [{ kind: 'lift', drills: 1240, line: 2, cell: 0 }, '1,240 of 402 lifted in section 4'],
  [{ kind: 'lay', drills: 1, line: null, cell: 2 }, '1 drill laid'],
  [{ kind: 'lift', drills: 3, line: 9, cell: 20 }, '3 drills lifted'],
] as const)('%j is told as “%s”', (mark, words) =>
  expect(markInWords(mark, [line(1), line(2)], [section as unknown as Section], 10)).toBe(words),
);

it('what two screens did is told for one drill and for several', () => {
  expect(overlapInWords(1)).toMatch(/^1 drill .+ was marked .+ Its entry stands in the history/);
  expect(overlapInWords(1200)).toMatch(/^1,200 drills .+ were marked .+ All entries stand in the history/);
});
