import type { Bitmap } from '../cells/bitmap';
import { type Chart, plainCloth } from '../cells/chart';
import { type Minutes, minutesFor, type TimeModel } from '../pace/timeModel';
import type { Tips } from '../placing/tips';
import { type CoverSheet, coverPieces, coverSheets, exposureOf, stripsFromRoll } from './cover';
import { effortOf } from './effort';
import { type Misfit, misfits } from './fit';
import { guessedEffort } from './guess';
import { conflictInWords, handConflicts } from './hand';
import type { WorkOrder } from './order';
import type { CutCanvas } from './plan';
import { type Section, type SectionTally, tallySections } from './section';
import { fitOf, type SectionWish } from './wish';

/** What sections are judged on. */
export interface JudgedGround {
  canvas: CutCanvas & { pitchMm: number };
  /** Null where the canvas has none. */
  chart: Chart | null;
  laid: Bitmap;
  /** Highest line of the colour list, and how many colours it has. */
  lines: number;
  colours: number;
  tips: Tips;
  model: TimeModel;
}

/** A section with all that is known of it. */
export interface JudgedSection extends SectionTally {
  /** For what is left of it. */
  minutes: Minutes;
  /** Why the resting hand is in the way; null where it is not. */
  conflict: string | null;
  misfits: Misfit[];
  /** Adhesive that lies bare while it is worked, cm². */
  bareCm2: number;
}

/** Judges sections: what they hold, how long they take, whether hand, light pad and arm go with them. */
export function judgeSections(
  ground: JudgedGround,
  sections: readonly Section[],
  order: WorkOrder,
  wish: SectionWish,
): JudgedSection[] {
  const { canvas, chart, laid, lines } = ground;
  const cloth = chart ?? plainCloth(canvas.width, canvas.height);
  const sheets = sheetsOf(canvas, sections, wish).map(({ rect }) => rect);
  const pieces = coverPieces(wish.cover, canvas, sections, order, sheets);
  const bare = exposureOf(canvas, chart, laid, sections, pieces);
  const conflicts = handConflicts(canvas, chart, laid, sections, order, { ...wish, sheets });
  const unfit = misfits(canvas, sections, fitOf(wish));
  return tallySections(cloth, laid, sections, Math.max(1, lines)).map((tally) => {
    const { number } = tally.section;
    const conflict = conflicts.get(number);
    return {
      ...tally,
      minutes: minutesOf(ground, tally),
      conflict: conflict ? conflictInWords(conflict, wish.hand) : null,
      misfits: unfit.get(number) ?? [],
      bareCm2: bare.bySection.get(number) ?? 0,
    };
  });
}

/** Sheets of a cover; none where it is not of sheets. */
export function sheetsOf(
  canvas: CutCanvas & { pitchMm: number },
  sections: readonly Section[],
  { cover, sheets, rollMm }: SectionWish,
): CoverSheet[] {
  if (cover !== 'sheets') return [];
  const size = rollMm === null ? sheets : stripsFromRoll(canvas, rollMm, sheets.overlapMm).sheet;
  return coverSheets(canvas, sections, size);
}

/** Minutes for what is left of a section; without a chart its colours are guessed. */
function minutesOf(
  { chart, laid, tips, model, colours }: JudgedGround,
  { section, drills, laid: laidDrills }: SectionTally,
): Minutes {
  if (chart) return minutesFor(model, effortOf(chart, section, laid, tips));
  return minutesFor(model, guessedEffort(drills - laidDrills, colours));
}
