import type { CellRect } from '../cells/chart';
import type { Section } from './section';

/** Which section each cell belongs to: its place in a list, from 1; 0 for none. */
export type Owners = Int32Array;

/** @param size of the canvas, in cells */
export function ownersOf(size: { width: number; height: number }, sections: readonly Section[]): Owners {
  const owners = new Int32Array(size.width * size.height);
  sections.forEach((section, i) => {
    fillOwner(owners, size.width, section.rects, i + 1);
  });
  return owners;
}

/** Gives all cells of some rectangles to an owner, in place. */
export function fillOwner(owners: Owners, width: number, rects: readonly CellRect[], owner: number): void {
  for (const rect of rects) {
    for (let y = rect.y; y < rect.y + rect.height; y++) {
      owners.fill(owner, y * width + rect.x, y * width + rect.x + rect.width);
    }
  }
}

/**
 * The cells of each owner as rectangles, none over another: runs of a row, joined with the row above where they are alike.
 * @param count highest owner
 * @returns by owner from 1, index 0 for the first; empty for one without cells
 */
export function rectsOfOwners(
  owners: Owners,
  { width, height }: { width: number; height: number },
  count: number,
): CellRect[][] {
  const rects: CellRect[][] = Array.from({ length: count }, () => []);
  let above = new Map<string, CellRect>();
  for (let y = 0; y < height; y++) {
    const here = new Map<string, CellRect>();
    for (let x = 0; x < width; ) {
      const owner = owners[y * width + x]!;
      let end = x + 1;
      while (end < width && owners[y * width + end] === owner) end++;
      if (owner > 0) {
        const key = `${owner} ${x} ${end}`;
        let rect = above.get(key);
        if (rect) rect.height++;
        else {
          rect = { x, y, width: end - x, height: 1 };
          rects[owner - 1]!.push(rect);
        }
        here.set(key, rect);
      }
      x = end;
    }
    above = here;
  }
  return rects;
}
