import { seededRandom } from '../src/core/chance/random';

/** A seeded source of numbers 0…1, so that the demo is the same on every machine. */
export type Random = () => number;

export function seeded(seed: number): Random {
  return seededRandom(seed).uniform;
}

export function between(random: Random, low: number, high: number): number {
  return low + random() * (high - low);
}

export function pick<Item>(random: Random, items: readonly Item[]): Item {
  return items[Math.floor(random() * items.length)]!;
}

/** A shuffled copy (Fisher and Yates). */
export function shuffled<Item>(random: Random, items: readonly Item[]): Item[] {
  const copy = [...items];
  for (let i = copy.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [copy[i], copy[j]] = [copy[j]!, copy[i]!];
  }
  return copy;
}

/** Draws the same kind of thing several times and joins the pieces. */
export function repeat(times: number, draw: (i: number) => string): string {
  return Array.from({ length: times }, (_, i) => draw(i)).join('\n');
}
