import type { Rgb } from '../colour/rgb';
import { Refusal } from '../refusal';
import { homographyTo } from '../view/projective';
import { type CellLooks, LOOK_PIXELS, looksOf, looksOfPieces, unit } from './cellLooks';
import type { ClassSample } from './classify';
import { type Corners, faultInCorners } from './homography';
import { labOfLight } from './light';
import { type Mesh, refinedMesh } from './mesh';
import { emptyChannels, emptyPlaces, type Photo, type SmallPhoto, shrunk, valuesAt } from './photo';
import { cellPixels, LEAST_CELL_PX, smallPhotoFor } from './readPhoto';

/** A printed swatch of a colour: one cell with its symbol, on white paper. */
export interface Swatch {
  line: number;
  corners: Corners;
}

/** A swatch is made smaller until it has no more than so many pixels along its side. */
const WORKING_PX = 40;
/** Where the paper beside a swatch is looked at, in sides of the swatch from its middle. */
const BESIDE = [0.68, 0.78, 0.9];

/**
 * The symbol and the tint of each swatch. Tints are divided by the white of the paper beside, so that the light that fell
 * there is taken out.
 * @throws Refusal where a swatch is too small, or a line has more than one
 */
export function samplesOf(photo: Photo, swatches: readonly Swatch[]): ClassSample[] {
  for (const { line, corners } of swatches) {
    const fault = faultInCorners(corners, photo);
    if (fault !== null) throw new Refusal(`The swatch of line ${line}: ${fault}`);
  }
  const seen = new Set<number>();
  const smallest = swatches.reduce((least, { corners }) => Math.min(least, cellPixels(corners, 1, 1)), 1e6);
  if (smallest < LEAST_CELL_PX)
    throw new Refusal(
      `A swatch has ${smallest.toFixed(0)} pixels along its side; ${LEAST_CELL_PX} are needed. Go nearer.`,
    );
  const small = shrunk(photo, Math.max(1, Math.floor(smallest / (WORKING_PX * 0.66))));
  const looks = looksOfPieces(
    small,
    swatches.map(({ corners }) => corners),
  );
  return swatches.map(({ line, corners }, i) => {
    if (seen.has(line)) throw new Refusal(`Line ${line} has two swatches; leave one out.`);
    seen.add(line);
    const white = paperBeside(small, corners);
    return {
      line,
      glyph: looks.glyphs.slice(i * LOOK_PIXELS, (i + 1) * LOOK_PIXELS),
      tint: [0, 1, 2].map((channel) => looks.tints[i * 3 + channel]! / white[channel]!) as [
        number,
        number,
        number,
      ],
    };
  });
}

/** Linear light of the paper around a piece: the bright end of what lies there. */
function paperBeside(small: SmallPhoto, corners: Corners): number[] {
  const [mx, my] = [0, 1].map((axis) => corners.reduce((sum, spot) => sum + spot[axis]!, 0) / 4) as [
    number,
    number,
  ];
  const around = corners.flatMap((from, edge) => {
    const to = corners[(edge + 1) % 4]!;
    return [1, 2, 3, 4, 5].flatMap((k) =>
      BESIDE.map((far) => [
        mx + (from[0] + ((to[0] - from[0]) * k) / 6 - mx) * far * 2,
        my + (from[1] + ((to[1] - from[1]) * k) / 6 - my) * far * 2,
      ]),
    );
  });
  const places = emptyPlaces(around.length);
  around.forEach(([x, y], i) => {
    places.x[i] = x!;
    places.y[i] = y!;
  });
  const seen = emptyChannels(around.length);
  valuesAt(small, places, seen);
  return seen.slice(0, 3).map((values) => {
    values.sort();
    return Math.max(0.05, values[Math.floor(values.length * 0.8)]!);
  });
}

/** A cell of which somebody said which colour it is. */
export interface Example {
  line: number;
  column: number;
  row: number;
}

/**
 * Samples from cells of a photograph itself; several of one line make one sample: the mean of their glyphs, and the tint of
 * the darkest, for shine adds more light than any shade takes away. Tints are as the light falls there.
 * @param mesh where it was followed before @throws Refusal where a cell lies outside the photograph's rectangle
 */
export function samplesOfExamples(
  photo: Photo,
  corners: Corners,
  columns: number,
  rows: number,
  examples: readonly Example[],
  mesh?: Mesh,
): ClassSample[] {
  const outside = examples.find(
    ({ column, row }) => !(column >= 0 && row >= 0 && column < columns && row < rows),
  );
  if (outside) throw new Refusal(`The photo has no square in column ${outside.column}, row ${outside.row}.`);
  const small = smallPhotoFor(photo, corners, columns, rows);
  const looks = looksOf(
    small,
    mesh ?? refinedMesh(small, homographyTo(corners, columns, rows), columns, rows),
  );
  return [...new Set(examples.map(({ line }) => line))].map((line) =>
    sampleOf(
      line,
      looks,
      examples.filter((each) => each.line === line).map(({ column, row }) => row * columns + column),
    ),
  );
}

function sampleOf(line: number, looks: CellLooks, cells: readonly number[]): ClassSample {
  const glyph = new Float32Array(LOOK_PIXELS);
  for (const cell of cells)
    for (let i = 0; i < LOOK_PIXELS; i++) glyph[i]! += looks.glyphs[cell * LOOK_PIXELS + i]!;
  const tints = cells.map((cell) => {
    const [red, green, blue] = looks.tints.subarray(cell * 3, cell * 3 + 3);
    return [red!, green!, blue!] as const;
  });
  const lightness = ([red, green, blue]: Rgb) => labOfLight(red, green, blue)[0];
  const tint = tints.reduce((darkest, each) => (lightness(each) < lightness(darkest) ? each : darkest));
  return { line, glyph: unit(glyph), tint };
}
