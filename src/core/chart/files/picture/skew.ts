import { type Corners, cornersOf, type Spot } from './corners';
import { type Direction, edgeProfile, type Picture } from './edges';
import { findLattice, followed, type Lattice, repeatingDistance, strengthAt } from './lattice';

/** A picture is cut into so many strips, in each of which a chart that is turned a little lies nearly straight. */
const STRIPS = 22;
/** Edges stand out in a strip from this contrast on. */
const CLEAR = 1.6;
/** So many strips must tell where the chart is. */
const LEAST_STRIPS = 7;
/** In so many strips the lattice is looked for, before it is followed. */
const BEGINNINGS = 3;
/** Between one strip and the next an end moves by less than this share of a cell. */
const REACH = 0.45;
/** Strips that lie off a straight edge by more than this share of a cell tell that it is not straight. */
const STRAIGHT_WITHIN = 0.22;

/** A straight line `at = offset + slope × along`. */
interface Straight {
  offset: number;
  slope: number;
}

/**
 * Finds the corners of a chart that is turned by some degrees, or seen from the side: its lattice is found in the middle of
 * the picture and followed strip by strip to the edges, across and down; straight lines through the ends of the strips
 * meet in the corners. What is further away is smaller and closer together: how the width of the chart changes downwards
 * tells how its rows lie, and how its height changes tells of the columns.
 * @param size the canvas in cells
 * @returns what was found, across first and down first; none where the strips do not tell, or edges are not straight
 */
export function findCorners(picture: Picture, size: { width: number; height: number }): Corners[] {
  const cellsIn = { across: size.width, down: size.height };
  return (['across', 'down'] as const).flatMap((first) => {
    const second: Direction = first === 'across' ? 'down' : 'across';
    const rough = ends(picture, first, cellsIn[first], NOT_AWAY, null);
    const other = rough && ends(picture, second, cellsIn[second], distanceBy(rough), rough.pitch);
    const again = other && ends(picture, first, cellsIn[first], distanceBy(other), rough.pitch);
    if (!again) return [];
    const [columns, rows] = first === 'across' ? [again, other] : [other, again];
    const corner = (vertical: Straight, horizontal: Straight): Spot => {
      // x = a + b y and y = c + d x.
      const x =
        (vertical.offset + vertical.slope * horizontal.offset) / (1 - vertical.slope * horizontal.slope);
      return { x, y: horizontal.offset + horizontal.slope * x };
    };
    const corners: Corners = [
      corner(columns.first, rows.first),
      corner(columns.last, rows.first),
      corner(columns.last, rows.last),
      corner(columns.first, rows.last),
    ];
    return [corners];
  });
}

/** How places along one direction of the picture lie on the paper, as if all of it were as near as the middle. */
interface Away {
  /** @param at pixels along the direction */
  flat(at: number): number;
  seen(flat: number): number;
}
const NOT_AWAY: Away = { flat: (at) => at, seen: (flat) => flat };

/** The lines through which a lattice runs, as both its ends tell. */
interface Ends {
  first: Straight;
  last: Straight;
  /** Middle of the picture along these lines. */
  middle: number;
  /** Pixels a cell. */
  pitch: number;
}

/**
 * On a plane seen by a camera a length at right angles shrinks linearly with the place; the paper's own scale is its
 * square (from the equations of central projection).
 */
function distanceBy({ first, last, middle }: Ends): Away {
  const grows = last.slope - first.slope;
  const here = last.offset - first.offset + grows * middle;
  return {
    flat: (at) => middle + ((at - middle) * here) / (here + grows * (at - middle)),
    seen: (flat) => middle + ((flat - middle) * here) / (here - grows * (flat - middle)),
  };
}

/** Edges as they would be on paper that is everywhere as near as its middle. */
function flattened(edges: Float64Array, away: Away): Float64Array {
  if (away === NOT_AWAY) return edges;
  return edges.map((_, flat) => {
    const seen = away.seen(flat);
    const low = Math.floor(seen);
    return (edges[low] ?? 0) * (1 - seen + low) + (edges[low + 1] ?? 0) * (seen - low);
  });
}

/** Where the first and the last line of the lattice run. */
function ends(
  picture: Picture,
  direction: Direction,
  cells: number,
  away: Away,
  near: number | null,
): Ends | null {
  const lines = direction === 'across' ? picture.height : picture.width;
  const strip = (i: number) => ({ from: (i * lines) / STRIPS, to: ((i + 1) * lines) / STRIPS });
  const profiles = Array.from({ length: STRIPS }, (_, i) =>
    flattened(edgeProfile(picture, direction, strip(i)), away),
  );
  const begin = bestStrip(profiles, cells, near);
  if (!begin) return null;
  const found = new Map<number, Lattice>([[begin.at, begin.lattice]]);
  for (const step of [1, -1]) {
    let before = begin.lattice;
    for (let i = begin.at + step; i >= 0 && i < STRIPS; i += step) {
      const here = followed(profiles[i]!, before, cells, REACH);
      if (here.contrast < CLEAR) continue;
      found.set(i, here);
      before = here;
    }
  }
  if (found.size < LEAST_STRIPS) return null;
  const middleOf = (i: number) => (strip(i).from + strip(i).to) / 2;
  const points = (end: (lattice: Lattice) => number) =>
    [...found].map(([i, lattice]) => ({ along: middleOf(i), at: away.seen(end(lattice)) }));
  const first = straight(points(({ start }) => start));
  const last = straight(points(({ start, pitch }) => start + cells * pitch));
  const within = STRAIGHT_WITHIN * begin.lattice.pitch;
  return first.off > within || last.off > within
    ? null
    : { first, last, middle: lines / 2, pitch: begin.lattice.pitch };
}

/** The strip in which a lattice stands out most. */
function bestStrip(
  profiles: readonly Float64Array[],
  cells: number,
  near: number | null,
): { at: number; lattice: Lattice } | null {
  const seen = repeatingDistance(profiles, near);
  if (seen === null) return null;
  const strongest = profiles
    .map((profile, at) => ({ at, strength: strengthAt(profile, seen) }))
    .sort((a, b) => b.strength - a.strength);
  let best: { at: number; lattice: Lattice } | null = null;
  for (const { at } of strongest.slice(0, BEGINNINGS)) {
    const lattice = findLattice(profiles[at]!, cells, seen);
    if (lattice && lattice.contrast > (best?.lattice.contrast ?? CLEAR)) best = { at, lattice };
  }
  return best;
}

/**
 * A straight line through most points: least squares, in rounds that leave out what lies off by more than twice the
 * median.
 * @returns with the median distance of the points that were kept
 */
function straight(points: readonly { along: number; at: number }[]): Straight & { off: number } {
  let kept = [...points];
  let line = leastSquares(kept);
  for (let round = 0; round < 3; round++) {
    const offs = points.map(({ along, at }) => Math.abs(at - line.offset - line.slope * along));
    const limit = Math.max(0.3, 2.5 * median(offs));
    kept = points.filter((_, i) => offs[i]! <= limit);
    line = leastSquares(kept);
  }
  return {
    ...line,
    off: median(points.map(({ along, at }) => Math.abs(at - line.offset - line.slope * along))),
  };
}

function leastSquares(points: readonly { along: number; at: number }[]): Straight {
  const n = points.length;
  const meanAlong = points.reduce((sum, { along }) => sum + along, 0) / n;
  const meanAt = points.reduce((sum, { at }) => sum + at, 0) / n;
  let [over, under] = [0, 0];
  for (const { along, at } of points) {
    over += (along - meanAlong) * (at - meanAt);
    under += (along - meanAlong) ** 2;
  }
  const slope = under === 0 ? 0 : over / under;
  return { slope, offset: meanAt - slope * meanAlong };
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? 0;
}

/** Corners of two lattices that stand upright. */
export function uprightCorners(
  across: Lattice,
  down: Lattice,
  size: { width: number; height: number },
): Corners {
  return cornersOf(
    across.start,
    down.start,
    across.start + size.width * across.pitch,
    down.start + size.height * down.pitch,
  );
}
