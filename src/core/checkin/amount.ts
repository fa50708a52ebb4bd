import { readWhole } from '../words/numbers';

/** No sheet lists more drills than have nine digits. */
const MOST = 999_999_999;

/** A whole number in a cell of a sheet, as programs write it too (`200.0`); empty is 0; null when it is none. */
export function readAmount(text: string): number | null {
  const whole = text === '' ? 0 : readWhole(text.replace(/(?<=\d)[.,]0{1,2}$/, ''));
  return whole !== null && whole >= 0 && whole <= MOST ? whole : null;
}
