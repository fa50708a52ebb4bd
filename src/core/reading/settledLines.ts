import { Matrix, solve } from 'ml-matrix';
import { type AsideCost, leastLabels } from './leastLabels';

/** What it costs to lie on another line than the nearest corner says, and how far beside it is still that line (in lines). */
const AGAINST_CORNER = 8;
const SAME_LINE = 0.3;
/** Corners are asked so often at most. */
const MOST_ROUNDS = 3;

/** A grid of nodes and what each label of each node costs; nodes row by row. */
export interface LineCosts {
  width: number;
  height: number;
  labels: number;
  cost: Float32Array;
  /** The label of a node that lies where the plain map has it. */
  plain: number;
  /** Labels from one line to the next. */
  period: number;
}

/**
 * The label of each node, as {@link leastLabels} finds it. Whole regions may come to lie one line beside the truth, because
 * one line looks like the next and four corners weigh little against thousands of nodes. So what lies around the corners
 * is asked where it has them; if that is on another line, those nodes are held to the right one and all is sought anew.
 */
export function settledLines(costs: LineCosts, slope: AsideCost): Int16Array {
  const { width, height, labels, period } = costs;
  const held = { ...costs, cost: costs.cost.slice() };
  let chosen = leastLabels(held.cost, width, height, labels, slope);
  for (let round = 1; round < MOST_ROUNDS; round++) {
    let agreed = true;
    for (const right of [false, true]) {
      for (const below of [false, true]) {
        const lines = linesBeside(costs, chosen, right, below);
        if (lines === null) continue;
        if (lines !== 0) agreed = false;
        for (const node of nodesAt(costs, right, below).nodes) {
          const meant = chosen[node]! - lines * period;
          for (let d = 0; d < labels; d++)
            if (Math.abs(d - meant) > SAME_LINE * period) held.cost[node * labels + d]! += AGAINST_CORNER;
        }
      }
    }
    if (agreed) break;
    chosen = leastLabels(held.cost, width, height, labels, slope);
  }
  return chosen;
}

/** How far from a corner nodes tell of it: not the next ones, where a field that is wrong tears. */
const FROM = 3;
const TO = 9;

/** From this far beside a line on (in lines) it is not said which one is meant. */
const UNDECIDED = 0.35;

/** Nodes near a corner, and where they lie from it. */
function nodesAt({ width, height }: LineCosts, right: boolean, below: boolean) {
  const nodes: number[] = [];
  const spots: [number, number][] = [];
  for (let j = 0; j < Math.min(TO, height); j++) {
    for (let i = 0; i < Math.min(TO, width); i++) {
      if (Math.hypot(i, j) < FROM || Math.hypot(i, j) > TO) continue;
      nodes.push((below ? height - 1 - j : j) * width + (right ? width - 1 - i : i));
      spots.push([i, j]);
    }
  }
  return { nodes, spots };
}

/**
 * By how many lines the nodes near a corner lie beside the truth: a surface of the second order through them, by weighted
 * least squares without those that lie far from it (Tukey's biweight), says where they have the corner. Null where that
 * lies between two lines.
 */
function linesBeside(costs: LineCosts, chosen: Int16Array, right: boolean, below: boolean): number | null {
  const { cost, labels, plain, period } = costs;
  const { nodes, spots } = nodesAt(costs, right, below);
  if (nodes.length < 30) return null;
  const terms = spots.map(([i, j]) => [1, i, j, i * i, i * j, j * j]);
  const aside = nodes.map((node) => chosen[node]! - plain);
  let weights = nodes.map((node) => Math.max(0.02, 1 - cost[node * labels + chosen[node]!]!));
  const own = weights;
  let corner = 0;
  for (let round = 0; round < 6; round++) {
    const roots = weights.map(Math.sqrt);
    const fit = solve(
      new Matrix(terms.map((row, n) => row.map((term) => term * roots[n]!))),
      Matrix.columnVector(aside.map((value, n) => value * roots[n]!)),
      true,
    ).to1DArray();
    corner = fit[0]!;
    const off = terms.map((row, n) =>
      Math.abs(row.reduce((sum, term, k) => sum + term * fit[k]!, 0) - aside[n]!),
    );
    const middle = [...off].sort((a, b) => a - b)[off.length >> 1]!;
    const scale = Math.max(0.2 * period, 4 * middle);
    weights = own.map((weight, n) => {
      const share = off[n]! / scale;
      return share >= 1 ? 1e-6 : weight * (1 - share * share) ** 2;
    });
  }
  const lines = corner / period;
  return Math.abs(lines - Math.round(lines)) < UNDECIDED ? Math.round(lines) : null;
}
