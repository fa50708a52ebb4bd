import { expect, it } from 'vitest';
import { onShelf, SHELF_PAGE } from '../../../src/core/shelf/order';
import type { Stage } from '../../../src/core/shelf/stage';

const shelved = (title: string, day: number, stage: Stage = 'bench') => ({
  canvas: { title },
  stage,
  workedAt: new Date(Date.UTC(2026, 0, day)).toISOString(),
});
const titles = (part: { entries: { canvas: { title: string } }[] }) =>
  part.entries.map(({ canvas }) => canvas.title);

it('what was worked on last stands in front, what is finished behind', () => {
  const all = [
    shelved('Moss', 3),
    shelved('Done early', 2, 'finish'),
    shelved('Done late', 9, 'finish'),
    shelved('Pear', 8, 'sheet'),
    shelved('Dusk', 5, 'checkin'),
  ];
  expect(titles(onShelf(all, '', 1))).toEqual(['Pear', 'Dusk', 'Moss', 'Done late', 'Done early']);
  expect(all[0]!.canvas.title).toBe('Moss');
});

it('titles are found by words of them, in any order and case', () => {
  const all = [shelved('Crème harbour at night', 1), shelved('Harbour', 2), shelved('Night', 3)];
  expect(titles(onShelf(all, ' NIGHT harb ', 1))).toEqual(['Crème harbour at night']);
  expect(titles(onShelf(all, 'creme', 1))).toEqual(['Crème harbour at night']);
  expect(onShelf(all, 'sea', 1)).toEqual({ entries: [], found: 0, page: 1, pages: 1 });
});

it('a page holds so many, and one beyond the last is the last', () => {
  const all = Array.from({ length: SHELF_PAGE + 1 }, (_, i) => shelved(`Canvas ${i}`, i + 1));
  expect(onShelf(all, '', 1)).toMatchObject({ found: SHELF_PAGE + 1, page: 1, pages: 2 });
  expect(onShelf(all, '', 1).entries).toHaveLength(SHELF_PAGE);
  for (const page of [2, 3, 1e9]) expect(titles(onShelf(all, '', page))).toEqual(['Canvas 0']);
  for (const page of [0, -1, Number.NaN, 1.9]) expect(onShelf(all, '', page).page).toBe(1);
  expect(onShelf(all.slice(1), '', 2)).toMatchObject({ page: 1, pages: 1 });
});
