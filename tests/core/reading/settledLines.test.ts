import { describe, expect, it } from 'vitest';
import { AsideCost, leastLabels } from '../../../src/core/reading/leastLabels';
import { settledLines } from '../../../src/core/reading/settledLines';

/** A grid of lines one like the other: each node has a line in every period of ten labels. */
const [WIDTH, HEIGHT, LABELS, PERIOD, PLAIN] = [30, 24, 51, 10, 25];
/** The true lines wave, and meet the plain map in the corners. */
const aside = (x: number, y: number) =>
  Math.round(7 * Math.sin((Math.PI * x) / (WIDTH - 1)) * Math.sin((Math.PI * y) / (HEIGHT - 1)));

function costs(favoured: number): Float32Array {
  const cost = new Float32Array(WIDTH * HEIGHT * LABELS);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++)
      for (let d = 0; d < LABELS; d++) {
        const off = d - PLAIN - aside(x, y);
        const lines = Math.round(off / PERIOD);
        const far = Math.abs(off - lines * PERIOD);
        const node = y * WIDTH + x;
        cost[node * LABELS + d] = Math.min(1, far / 2);
        // The neighbour's line stands out a little more, as under a shadow's edge.
        if (lines === favoured && far === 0) cost[node * LABELS + d]! -= 0.05;
        const isCorner = (x === 0 || x === WIDTH - 1) && (y === 0 || y === HEIGHT - 1);
        if (isCorner) cost[node * LABELS + d]! += ((d - PLAIN) / 3) ** 2;
      }
  return cost;
}

const settled = (cost: Float32Array) =>
  settledLines(
    { width: WIDTH, height: HEIGHT, labels: LABELS, cost, plain: PLAIN, period: PERIOD },
    new AsideCost(2),
  );
const wrongOf = (labels: Int16Array) =>
  labels.filter(
    (label, node) => Math.abs(label - PLAIN - aside(node % WIDTH, Math.floor(node / WIDTH))) > PERIOD / 2,
  ).length;

describe('lines of which one looks like the next', () => {
  it('lie where the corners have them, also where their neighbours fit the picture better', () => {
    const cost = costs(1);
    // The cheapest labels alone lie one line beside the truth nearly everywhere.
    expect(wrongOf(leastLabels(cost, WIDTH, HEIGHT, LABELS, new AsideCost(2)))).toBeGreaterThan(
      WIDTH * HEIGHT * 0.6,
    );
    expect(wrongOf(settled(cost))).toBe(0);
  });

  it('stay as they are where the corners agree', () => {
    const cost = costs(0);
    expect(settled(cost)).toEqual(leastLabels(cost, WIDTH, HEIGHT, LABELS, new AsideCost(2)));
  });
});
