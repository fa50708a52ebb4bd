import type { LegendLine } from '../canvas/legend';
import { type ColourOrder, inColourOrder } from '../codes/colourOrder';

/** Orders in which people lay the colours of a section. */
export const SCHOOLS = ['most', 'dark', 'light', 'sheet', 'own'] as const;
export type School = (typeof SCHOOLS)[number];

/** Each school with the reason that its people give (common practice, no source). */
export const SCHOOL_REASONS: Record<School, { name: string; reason: string }> = {
  most: { name: 'Most drills first', reason: 'Less hunting, and the hand soon rests on what is laid.' },
  dark: {
    name: 'Dark to light',
    reason: 'Dark symbols stand out, and confetti gets easier as the squares fill.',
  },
  light: { name: 'Light to dark', reason: 'Light drills take on no dust from the dark ones.' },
  sheet: { name: 'As on the sheet', reason: 'The pots stand in this order, so no colour is overlooked.' },
  own: { name: 'Your own order', reason: 'The colours that you put in front come first.' },
};

const BY_LIGHT: ColourOrder = 'dark';

/**
 * The colours of a section in the order in which they are laid.
 * @param drills in the section, by line
 * @param own lines in the user's order; others follow as on the sheet
 */
export function coloursInOrder(
  legend: readonly LegendLine[],
  drills: ArrayLike<number>,
  school: School = 'most',
  own: readonly number[] = [],
): LegendLine[] {
  const here = legend.filter(({ line }) => drills[line]! > 0);
  switch (school) {
    case 'most':
      return here.sort((a, b) => drills[b.line]! - drills[a.line]! || a.line - b.line);
    case 'dark':
      return inColourOrder(here, BY_LIGHT);
    case 'light':
      return inColourOrder(here, BY_LIGHT).reverse();
    case 'sheet':
      return here;
    case 'own': {
      const rank = new Map(own.map((line, i) => [line, i]));
      const of = ({ line }: LegendLine) => rank.get(line) ?? own.length;
      return here.sort((a, b) => of(a) - of(b));
    }
  }
}
