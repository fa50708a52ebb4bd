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
export type Turn = 'same' | 'mirrored' | 'upside down' | 'turned';

/** How far each way still counts as alike: a mirror image is hardly less confusing, a turned one is somewhat. */
const TURN_WEIGHT: Record<Turn, number> = { same: 1, mirrored: 0.97, 'upside down': 0.93, turned: 0.93 };

/** Values that a symbol takes in each of the ways; the comparison of many pairs needs them once. */
export interface TurnedShape {
  size: number;
  turns: { turn: Turn; ink: Float32Array }[];
}

const TURN_STEP_DEGREES = 15;

/** Prepares a shape for comparing: as it is, both mirror images, and turned in steps of 15° up to a quarter each way. */
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
  for (let degrees = -90; degrees <= 90; degrees += TURN_STEP_DEGREES) {
    if (degrees === 0) continue;
    const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    turns.push({ turn: 'turned', ink: moved((dx, dy) => [dx * cos - dy * sin, dx * sin + dy * cos]) });
  }
  return { size: shape.size, turns };
}

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
    let correlation = 0;
    for (let i = 0; i < ink.length; i++) correlation += upright[i]! * ink[i]!;
    const value = Math.min(1, correlation) * TURN_WEIGHT[turn] * sizes;
    if (value > best.likeness) best = { likeness: value, turn };
  }
  return best;
}
