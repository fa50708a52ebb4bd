import type { LegendLine } from '../../../canvas/legend';
import {
  type ChartReading,
  COMPRESSED_COLOUR,
  chartFromPixels,
  NEAREST_COLOUR,
  SAME_COLOUR,
} from '../fromPixels';
import { cellColours } from './cellColours';
import { type Corners, isUpright, turnedBy } from './corners';
import type { Picture } from './edges';
import { type FoundCells, findCells, fitOf, type Size } from './findCells';
import type { ReadPicture } from './readPicture';
import { doubtOf, surenessOf } from './sureness';

/** How a picture is read. */
export interface PictureWish {
  /** Colours are not exactly as they were drawn (JPEG). */
  compressed: boolean;
  /** No colour is left out, however far it is. */
  nearest: boolean;
  /** Corners of the chart as somebody marked them. */
  corners?: Corners | null;
}

/**
 * Reads a chart from a picture.
 * @throws Refusal as {@link findCells}
 */
export function chartFromPicture(
  picture: Picture,
  size: Size,
  legend: readonly LegendLine[],
  how: PictureWish,
): ChartReading & { picture: ReadPicture } {
  const found = findCells(picture, size, how.corners ?? null);
  const { rgba, agreement } = cellColours(picture, size, found.corners);
  const rule = how.nearest ? NEAREST_COLOUR : how.compressed ? COMPRESSED_COLOUR : SAME_COLOUR;
  const { matchOf, ...reading } = chartFromPixels(size.width, size.height, rgba, legend, rule);
  const astray = agreement ? partsAstray(picture, size, found.corners) : () => false;
  const sure = surenessOf(reading.chart, (cell) => {
    const match = matchOf(cell);
    const doubt =
      match === null
        ? 0
        : doubtOf({
            agreement: agreement?.[cell] ?? 1,
            difference: match.line === 0 ? null : match.difference,
            next: match.next?.difference ?? Number.POSITIVE_INFINITY,
            astray: astray(cell % size.width, Math.floor(cell / size.width)),
          });
    return { hex: match?.hex ?? '', other: match?.next?.line ?? null, doubt };
  });
  const { width, height } = picture;
  return {
    ...reading,
    notices: [...notices(found, size, how), ...twins(legend)],
    picture: {
      width,
      height,
      columns: size.width,
      rows: size.height,
      corners: found.corners,
      by: found.by,
      sure,
    },
  };
}

/** A picture is looked at in so many parts a side for cells that lie beside their place. */
const PARTS = 6;

/** Parts of the picture where colours change within the cells rather than between them. */
function partsAstray(picture: Picture, size: Size, corners: Corners): (x: number, y: number) => boolean {
  const [wide, high] = [size.width, size.height].map((cells) => Math.max(1, Math.ceil(cells / PARTS))) as [
    number,
    number,
  ];
  const columns = Math.ceil(size.width / wide);
  const astray = Array.from({ length: columns * Math.ceil(size.height / high) }, (_, part) => {
    const [x, y] = [(part % columns) * wide, Math.floor(part / columns) * high];
    const width = Math.min(wide, size.width - x);
    const height = Math.min(high, size.height - y);
    return fitOf(picture, size, corners, { x, y, width, height }) < 1;
  });
  return (x, y) => astray[Math.floor(y / high) * columns + Math.floor(x / wide)]!;
}

function notices({ corners, by, finer }: FoundCells, size: Size, how: PictureWish): string[] {
  const said: string[] = [];
  const wide = (corners[1].x - corners[0].x) / size.width;
  const high = (corners[3].y - corners[0].y) / size.height;
  const px = (value: number) => Number(value.toFixed(2));
  if (!isUpright(corners, Math.min(wide, high) / 4)) {
    const turned = Math.abs(turnedBy(corners));
    said.push(
      by === 'hand'
        ? 'The chart was read between the corners that you marked.'
        : `The chart is turned on this picture, turned by ${turned.toFixed(1)}° at its upper edge. It was read between the corners shown; look whether they sit right.`,
    );
  } else if (wide !== 1 || high !== 1) {
    said.push(
      `A square is ${px(wide)} × ${px(high)} pixels large on this picture; the inner part of each was read.`,
    );
  }
  if (finer) {
    said.push(
      `Its squares look smaller than that: the picture seems to show ${finer}. Check before you save.`,
    );
  }
  if (how.compressed) {
    said.push(
      'This file is compressed, which blurs colours where squares meet. Look at the colours taken as the same before you save; a PNG is exact.',
    );
  }
  return said;
}

/** Lines that a picture cannot tell apart. */
function twins(legend: readonly LegendLine[]): string[] {
  return legend.flatMap((line, i) => {
    const first = legend.findIndex(({ hex }) => hex !== null && hex === line.hex);
    return first >= 0 && first < i
      ? [
          `${legend[first]!.code} and ${line.code} have the same tint in the colour list, so no picture tells them apart: all these squares go to ${legend[first]!.code}.`,
        ]
      : [];
  });
}
