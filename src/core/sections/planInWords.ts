import { many } from '../words/numbers';
import type { JudgedSection } from './judge';
import type { WorkOrder, WorkWay } from './order';

/** What a cut comes to, over all sections with something left. */
export interface PlanFigures {
  sections: number;
  /** Minutes of the shortest and the longest; null where nothing is left. */
  minutes: { shortest: number; longest: number; all: number } | null;
  /** Colours that are opened in all. */
  openings: number;
  conflicts: number;
  misfits: number;
  /** Most adhesive that lies bare at once, and at which section; null where none does. */
  worstCm2: number;
  worstAt: number | null;
}

/** The section at which most adhesive lies bare; null where none does. */
export function worstOf(sections: readonly JudgedSection[]): JudgedSection | null {
  return sections.reduce<JudgedSection | null>(
    (most, each) => (each.bareCm2 > (most?.bareCm2 ?? 0) ? each : most),
    null,
  );
}

export function planFigures(sections: readonly JudgedSection[]): PlanFigures {
  const left = sections.filter(({ drills, laid }) => laid < drills);
  const minutes = left.map((section) => section.minutes.expected);
  const worst = worstOf(left);
  return {
    sections: left.length,
    minutes:
      minutes.length === 0
        ? null
        : {
            shortest: minutes.reduce((least, each) => Math.min(least, each), Infinity),
            longest: minutes.reduce((most, each) => Math.max(most, each), 0),
            all: minutes.reduce((sum, each) => sum + each, 0),
          },
    openings: left.reduce((sum, { colours }) => sum + colours, 0),
    conflicts: left.filter(({ conflict }) => conflict !== null).length,
    misfits: left.filter(({ misfits }) => misfits.length > 0).length,
    worstCm2: worst?.bareCm2 ?? 0,
    worstAt: worst?.section.number ?? null,
  };
}

/** How long the sections are: `40 to 51 min each`. */
export function spanInWords({ minutes }: Pick<PlanFigures, 'minutes'>): string {
  if (!minutes) return 'nothing is left to lay';
  const [shortest, longest] = [Math.round(minutes.shortest), Math.round(minutes.longest)];
  return shortest === longest
    ? `${many(longest)} min each`
    : `${many(shortest)} to ${many(longest)} min each`;
}

const WAYS: Record<WorkWay, string> = {
  numbers: 'as numbered',
  rows: 'row by row',
  snake: 'rows, there and back',
  columns: 'column by column',
  outwards: 'from the middle outwards',
  'focal first': 'the focal part first',
};

/** @example wayInWords('rows') // 'Row by row' */
export function wayInWords(way: WorkWay): string {
  const words = WAYS[way];
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** @example orderInWords({ way: 'rows', corner: 'top left', focal: null }) // 'Row by row from the top left' */
export function orderInWords({ way, corner }: WorkOrder): string {
  return hasCorner(way) ? `${wayInWords(way)} from the ${corner}` : wayInWords(way);
}

/** Whether a way of working begins at a corner. */
export function hasCorner(way: WorkWay): boolean {
  return way === 'rows' || way === 'snake' || way === 'columns';
}
