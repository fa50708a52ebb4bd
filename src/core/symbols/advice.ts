import { positionOf } from '../cells/position';
import { differenceInWords } from '../colour/difference';
import { counted, many } from '../words/numbers';
import type { LikePair, ShadePair, Together } from './check';

/** The one sentence on the symbols of a canvas. */
export function checkInWords(pairs: number, shades: number, dark: number): string {
  const found = [
    pairs > 0 ? `${counted(pairs, 'pair')} of symbols ${pairs === 1 ? 'is' : 'are'} easily mixed up` : '',
    shades > 0
      ? `${counted(shades, 'pair')} of colours a shade apart ${shades === 1 ? 'meets' : 'meet'}`
      : '',
    dark > 0 ? `${counted(dark, 'symbol')} ${dark === 1 ? 'needs' : 'need'} the light pad` : '',
  ].filter((part) => part !== '');
  if (found.length === 0) return 'Every symbol of this kit is easy to tell apart.';
  return `${found.join('; ')}.`;
}

/** Why two symbols are mixed up. */
export function likeInWords(pair: LikePair): string {
  const shape = {
    same: 'Nearly the same shape',
    mirrored: 'Mirror images of each other',
    'upside down': 'The same shape upside down',
    turned: 'The same shape, turned',
    filled: 'The same outline, one of them filled',
  }[pair.turn];
  const listed = pair.listed ? 'Many fonts print them alike. ' : '';
  const tint =
    pair.difference === null
      ? 'Their tints are not known.'
      : pair.difference < 4
        ? `Their tints do not help: ${differenceInWords(pair.difference)}.`
        : pair.difference < 12
          ? 'Their tints differ, but too little to go by.'
          : 'Their tints help a little, in good light.';
  return `${pair.shape >= 0.8 || !pair.listed ? `${shape}. ` : ''}${listed}${tint}`;
}

/** How near two colours are, and how often they touch. */
export function shadeInWords(pair: ShadePair): string {
  const near = differenceInWords(pair.difference);
  const meets = pair.meetings > 0 ? ` They touch ${many(pair.meetings)} times.` : '';
  return `${near.charAt(0).toUpperCase()}${near.slice(1)}.${meets}`;
}

/** Where they stand most together, as people say it: columns and rows from 1. */
export function togetherInWords(where: (Together & { section: number | null }) | null): string {
  if (!where) return 'They never stand close together on this canvas.';
  const first = positionOf(where.x, where.y, { pitchMm: 1 });
  const last = positionOf(where.x + where.width - 1, where.y + where.height - 1, { pitchMm: 1 });
  const section = where.section === null ? '' : ` (section ${many(where.section)})`;
  return `Most together in columns ${first.column}–${last.column}, rows ${first.row}–${last.row}${section}: ${where.drills[0]} and ${where.drills[1]}.`;
}
