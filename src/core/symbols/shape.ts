/** A symbol as ink: `SHAPE_SIDE`² values from 0 (none) to 1, row by row, cut to its outline and slightly blurred. */
export interface SymbolShape {
  ink: Float32Array;
  /** Longer side of the outline as a share of the cell, 0…1; tells a dot from a disc. */
  size: number;
}

export const SHAPE_SIDE = 24;

/** Ink below this is no part of the outline. */
const FAINT = 0.12;

/**
 * Cuts a rendered symbol to its outline and brings it to a common size, its proportions kept.
 * @param pixels `side`² ink values 0…1, row by row: the symbol as it stands in its cell
 * @returns null where there is no ink
 */
export function shapeOf(pixels: Float32Array, side: number): SymbolShape | null {
  let [left, top, right, bottom] = [side, side, -1, -1];
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      if (pixels[y * side + x]! < FAINT) continue;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
  }
  if (right < 0) return null;
  const longer = Math.max(right - left + 1, bottom - top + 1);
  const inner = SHAPE_SIDE - 4;
  const scale = longer / inner;
  const centreX = (left + right + 1) / 2;
  const centreY = (top + bottom + 1) / 2;
  const ink = new Float32Array(SHAPE_SIDE * SHAPE_SIDE);
  for (let y = 0; y < SHAPE_SIDE; y++) {
    for (let x = 0; x < SHAPE_SIDE; x++) {
      const fromX = centreX + (x + 0.5 - SHAPE_SIDE / 2) * scale - 0.5;
      const fromY = centreY + (y + 0.5 - SHAPE_SIDE / 2) * scale - 0.5;
      ink[y * SHAPE_SIDE + x] = sample(pixels, side, fromX, fromY);
    }
  }
  return { ink: blurred(ink), size: longer / side };
}

/** Bilinear; outside there is no ink. Written without allocation: it runs for every pixel of every turned symbol. */
function sample(pixels: Float32Array, side: number, x: number, y: number): number {
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const dx = x - x0;
  const dy = y - y0;
  let value = 0;
  for (let py = y0; py <= y0 + 1; py++) {
    if (py < 0 || py >= side) continue;
    const share = py === y0 ? 1 - dy : dy;
    if (x0 >= 0 && x0 < side) value += pixels[py * side + x0]! * (1 - dx) * share;
    if (x0 + 1 >= 0 && x0 + 1 < side) value += pixels[py * side + x0 + 1]! * dx * share;
  }
  return value;
}

/** The blur of an eye at reading distance: at 40 cm a drill is about 21′ wide, and detail below 1′ to 2′ is lost. */
function blurred(ink: Float32Array): Float32Array {
  const kernel = [0.054, 0.244, 0.403, 0.244, 0.054];
  const along = (from: Float32Array, step: number, limit: (i: number) => number) =>
    from.map((_, i) =>
      kernel.reduce((sum, weight, k) => {
        const shift = k - 2;
        const place = limit(i) + shift;
        return place < 0 || place >= SHAPE_SIDE ? sum : sum + weight * from[i + shift * step]!;
      }, 0),
    );
  return along(
    along(ink, 1, (i) => i % SHAPE_SIDE),
    SHAPE_SIDE,
    (i) => Math.floor(i / SHAPE_SIDE),
  );
}

/** Ways in which the eye, or a turned canvas, brings one symbol onto another. */
export type Turn = 'same' | 'mirrored' | 'upside down' | 'turned' | 'filled';

/**
 * How far each way still counts as alike: a mirror image is hardly less confusing, a turned one is somewhat, and one that
 * is filled where the other is an outline a little less.
 */
const TURN_WEIGHT: Record<Turn, number> = {
  same: 1,
  mirrored: 0.97,
  'upside down': 0.93,
  turned: 0.93,
  filled: 0.92,
};

/** Values that a symbol takes in each of the ways; the comparison of many pairs needs them once. */
export interface TurnedShape {
  size: number;
  turns: { turn: Turn; ink: Float32Array }[];
  /** Its outline, filled; null where it encloses nothing. */
  filled: Float32Array | null;
}

const TURN_STEP_DEGREES = 15;

/**
 * Prepares a shape for comparing: as it is, both mirror images, turned in steps of 15° up to a quarter each way, and by a
 * half, for a canvas lies on the table either way round.
 */
export function turned(shape: SymbolShape): TurnedShape {
  const middle = (SHAPE_SIDE - 1) / 2;
  const moved = (from: (dx: number, dy: number) => [number, number]) => {
    const ink = new Float32Array(SHAPE_SIDE * SHAPE_SIDE);
    for (let y = 0; y < SHAPE_SIDE; y++) {
      for (let x = 0; x < SHAPE_SIDE; x++) {
        const [fx, fy] = from(x - middle, y - middle);
        ink[y * SHAPE_SIDE + x] = sample(shape.ink, SHAPE_SIDE, fx + middle, fy + middle);
      }
    }
    return standardised(ink);
  };
  const turns: TurnedShape['turns'] = [
    { turn: 'same', ink: standardised(shape.ink) },
    { turn: 'mirrored', ink: moved((dx, dy) => [-dx, dy]) },
    { turn: 'upside down', ink: moved((dx, dy) => [dx, -dy]) },
  ];
  for (let degrees = -90; degrees <= 180; degrees += TURN_STEP_DEGREES) {
    if (degrees === 0 || (degrees > 90 && degrees < 180)) continue;
    const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    turns.push({ turn: 'turned', ink: moved((dx, dy) => [dx * cos - dy * sin, dx * sin + dy * cos]) });
  }
  const whole = holesFilled(shape.ink);
  return { size: shape.size, turns, filled: whole && standardised(whole) };
}

/** From this much ink on, a line encloses. */
const ENCLOSING = 0.35;

/** The ink with everything inked that it encloses; null where that is next to nothing. */
function holesFilled(ink: Float32Array): Float32Array | null {
  const outside = new Uint8Array(ink.length);
  const open: number[] = [];
  const visit = (x: number, y: number) => {
    const at = y * SHAPE_SIDE + x;
    if (x < 0 || y < 0 || x >= SHAPE_SIDE || y >= SHAPE_SIDE || outside[at] || ink[at]! >= ENCLOSING) return;
    outside[at] = 1;
    open.push(at);
  };
  for (let i = 0; i < SHAPE_SIDE; i++) {
    for (const [x, y] of [
      [i, 0],
      [i, SHAPE_SIDE - 1],
      [0, i],
      [SHAPE_SIDE - 1, i],
    ] as const)
      visit(x, y);
  }
  while (open.length > 0) {
    const at = open.pop()!;
    const [x, y] = [at % SHAPE_SIDE, Math.floor(at / SHAPE_SIDE)];
    visit(x - 1, y);
    visit(x + 1, y);
    visit(x, y - 1);
    visit(x, y + 1);
  }
  const holes = ink.reduce((sum, value, at) => sum + (!outside[at] && value < ENCLOSING ? 1 : 0), 0);
  if (holes < LEAST_HOLE) return null;
  const nearOutside = (at: number) =>
    [-1, 1, -SHAPE_SIDE, SHAPE_SIDE].some((step) => outside[at + step] === 1);
  // The outer edge stays as soft as it is; all that lies within it is inked.
  return ink.map((value, at) => (outside[at] || nearOutside(at) ? value : 1));
}

/** Cells of the shape's grid that a hole has at least. */
const LEAST_HOLE = 10;

/** Less its mean and of length 1, so that the product of two is their correlation. */
function standardised(ink: Float32Array): Float32Array {
  const mean = ink.reduce((sum, value) => sum + value, 0) / ink.length;
  const length = Math.sqrt(ink.reduce((sum, value) => sum + (value - mean) ** 2, 0)) || 1;
  return ink.map((value) => (value - mean) / length);
}

/**
 * Likeness of two symbols, 0…1: the correlation (Pearson) of their blurred ink in the way that fits best, less where
 * one is much smaller than the other.
 */
export function likeness(a: TurnedShape, b: TurnedShape): { likeness: number; turn: Turn } {
  const sizes = (Math.min(a.size, b.size) / Math.max(a.size, b.size)) ** 0.1;
  const upright = a.turns[0]!.ink;
  let best: { likeness: number; turn: Turn } = { likeness: 0, turn: 'same' };
  for (const { turn, ink } of b.turns) {
    const value = Math.min(1, product(upright, ink)) * TURN_WEIGHT[turn] * sizes;
    if (value > best.likeness) best = { likeness: value, turn };
  }
  // One filled, the other an outline: the outline's inside is compared as if it were filled too.
  for (const [outline, other] of [
    [a.filled, b],
    [b.filled, a],
  ] as const) {
    if (!outline || other.filled) continue;
    const value = Math.min(1, product(outline, other.turns[0]!.ink)) * TURN_WEIGHT.filled * sizes;
    if (value > best.likeness) best = { likeness: value, turn: 'filled' };
  }
  return best;
}

function product(a: Float32Array, b: Float32Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
}
