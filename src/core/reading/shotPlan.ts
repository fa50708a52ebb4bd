import type { CellRect } from '../cells/chart';
import { overlapOf } from '../cells/rect';

/** Pixels of a square that read well; most columns and rows of one photo (what a camera of 12 megapixels takes sharply). */
const GOOD_CELL_PX = 45;
const MOST_COLUMNS = 70;
const MOST_ROWS = 55;
/** Share of a photo's width and height that the squares fill: around them lies what a free hand cannot frame. */
const FILLED = 0.8;
/** Longer side over shorter one of a usual camera's photo. */
const ASPECT = 4 / 3;
/** Columns and rows that two neighbouring photos both show. */
const SHOT_OVERLAP = 6;

/** Which squares each photo is to show. */
export interface ShotPlan {
  /** Row by row; all of one size, but for rounding. */
  shots: CellRect[];
  across: number;
  down: number;
  /** Pixels of a square that come of it. */
  cellPx: number;
  /** Whether the camera is held upright. */
  upright: boolean;
}

/**
 * So many photos, and which squares each, so that squares are large enough to be read and neighbours overlap enough to be
 * put together by what they show.
 * @param megapixels of the camera, 2 or more
 * @example shotPlan({ width: 120, height: 160 }, 12).shots.length // 6
 */
export function shotPlan(canvas: { width: number; height: number }, megapixels: number): ShotPlan {
  const long = Math.sqrt(megapixels * 1e6 * ASPECT) * FILLED;
  const plans = [false, true].map((upright) => {
    const [wide, tall] = upright ? [long / ASPECT, long] : [long, long / ASPECT];
    const [mostColumns, mostRows] = upright ? [MOST_ROWS, MOST_COLUMNS] : [MOST_COLUMNS, MOST_ROWS];
    const columns = Math.max(SHOT_OVERLAP + 4, Math.min(mostColumns, Math.floor(wide / GOOD_CELL_PX)));
    const rows = Math.max(SHOT_OVERLAP + 4, Math.min(mostRows, Math.floor(tall / GOOD_CELL_PX)));
    const [across, down] = [parts(canvas.width, columns), parts(canvas.height, rows)];
    const shots = down.flatMap(({ from: y, length: height }) =>
      across.map(({ from: x, length: width }) => ({ x, y, width, height })),
    );
    const largest = { width: across[0]!.length, height: down[0]!.length };
    const cellPx = Math.min(wide / largest.width, tall / largest.height);
    return { shots, across: across.length, down: down.length, cellPx, upright };
  }) as [ShotPlan, ShotPlan];
  const [lying, upright] = plans;
  return upright.shots.length < lying.shots.length ? upright : lying;
}

/** A length cut into equal parts of `most` at most that overlap. */
function parts(whole: number, most: number): { from: number; length: number }[] {
  if (whole <= most) return [{ from: 0, length: whole }];
  const count = Math.ceil((whole - SHOT_OVERLAP) / (most - SHOT_OVERLAP));
  const length = Math.ceil((whole + (count - 1) * SHOT_OVERLAP) / count);
  return Array.from({ length: count }, (_, i) => ({
    from: Math.round((i * (whole - length)) / (count - 1)),
    length,
  }));
}

/** How far the photo of a part is. */
export type ShotState = 'missing' | 'there' | 'read';

/** A photo that shows so much of a part is taken for that part's. */
const SHOWS = 0.7;

/** How far the photo of a part is. @param photos where each lies, null where that is not known, and whether it is read */
export function stateOfShot(
  part: CellRect,
  photos: readonly { shows: CellRect | null; read: boolean }[],
): ShotState {
  const own = photos.filter(({ shows }) => {
    const shared = shows && overlapOf(shows, part);
    return shared !== null && shared.width * shared.height > SHOWS * part.width * part.height;
  });
  if (own.some(({ read }) => read)) return 'read';
  return own.length > 0 ? 'there' : 'missing';
}
