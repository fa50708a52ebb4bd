import type { LegendLine } from '../../core/canvas/legend';
import { type Chart, makeChart } from '../../core/cells/chart';
import { labelsOf } from '../../core/reading/keptReading';
import { acceptedChart, onCanvas, shareRead } from '../../core/reading/review';
import { stitched } from '../../core/reading/stitch';
import { Refusal } from '../../core/refusal';
import { counted } from '../../core/words/numbers';
import type { ReadingPhoto } from './contract';

/** What photos were read as, and all else that a chart is made of. */
export interface AcceptInput {
  /** Those of the canvas that are used, in their order, by which people number them. */
  photos: ReadingPhoto[];
  answers: [square: number, line: number][];
  width: number;
  height: number;
  legend: LegendLine[];
  before: Uint16Array | null;
}

export interface Accepted {
  chart: Chart;
  /** Photo of each square, run by run: `photo×squares`, photos from 1 in their order, 0 for none. */
  origins: string;
  read: number;
  /** Squares that nobody looked at though they were in doubt. */
  open: number;
  /** Squares of the chart before that are another colour now. */
  changed: number;
}

/** Makes the chart of readings and answers. @throws Refusal with what stands in its way */
export async function acceptReading(input: AcceptInput): Promise<Accepted> {
  const { width, height, legend, before } = input;
  const numbers = input.photos.flatMap(({ reading }, i) => (reading ? [i + 1] : []));
  const placed = input.photos.flatMap(({ reading, at }) =>
    reading ? [{ reading: labelsOf(reading), at }] : [],
  );
  const together = stitched(placed);
  const [lost] = together.unclear;
  if (lost)
    throw new Refusal(
      `It is not clear where photo ${numbers[lost.photo]} lies. Say which column and row its upper left square is in, or remove it.`,
    );
  const all = onCanvas(together, new Map(input.answers), { width, height });
  const chart = acceptedChart(
    all,
    together.contradicted,
    numbers,
    legend,
    before && makeChart(width, height, before),
  );
  const { read, open } = shareRead(all);
  const runs: string[] = [];
  for (let cell = 0, from = 0; cell < all.from.length; cell++) {
    if (all.from[cell] === all.from[cell + 1]) continue;
    runs.push(`${all.from[cell]! + 1}×${cell + 1 - from}`);
    from = cell + 1;
  }
  let changed = 0;
  before?.forEach((line, cell) => {
    if (line !== 0 && line !== chart.cells[cell]) changed++;
  });
  return { chart, origins: runs.join(' '), read, open, changed };
}

/** What was done, in a sentence. */
export function acceptedInWords({
  read,
  open,
  changed,
}: Pick<Accepted, 'read' | 'open' | 'changed'>): string {
  const doubt = open === 0 ? '' : `, ${counted(open, 'square')} of them still in doubt`;
  const other = changed === 0 ? '' : ` ${counted(changed, 'square')} of the chart before changed colour.`;
  return `${counted(read, 'square')} read from photos${doubt}.${other}`;
}
