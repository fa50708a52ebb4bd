import { type Chart, makeChart } from '../src/core/cells/chart';
import { seededRandom } from '../src/core/chance/random';

/** Smooth noise, 0…1: a grid of random heights, eased between. */
function noise(width: number, height: number, scale: number, uniform: () => number) {
  const across = Math.ceil(width / scale) + 2;
  const heights = Float32Array.from({ length: across * (Math.ceil(height / scale) + 2) }, uniform);
  const ease = (t: number) => t * t * (3 - 2 * t);
  return (x: number, y: number): number => {
    const [column, row] = [Math.floor(x / scale), Math.floor(y / scale)];
    const [tx, ty] = [ease(x / scale - column), ease(y / scale - row)];
    const at = row * across + column;
    const above = heights[at]! + (heights[at + 1]! - heights[at]!) * tx;
    const below = heights[at + across]! + (heights[at + across + 1]! - heights[at + across]!) * tx;
    return above + (below - above) * ty;
  };
}

export const CHART_KINDS = ['mixed', 'blobs', 'smooth', 'confetti'] as const;

/** Shades from dark to light. */
const TONES = { mixed: 34, blobs: 24, smooth: 14 };

/**
 * Charts for timing, from a seed: `mixed` with bands and grain in places; `blobs` with 21 colours, half of the squares in
 * regions of more than 7,500; `smooth` with 12 colours, half of them in regions of more than 16,000; `confetti` with 30
 * colours at random.
 */
export function seededChart(kind: (typeof CHART_KINDS)[number], width = 556, height = 750, seed = 1): Chart {
  const random = seededRandom(seed);
  const uniform = () => random.uniform();
  const [wide, middle, fine, grain] = [120, 40, 12, 70].map((scale) =>
    noise(width, height, scale, uniform),
  ) as [
    ReturnType<typeof noise>,
    ReturnType<typeof noise>,
    ReturnType<typeof noise>,
    ReturnType<typeof noise>,
  ];
  const cells = new Uint16Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const cell = y * width + x;
      if (kind === 'confetti') {
        cells[cell] = 1 + Math.floor(uniform() * 30);
        continue;
      }
      let tone = wide(x, y) * 0.6 + middle(x, y) * 0.3;
      if (kind === 'mixed') {
        tone += fine(x, y) * 0.12 + (uniform() - 0.5) * Math.max(0, grain(x, y) - 0.45) * 0.16;
      }
      cells[cell] = 1 + Math.max(0, Math.floor(tone * TONES[kind]));
    }
  }
  return makeChart(width, height, cells);
}
