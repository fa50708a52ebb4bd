import { type CellLooks, LOOK_SIDE } from './cellLooks';
import { type ClassSample, templatesOf, usualFit } from './classify';

/** Ways in which squares can lie, and what to do about each. */
const WAYS: readonly { from: (x: number, y: number) => readonly [number, number]; words: string }[] = [
  {
    from: (x, y) => [LOOK_SIDE - 1 - x, LOOK_SIDE - 1 - y],
    words:
      'The symbols stand on their heads. The first corner is the one that is upper left on the canvas: turn the photo, or mark the corners from there.',
  },
  {
    from: (x, y) => [y, LOOK_SIDE - 1 - x],
    words: 'The symbols lie on their side. Turn the photo upright, then mark its corners again.',
  },
  {
    from: (x, y) => [LOOK_SIDE - 1 - y, x],
    words: 'The symbols lie on their side. Turn the photo upright, then mark its corners again.',
  },
  {
    from: (x, y) => [LOOK_SIDE - 1 - x, y],
    words:
      'The photo is mirrored: the symbols are the wrong way round. Cameras for selfies do that; take it with the other one.',
  },
];
/** By so much better the squares must fit the other way round. */
const CLEARLY = 0.1;

/**
 * Whether the squares of a photograph look more like the samples turned or mirrored than as they are.
 * @returns a sentence, or null where they lie right, or nothing tells
 */
export function wrongWayRound(
  looks: CellLooks,
  samples: readonly ClassSample[],
  sigma: number,
): string | null {
  const upright = usualFit(looks, templatesOf(samples, sigma));
  let found: string | null = null;
  let most = upright + CLEARLY;
  for (const { from, words } of WAYS) {
    const turned = samples.map((sample) => ({
      ...sample,
      glyph: sample.glyph.map((_, at) => {
        const [x, y] = from(at % LOOK_SIDE, Math.floor(at / LOOK_SIDE));
        return sample.glyph[y * LOOK_SIDE + x]!;
      }),
    }));
    const fit = usualFit(looks, templatesOf(turned, sigma));
    if (fit > most) [most, found] = [fit, words];
  }
  return found;
}
