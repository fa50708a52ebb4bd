import { isIn } from '../words/isIn';
import type { Stage } from './stage';

/** Canvases that a page of the shelf shows at most. */
export const SHELF_PAGE = 30;

/** What a canvas's place on the shelf follows from. */
interface Shelved {
  canvas: { title: string };
  stage: Stage;
  /** When it was worked on last, or came. */
  workedAt: string;
}

/** A part of the shelf, with where it stands in the whole. */
export interface ShelfPart<Entry> {
  entries: Entry[];
  /** How many there are of those that are looked for. */
  found: number;
  /** Number of the page, from 1, and of all pages. */
  page: number;
  pages: number;
}

/**
 * What is under way comes first, by when it was worked on last; what is finished stands behind it.
 * @param find words of the title; empty for all
 * @param page from 1; one beyond the last is the last
 * @example onShelf(shelved, 'harbour', 1).entries // the first 30 whose title has the word
 */
export function onShelf<Entry extends Shelved>(
  shelved: readonly Entry[],
  find: string,
  page: number,
): ShelfPart<Entry> {
  const found = shelved
    .filter(({ canvas }) => isIn(canvas.title, find.trim()))
    .sort(
      (a, b) =>
        Number(a.stage === 'finish') - Number(b.stage === 'finish') ||
        Date.parse(b.workedAt) - Date.parse(a.workedAt),
    );
  const pages = Math.max(1, Math.ceil(found.length / SHELF_PAGE));
  const at = Math.min(pages, Math.max(1, Math.trunc(page) || 1));
  return {
    entries: found.slice((at - 1) * SHELF_PAGE, at * SHELF_PAGE),
    found: found.length,
    page: at,
    pages,
  };
}
