import { Refusal } from '../refusal';
import { homographyTo } from '../view/projective';
import { many } from '../words/numbers';
import { type CellLooks, EDGE, LOOK_SIDE, looksOf } from './cellLooks';
import {
  BlurredSamples,
  type ClassSample,
  correlations,
  fitOf,
  learnt,
  likelyByDiscriminant,
  likelyByFit,
  shiftsOf,
  type Templates,
  type Verdicts,
  verdicts,
} from './classify';
import { doubtOf, FLAGGED_FROM } from './doubt';
import { type Corners, faultInCorners } from './homography';
import { type LightField, labOfLight, lightField, litAs } from './light';
import { type Mesh, meshMovedByCells, refinedMesh } from './mesh';
import { type Photo, type SmallPhoto, shrunk } from './photo';
import { smoothField } from './smoothField';
import { TORN_DOUBT, tornRegions } from './tornRegions';
import { wrongWayRound } from './wrongWayRound';

/** What one photograph says of its cells, row by row. */
export interface Reading {
  columns: number;
  rows: number;
  /** Line of each cell. */
  cells: Uint16Array;
  /** The line that it may be else; 0 where there is no other. */
  others: Uint16Array;
  /** Chance that the line is wrong, 0…1. */
  doubt: Float32Array;
  /** 1 where somebody has to look. */
  flagged: Uint8Array;
  /** 1 in regions that end where nothing ends, see {@link tornRegions}. */
  torn: Uint8Array;
  mesh: Mesh;
  /** Pixels of a cell in the photograph, about. */
  cellPx: number;
}

/** What of a reading is needed to put photographs together. */
export type Labels = Pick<Reading, 'columns' | 'rows' | 'cells' | 'others' | 'doubt' | 'torn'>;

/** From so many pixels a cell on a photograph is read; below the second number it is warned of. */
export const LEAST_CELL_PX = 15;
export const ENOUGH_CELL_PX = 20;
/** A photograph is made smaller until a cell has no more than so many pixels. */
const WORKING_PX = 30;
/** Most cells of a photograph. */
const MOST_CELLS = 20_000;

/** Side of a cell in pixels: the square root of its mean area. */
export function cellPixels(corners: Corners, columns: number, rows: number): number {
  const area = corners.reduce((sum, [x, y], i) => {
    const [nx, ny] = corners[(i + 1) % 4]!;
    return sum + x * ny - nx * y;
  }, 0);
  return Math.sqrt(Math.abs(area) / 2 / (columns * rows));
}

/** How a photograph is made smaller before it is looked at. @throws Refusal where its cells are too small to be read */
export function smallPhotoFor(photo: Photo, corners: Corners, columns: number, rows: number): SmallPhoto {
  const fault = faultInCorners(corners, photo);
  if (fault !== null) throw new Refusal(fault);
  if (!(Number.isInteger(columns) && Number.isInteger(rows) && columns > 0 && rows > 0))
    throw new Refusal('Say how many columns and rows of squares lie between the corners.');
  if (columns * rows > MOST_CELLS)
    throw new Refusal(`A photo of more than ${many(MOST_CELLS)} squares cannot be sharp enough.`);
  const px = cellPixels(corners, columns, rows);
  if (px < LEAST_CELL_PX)
    throw new Refusal(
      `The photo shows a square with ${px.toFixed(0)} pixels; ${LEAST_CELL_PX} are needed, 30 to 45 are good. Go nearer, or take more photos.`,
    );
  return shrunk(photo, Math.max(1, Math.floor(px / (WORKING_PX * 0.66))));
}

/** Rounds at most in which glyphs correct the mesh, and by how little (in cells) in the last one that is needed. */
const ALIGNED = 3;
const UNMOVED = 0.02;
/** Rounds in which the photograph teaches its own classes. */
const LEARNT = 2;

/** How a photograph is read. */
export interface ReadingWish {
  /** The mesh where it was followed before; else it is followed now. */
  mesh?: Mesh;
  /** Told the share that is done, 0…1. */
  progress?: (share: number) => void;
}

/**
 * Reads the cells of a photograph: follows the mesh, compares each cell with the samples by glyph and tint in the light
 * that falls there, and says how sure it is.
 * @param samples at least two colours
 * @throws Refusal as {@link smallPhotoFor} does, and where the squares are seen from behind or lie the wrong way round
 */
export function readPhoto(
  photo: Photo,
  corners: Corners,
  columns: number,
  rows: number,
  samples: readonly ClassSample[],
  { mesh: followed, progress = () => {} }: ReadingWish = {},
): Reading {
  if (samples.length < 2) throw new Refusal('Give samples of at least two colours.');
  const small = smallPhotoFor(photo, corners, columns, rows);
  progress(0.1);
  let mesh = followed ?? refinedMesh(small, homographyTo(corners, columns, rows), columns, rows);
  progress(0.5);
  let looks = looksOf(small, mesh);
  const blurred = new BlurredSamples(samples);
  const sigma = blurred.of(looks);
  const turned = wrongWayRound(looks, samples, sigma);
  if (turned !== null) throw new Refusal(turned);
  let templates = blurred.with(sigma);
  let judged = judgedBy(looks, templates, columns, rows, 0);
  for (let round = 1, settled = false; !settled; round++) {
    const aligned = alignedTo(mesh, looks, templates, judged);
    mesh = aligned.mesh;
    settled = round === ALIGNED || aligned.most < UNMOVED;
    looks = looksOf(small, mesh);
    // What lies beside its cell looks more blurred than it is: the better the mesh, the better this is known.
    templates = blurred.with(blurred.of(looks));
    judged = judgedBy(looks, templates, columns, rows, settled ? OWN_SHARE : 0, judged);
    progress(0.53 + round * 0.07);
  }
  const samplesAsThey = templates;
  for (let round = 0; round < LEARNT; round++) {
    templates = learnt(samplesAsThey, looks, judged.verdicts, judged.trusted);
    const glyphs = likelyByDiscriminant(looks, templates, judged.verdicts, judged.trusted);
    judged = judgedBy(looks, templates, columns, rows, OWN_SHARE, judged, glyphs);
    progress(0.85 + round * 0.1);
  }
  const { best, second, margin, fit } = judged.verdicts;
  // What the photograph taught may be wrong: a cell has to look like the printed sample too.
  const printed = fitOf(looks, samplesAsThey, best);
  const doubt = doubtOf({ margin, fit: fit.map((value, cell) => Math.min(value, printed[cell]!)) });
  const torn = tornRegions(looks, best, columns, rows);
  torn.forEach((isTorn, cell) => {
    if (isTorn) doubt[cell] = Math.max(doubt[cell]!, TORN_DOUBT);
  });
  return {
    columns,
    rows,
    cells: Uint16Array.from(best, (k) => samples[k]!.line),
    others: Uint16Array.from(second, (k) => (k < 0 ? 0 : samples[k]!.line)),
    doubt,
    flagged: Uint8Array.from(doubt, (value) => (value > FLAGGED_FROM ? 1 : 0)),
    torn,
    mesh,
    cellPx: cellPixels(corners, columns, rows),
  };
}

interface Judged {
  verdicts: Verdicts;
  /** 1 where a class is sure enough to be learnt from. */
  trusted: Uint8Array;
}

/**
 * How much cells of a class tell of the light on their own class, once most are told right; nothing before. A region that
 * was taken for another colour would teach the light that makes it so: what lies around it has to say.
 */
const OWN_SHARE = 0.2;
/** So often light and classes are found by each other before anything else is. */
const LIT = 2;

/** How much likelier than the next a cell must be to be learnt from. */
const TRUST_MARGIN = 5;
const TRUST_FIT = 0.55;

/**
 * Judges all cells by glyph and tint, in the light that is fitted to those that were sure before; where nothing was judged
 * before, to those whose glyphs are sure.
 * @param ownShare see {@link lightField}
 * @param discriminated how likely each class is by its glyph, where a discriminant tells
 */
function judgedBy(
  looks: CellLooks,
  templates: Templates,
  columns: number,
  rows: number,
  ownShare: number,
  before: Judged | null = null,
  discriminated: Float32Array | null = null,
): Judged {
  const glyphs = discriminated ?? likelyByFit(correlations(looks, templates));
  let judged = before?.verdicts ?? verdicts(looks, templates, glyphs, null, 1);
  let trusted = trustIn(judged);
  // While the mesh still moves, once more is enough: what is found is looked for again.
  const rounds = before !== null && ownShare === 0 ? 1 : LIT;
  for (let round = 0; round < rounds; round++) {
    const light = lightField(
      looks.tints,
      judged.best,
      templates.tints,
      Float32Array.from(trusted, (sure, cell) => (sure ? 1 - looks.clipped[cell]! : 0)),
      columns,
      rows,
      ownShare,
    );
    const spread = spreadOf(looks, templates, judged, trusted, light);
    judged = verdicts(looks, templates, glyphs, light, spread);
    trusted = trustIn(judged);
  }
  return { verdicts: judged, trusted };
}

function trustIn({ margin, fit }: Verdicts): Uint8Array {
  return Uint8Array.from(margin, (value, cell) => (value > TRUST_MARGIN && fit[cell]! > TRUST_FIT ? 1 : 0));
}

/** Least and most that tints differ from their class (ΔE). */
const LEAST_SPREAD = 1.6;
const MOST_SPREAD = 9;

/** How far tints usually lie off their class in this photograph (ΔE; the middle one, as a standard deviation of each axis). */
function spreadOf(
  looks: CellLooks,
  templates: Templates,
  { best }: Verdicts,
  trusted: Uint8Array,
  light: LightField,
): number {
  const far: number[] = [];
  for (let cell = 0; cell < looks.count; cell++) {
    if (!trusted[cell]) continue;
    const seen = labOfLight(...litAs(light, cell, looks.tints));
    const meant = labOfLight(...templates.tints[best[cell]!]!);
    far.push(Math.hypot(seen[0] - meant[0], seen[1] - meant[1], seen[2] - meant[2]));
  }
  far.sort((a, b) => a - b);
  // The middle of the length of three normal values is 1.54 standard deviations.
  return Math.min(MOST_SPREAD, Math.max(LEAST_SPREAD, (far[far.length >> 1] ?? 4) / 1.54));
}

/** The mesh moved so that recognised glyphs lie in the middle of their cells; how far it was moved at most, in cells. */
function alignedTo(
  mesh: Mesh,
  looks: CellLooks,
  templates: Templates,
  { verdicts, trusted }: Judged,
): { mesh: Mesh; most: number } {
  const { across, down } = shiftsOf(looks, templates, verdicts, trusted);
  const trust = Float32Array.from(trusted);
  const inCells = (field: Float32Array) =>
    smoothField(
      field.map((value) => (Math.max(-2.5, Math.min(2.5, value)) * (1 - 2 * EDGE)) / LOOK_SIDE),
      trust,
      mesh.columns,
      mesh.rows,
      3,
    );
  const moves = [inCells(across), inCells(down)] as const;
  const most = Math.max(
    ...moves.map((field) => field.reduce((far, move) => Math.max(far, Math.abs(move)), 0)),
  );
  return { mesh: meshMovedByCells(mesh, ...moves), most };
}
