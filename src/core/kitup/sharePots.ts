import { compareVectors } from './vectors';

/** Goals that look at how much room a colour has, whichever pots give it. */
export const SIZE_GOALS = ['closes', 'overflow', 'refills'] as const;
export type SizeGoal = (typeof SIZE_GOALS)[number];

/** Pots of one capacity that are free. */
export interface PotSize {
  capacity: number;
  count: number;
}

/** A colour that wants pots; `base` is the room that it has already, in drills. Without any it takes one pot at least. */
export interface WantingColour {
  drills: number;
  base: number;
}

/** Elementary steps that the exact solution may take; about a second. */
const SHARING_BUDGET = 4e7;

/**
 * Times a pot is filled again after its first filling.
 * @example refillsOf(500, 200) // 2
 */
export function refillsOf(drills: number, capacity: number): number {
  return capacity <= 0 ? drills : Math.max(0, Math.ceil(drills / capacity) - 1);
}

/** What one colour costs by a goal, with so much room in all its pots. */
export function sizeCost(goal: SizeGoal, drills: number, capacity: number): number {
  switch (goal) {
    case 'closes':
      return drills > capacity ? 1 : 0;
    case 'overflow':
      return Math.max(0, drills - capacity);
    case 'refills':
      return refillsOf(drills, capacity);
  }
}

/** How pots are shared out: what each colour gets of each size, and the sum of every goal. */
export interface SharedPots {
  pots: number[][];
  values: number[];
  /** Whether nothing is better. */
  isBest: boolean;
}

/**
 * Shares pots out among colours, several to one where that serves the goals, compared one after the other; among equals
 * the fewest pots. Exact where that ends in time, and roughly else. Only what each colour gets of each size is settled
 * here, not where.
 * @param goals in their order
 * @returns null where there are too few pots for all colours
 */
export function sharePots(
  colours: readonly WantingColour[],
  sizes: readonly PotSize[],
  goals: readonly SizeGoal[],
): SharedPots | null {
  const wanting = colours.filter(({ base }) => base <= 0).length;
  if (sizes.reduce((sum, { count }) => sum + count, 0) < wanting) return null;
  return sharedExactly(colours, sizes, goals) ?? sharedRoughly(colours, sizes, goals);
}

/** By a dynamic programme over the colours, whose states are the pots taken of each size; null where it takes too long. */
function sharedExactly(
  colours: readonly WantingColour[],
  sizes: readonly PotSize[],
  goals: readonly SizeGoal[],
): SharedPots | null {
  const strides: number[] = [];
  let states = 1;
  for (const { count } of sizes) {
    strides.push(states);
    states *= count + 1;
  }
  const G = goals.length + 1;
  let affordable = Math.floor(SHARING_BUDGET / G / states);
  const choices: number[][][] = [];
  for (const colour of colours) {
    const own = choicesOf(colour, sizes, affordable);
    if (own === null) return null;
    choices.push(own);
    affordable -= own.length;
  }

  let best = new Float64Array(states * G).fill(Number.POSITIVE_INFINITY);
  best.fill(0, 0, G);
  const chosen: Int16Array[] = [];
  for (const [i, colour] of colours.entries()) {
    const options = choices[i]!.map((pots) => {
      const room = roomOf(pots, sizes) + colour.base;
      return {
        pots,
        shift: pots.reduce((sum, n, c) => sum + n * strides[c]!, 0),
        cost: [
          ...goals.map((goal) => sizeCost(goal, colour.drills, room)),
          pots.reduce((sum, n) => sum + n, 0),
        ],
      };
    });
    const next = new Float64Array(states * G).fill(Number.POSITIVE_INFINITY);
    const choice = new Int16Array(states).fill(-1);
    for (let state = 0; state < states; state++) {
      if (best[state * G] === Number.POSITIVE_INFINITY) continue;
      for (const [o, { pots, shift, cost }] of options.entries()) {
        if (!pots.every((n, c) => takenOf(state, c, strides, sizes) + n <= sizes[c]!.count)) continue;
        if (!isLess(best, state, cost, next, state + shift, G)) continue;
        for (let g = 0; g < G; g++) next[(state + shift) * G + g] = best[state * G + g]! + cost[g]!;
        choice[state + shift] = o;
      }
    }
    best = next;
    chosen.push(choice);
  }
  let end = -1;
  for (let state = 0; state < states; state++) {
    if (best[state * G] === Number.POSITIVE_INFINITY) continue;
    if (end < 0 || compareVectors(at(best, state, G), at(best, end, G)) < 0) end = state;
  }
  if (end < 0) return null;
  const pots: number[][] = [];
  let state = end;
  for (let i = colours.length - 1; i >= 0; i--) {
    const own = choices[i]![chosen[i]![state]!]!;
    pots.unshift(own);
    state -= own.reduce((sum, n, c) => sum + n * strides[c]!, 0);
  }
  return { pots, values: at(best, end, G).slice(0, -1), isBest: true };
}

/**
 * Where closing comes first, the colours that want least are closed one after the other, each by pots of as little room
 * as does. Then every colour gets a pot, the smallest that holds it or else the largest; what is left goes one by one where
 * it serves best.
 */
function sharedRoughly(
  colours: readonly WantingColour[],
  sizes: readonly PotSize[],
  goals: readonly SizeGoal[],
): SharedPots {
  const pots = colours.map(() => sizes.map(() => 0));
  const left = sizes.map(({ count }) => count);
  const room = colours.map(({ base }) => base);
  const give = (i: number, c: number, n = 1) => {
    pots[i]![c]! += n;
    left[c]! -= n;
    room[i]! += n * sizes[c]!.capacity;
  };
  const wants = (i: number) => colours[i]!.drills - room[i]!;
  const isBare = (i: number) => room[i]! <= 0;
  const all = [...colours.keys()];
  if (goals[0] === 'closes') {
    for (const i of all.toSorted((a, b) => wants(a) - wants(b))) {
      if (wants(i) <= 0 && !isBare(i)) continue;
      const fit = fitting(Math.max(1, wants(i)), sizes, left);
      if (!fit) continue;
      const others = all.filter((other) => other !== i && isBare(other)).length;
      const rest = left.reduce((sum, n) => sum + n, 0) - fit.reduce((sum, n) => sum + n, 0);
      if (rest >= others) for (const [c, n] of fit.entries()) give(i, c, n);
    }
  }
  const upwards = [...sizes.keys()].toSorted((a, b) => sizes[a]!.capacity - sizes[b]!.capacity);
  for (const i of all.filter(isBare).toSorted((a, b) => wants(b) - wants(a))) {
    const free = upwards.filter((c) => left[c]! > 0);
    give(i, free.find((c) => sizes[c]!.capacity >= wants(i)) ?? free.at(-1)!);
  }
  for (;;) {
    let best: { i: number; c: number; gain: number[] } | null = null;
    for (const i of all) {
      if (wants(i) <= 0) continue;
      for (const [c, { capacity }] of sizes.entries()) {
        if (left[c] === 0) continue;
        const { drills } = colours[i]!;
        const gain = goals.map(
          (goal) => sizeCost(goal, drills, room[i]! + capacity) - sizeCost(goal, drills, room[i]!),
        );
        if (compareVectors(gain, best?.gain ?? goals.map(() => 0)) < 0) best = { i, c, gain };
      }
    }
    if (!best) break;
    give(best.i, best.c);
  }
  const values = goals.map((goal) =>
    colours.reduce((sum, { drills }, i) => sum + sizeCost(goal, drills, room[i]!), 0),
  );
  return { pots, values, isBest: false };
}

/** Pots of little room, and then few, that hold so many drills; null where all that are left are too small. */
function fitting(drills: number, sizes: readonly PotSize[], left: readonly number[]): number[] | null {
  const upwards = [...sizes.keys()].toSorted((a, b) => sizes[a]!.capacity - sizes[b]!.capacity);
  const taken = sizes.map(() => 0);
  let rest = drills;
  const ways: number[][] = [];
  /** With one more, the smallest that holds the rest. */
  const closed = () => {
    const last = upwards.find((c) => left[c]! > taken[c]! && sizes[c]!.capacity >= rest);
    if (rest <= 0) ways.push([...taken]);
    else if (last !== undefined) ways.push(taken.with(last, taken[last]! + 1));
  };
  for (const c of upwards.toReversed()) {
    // One that holds the rest may be better than several smaller ones; which is, is seen at the end.
    closed();
    taken[c] = Math.min(left[c]!, Math.floor(rest / sizes[c]!.capacity));
    rest -= taken[c]! * sizes[c]!.capacity;
  }
  closed();
  const count = (way: number[]) => way.reduce((sum, n) => sum + n, 0);
  return ways.toSorted((a, b) => roomOf(a, sizes) - roomOf(b, sizes) || count(a) - count(b))[0] ?? null;
}

function at(vectors: Float64Array, state: number, G: number): number[] {
  return Array.from(vectors.subarray(state * G, state * G + G));
}

function takenOf(state: number, size: number, strides: readonly number[], sizes: readonly PotSize[]): number {
  return Math.floor(state / strides[size]!) % (sizes[size]!.count + 1);
}

function isLess(
  best: Float64Array,
  from: number,
  cost: readonly number[],
  next: Float64Array,
  to: number,
  G: number,
): boolean {
  for (let g = 0; g < G; g++) {
    const difference = best[from * G + g]! + cost[g]! - next[to * G + g]!;
    if (difference !== 0) return difference < 0;
  }
  return false;
}

function roomOf(pots: readonly number[], sizes: readonly PotSize[]): number {
  return pots.reduce((sum, n, c) => sum + n * sizes[c]!.capacity, 0);
}

/**
 * What a colour may sensibly get of each size: no pot that could stay empty, and one at least if it has none.
 * @returns null where there are more than `most` ways
 */
function choicesOf(
  { drills, base }: WantingColour,
  sizes: readonly PotSize[],
  most: number,
): number[][] | null {
  const all: number[][] = [];
  const add = (pots: number[], number: number, room: number) => {
    if (all.length > most) return;
    const { length: size } = pots;
    if (size === sizes.length) {
      const idle = pots.some((n, c) => n > 0 && room - sizes[c]!.capacity >= drills);
      if (number === 0 ? base > 0 : number === 1 && base === 0 ? true : !idle) all.push(pots);
      return;
    }
    const { capacity, count } = sizes[size]!;
    const wanted = Math.min(count, Math.max(1, Math.ceil((drills - base) / capacity)));
    // Where all of it has room already, one more could stay empty.
    const isDone = (number > 0 || base > 0) && room >= drills;
    for (let n = 0; n <= (isDone ? 0 : wanted); n++) add([...pots, n], number + n, room + n * capacity);
  };
  add([], 0, base);
  return all.length > most ? null : all;
}
