import { type Bitmap, emptyBitmap, isLaid } from '../cells/bitmap';
import { type CellRect, type Chart, plainCloth } from '../cells/chart';
import { type CellPart, isInside, overlapOf, someCell, wholeRect } from '../cells/rect';
import type { TimeModel } from '../pace/timeModel';
import type { Tips } from '../placing/tips';
import { Refusal } from '../refusal';
import { cutIntoBlocks } from './blockGrid';
import { type CellWeights, calibrated, evenGrid } from './calibrate';
import { type CutTask, sittingsIn } from './cutTask';
import { secondsPerCell } from './effort';
import { squaresInSitting } from './guess';
import type { WorkOrder } from './order';
import { inOrder } from './order';
import { fillOwner, type Owners, rectsOfOwners } from './owners';
import type { CutCanvas, Piece } from './plan';
import { makeSection, type Section } from './section';
import { evenedOut, partsOf, steppedCuts } from './steppedCuts';
import { straightCuts } from './straightCuts';

/** How a canvas can be cut. */
export const CUT_KINDS = ['sittings', 'straight', 'colours', 'focal', 'strips', 'blocks'] as const;
export type CutKind = (typeof CUT_KINDS)[number];

/** What the user wishes of a cut; each kind takes what it needs. */
export interface CutWish {
  kind: CutKind;
  /** Of a sitting. */
  minutes: number;
  /** Cuts fall on every so many squares: 1, 5 or 10. */
  snap: number;
  /** Size of a block, or of a strip: its breadth is the one along `along`. */
  columns: number;
  rows: number;
  /** Which way strips run. */
  along: 'rows' | 'columns';
  /** The focal part, drawn by hand. */
  focal: CellRect | null;
  /** Largest section in squares, as a light pad, a frame or an arm allows; null for any. */
  mostColumns: number | null;
  mostRows: number | null;
  order: WorkOrder;
}

/** What a cut is made from. */
export interface CutGround {
  canvas: CutCanvas;
  /** Null where the canvas has none. */
  chart: Chart | null;
  laid: Bitmap;
  /** Colours in the list; only where there is no chart. */
  colours: number;
  tips: Tips;
  model: TimeModel;
  /** The sections as they are, whose finished ones stay. */
  now: readonly Section[];
}

/** The first cut is only a start for what follows it. */
const QUICK = 2;
const THOROUGH = 4;
/** Among so many sittings trying as thoroughly as that takes too long. */
const MANY = 250;
/** Borders in steps open fewer colours than the straight ones that they start from: the time is about this share. */
const STEPS_SAVE = 0.965;
/** From this share on another number of sittings is worth a second start. */
const OTHER_NUMBER = 0.015;
/** Where colours are to be saved, an opening weighs so much more than evenness. */
const THRIFTY = 2.5;
/** Moves of borders in all: a few seconds' worth, shared out by the cells of the areas. */
const MOST_MOVES = 12_000_000;

/**
 * Cuts a canvas as it is wished. Finished sections stay as they are, with their numbers where they can; the others are cut
 * anew from what is left. No section lies on two panels.
 * @param report share that is done, 0…1
 * @throws Refusal for a focal part that is not named or lies beside the canvas
 * @returns pieces in the order of their numbers, and the order of the work
 */
export function proposeCut(
  ground: CutGround,
  wish: CutWish,
  report: (done: number) => void = () => {},
): { pieces: Piece[]; order: WorkOrder } {
  const { canvas, laid, chart } = ground;
  const kept = finishedSections(ground);
  const owners: Owners = new Int32Array(canvas.width * canvas.height);
  // Cells of finished sections are nobody's from here on: −1.
  fillOwner(
    owners,
    canvas.width,
    kept.flatMap(({ rects }) => rects),
    -1,
  );
  const focal = wish.kind === 'focal' ? focalOf(wish, canvas) : null;
  const weights = weightsOf(ground, wish.minutes);
  const areas = areasOf(canvas, focal);
  let count = 0;
  areas.forEach((area, i) => {
    const told = (done: number) => report((i + done) / areas.length);
    count = cutArea(ground, wish, weights, area, owners, count, told);
  });
  const fresh = rectsOfOwners(owners, canvas, count).filter((rects) => rects.length > 0);
  const wantsDrill = (cell: number) => chart?.cells[cell] !== 0 || isLaid(laid, cell);
  const wanted = fresh.filter((rects) => rects.some((rect) => someCell(canvas.width, rect, wantsDrill)));
  const order =
    wish.kind === 'focal' && focal
      ? { ...wish.order, way: 'focal first' as const, focal: middleOf(focal) }
      : wish.order;
  return { pieces: numbered(kept, wanted, order, canvas), order };
}

function focalOf({ focal }: CutWish, canvas: CutCanvas): CellRect {
  const rect = focal && overlapOf(focal, wholeRect(canvas));
  if (!rect) throw new Refusal('Say which part of the canvas is the focal part, as a rectangle on it.');
  return rect;
}

function middleOf({ x, y, width, height }: CellRect): { x: number; y: number } {
  return { x: x + width / 2, y: y + height / 2 };
}

/** Sections in which all is laid, and something is. */
function finishedSections({ chart, laid, canvas, now }: CutGround): Section[] {
  const isLeft = (cell: number) => chart?.cells[cell] !== 0 && !isLaid(laid, cell);
  return now.filter(
    (section) =>
      !someCell(canvas.width, section, isLeft) &&
      someCell(canvas.width, section, (cell) => isLaid(laid, cell)),
  );
}

/** A part that is cut by itself: a panel, or in it the focal part or the rest. */
interface Area {
  rect: CellRect;
  /** Left out of it. */
  without: CellRect | null;
}

function areasOf({ panelRects }: CutCanvas, focal: CellRect | null): Area[] {
  return panelRects.flatMap((panel): Area[] => {
    const inside = focal && overlapOf(panel, focal);
    return inside
      ? [
          { rect: inside, without: null },
          { rect: panel, without: inside },
        ]
      : [{ rect: panel, without: null }];
  });
}

interface Weights extends CellWeights {
  opening: number;
  /** Lines of the cells that are left to lay. */
  left: Chart;
}

function weightsOf({ canvas, chart, laid, tips, model, colours }: CutGround, minutes: number): Weights {
  const { width, height } = canvas;
  if (!chart) {
    const left = plainCloth(width, height);
    const seconds = new Float32Array(width * height);
    // Nobody knows where the colours lie: each square takes the same, with its share of the openings in a whole sitting.
    const each = (minutes * 60) / squaresInSitting(minutes * 60, colours, model);
    for (let cell = 0; cell < seconds.length; cell++) {
      if (isLaid(laid, cell)) left.cells[cell] = 0;
      else seconds[cell] = each;
    }
    return { left, seconds, load: seconds, opening: 0 };
  }
  const left: Chart = { width, height, cells: chart.cells.slice() };
  for (let cell = 0; cell < left.cells.length; cell++) if (isLaid(laid, cell)) left.cells[cell] = 0;
  const rough = secondsPerCell(chart, laid, tips, model.seconds);
  const pieces = Math.min(4000, Math.ceil(rough.reduce((sum, each) => sum + each, 0) / USUAL_GRID_SECONDS));
  const grid = evenGrid(wholeRect(canvas), Math.max(1, pieces));
  return {
    ...calibrated(chart, laid, tips, model.seconds, rough, grid),
    left,
    opening: model.seconds.colours,
  };
}

/** Blocks of a first look, in seconds of laying. */
const USUAL_GRID_SECONDS = 2000;

/** Cuts one area; its cells get owners from `count` + 1 on. @returns the highest owner */
function cutArea(
  ground: CutGround,
  wish: CutWish,
  weights: Weights,
  { rect, without }: Area,
  owners: Owners,
  count: number,
  report: (done: number) => void,
): number {
  const { canvas } = ground;
  const give = (part: CellRect, owner: number) => {
    for (let y = part.y; y < part.y + part.height; y++) {
      for (let x = part.x; x < part.x + part.width; x++) {
        const cell = y * canvas.width + x;
        if (owners[cell] === 0 && !(without && isInside(without, { x, y }))) owners[cell] = owner;
      }
    }
  };
  if (wish.kind === 'blocks' || wish.kind === 'strips') {
    const { columns, rows, along } = wish;
    const block =
      wish.kind === 'blocks'
        ? { columns, rows }
        : along === 'columns'
          ? { columns, rows: rect.height }
          : { columns: rect.width, rows };
    const blocks = cutIntoBlocks([rect], block);
    blocks.forEach((each, i) => {
      give(each, count + i + 1);
    });
    return count + blocks.length;
  }
  // What is not cut here weighs nothing and has no colour.
  const left: Chart = { ...weights.left, cells: weights.left.cells.slice() };
  const seconds = weights.seconds.slice();
  const load = weights.load.slice();
  for (let y = rect.y; y < rect.y + rect.height; y++) {
    for (let x = rect.x; x < rect.x + rect.width; x++) {
      const cell = y * canvas.width + x;
      if (owners[cell] === 0 && !(without && isInside(without, { x, y })) && left.cells[cell] !== 0) continue;
      left.cells[cell] = 0;
      seconds[cell] = 0;
      load[cell] = 0;
    }
  }
  const task: CutTask = {
    chart: left,
    seconds,
    load,
    opening: weights.opening,
    area: rect,
    target: wish.minutes * 60,
    snap: wish.snap,
    most: { width: wish.mostColumns ?? Infinity, height: wish.mostRows ?? Infinity },
    thrift: wish.kind === 'colours' ? THRIFTY : 1,
    tried: THOROUGH,
  };
  const mostMoves = Math.ceil((MOST_MOVES * rect.width * rect.height) / (canvas.width * canvas.height));
  let straight = straightCuts({ ...task, tried: ground.chart ? QUICK : THOROUGH }, (done) =>
    report(0.2 * done),
  );
  // The pieces show where openings lie; the next cut weighs by them, and may need another number of sittings.
  let better = ground.chart
    ? recalibrated(
        ground,
        task,
        straight.map((piece) => piece.rect),
      )
    : task;
  const aimed = { ...better, target: wish.kind === 'straight' ? better.target : better.target / STEPS_SAVE };
  if (ground.chart && Math.abs(sittingsIn(aimed) / straight.length - 1) > OTHER_NUMBER) {
    straight = straightCuts({ ...aimed, tried: QUICK }, (done) => report(0.2 + 0.2 * done));
    better = recalibrated(
      ground,
      task,
      straight.map((piece) => piece.rect),
    );
  }
  if (wish.kind === 'straight' || ground.chart === null) {
    const tried = straight.length > MANY ? THOROUGH - 1 : THOROUGH;
    const pieces = ground.chart
      ? straightCuts({ ...better, tried }, (done) => report(0.4 + 0.6 * done))
      : straight;
    pieces.forEach((piece, i) => {
      give(piece.rect, count + i + 1);
    });
    report(1);
    return count + pieces.length;
  }
  const first = steppedCuts(better, straight, 0.7 * mostMoves, (done) => report(0.4 + 0.4 * done));
  // Borders in steps break runs that the weights do not know of: weighed again by the pieces as they are now.
  const known = recalibrated(ground, task, partsOf(first, straight.length));
  const stepped = evenedOut(known, first, straight.length, 0.3 * mostMoves, (done) =>
    report(0.8 + 0.2 * done),
  );
  const { width, height } = task.most;
  // Blocks are coarser than the squares of a light pad: where a piece came out too large, the straight ones fit.
  if (partsOf(stepped, straight.length).some((part) => part.width > width || part.height > height)) {
    straight.forEach((piece, i) => {
      give(piece.rect, count + i + 1);
    });
    return count + straight.length;
  }
  const { lattice, owners: blocks } = stepped;
  blocks.forEach((owner, block) => {
    give(
      lattice.cellsOf({
        x: block % lattice.columns,
        y: Math.floor(block / lattice.columns),
        width: 1,
        height: 1,
      }),
      count + owner + 1,
    );
  });
  return count + straight.length;
}

function recalibrated(ground: CutGround, task: CutTask, pieces: readonly CellPart[]): CutTask {
  const nothing = emptyBitmap(task.chart.cells.length);
  const { tips, model } = ground;
  return { ...task, ...calibrated(task.chart, nothing, tips, model.seconds, task.seconds, pieces) };
}

/**
 * Numbers for all: finished sections keep theirs where there are so many, the others take the free ones in the order of
 * the work.
 */
function numbered(
  kept: readonly Section[],
  fresh: readonly (readonly CellRect[])[],
  order: WorkOrder,
  canvas: CutCanvas,
): Piece[] {
  const all = kept.length + fresh.length;
  const pieces: (Piece | null)[] = new Array(all).fill(null);
  const late: Section[] = [];
  for (const section of kept) {
    if (section.number <= all) pieces[section.number - 1] = section;
    else late.push(section);
  }
  const turns = inOrder(
    fresh.map((rects, i) => makeSection(i + 1, rects)),
    order.way === 'numbers' ? { ...order, way: 'rows' } : order,
    canvas,
  ).sort((a, b) => a.order - b.order);
  const waiting: Piece[] = [...turns, ...late];
  return pieces.map((piece) => {
    const { rects, name } = piece ?? waiting.shift()!;
    return { rects, name };
  });
}
