import { readWhole } from '../words/numbers';

/** No sheet lists more drills than have nine digits. */
const MOST = 999_999_999;

/** What sheets write around a number of drills, in a number of languages: `x200`, `200 pcs`, `200颗`. */
const TIMES = /^[x×]\s*(?=\d)/iu;
const UNIT =
  /(?<=\d)\s*(?:pcs|pc|pieces|drills|stones|stück|stk|st|szt|ks|adet|uds|ud|pz|шт|颗|顆|粒|个|個|개)\.?$/iu;

/**
 * A whole number in a cell of a sheet, as programs write it too (`200.0`), and as people do (`x200`, `200 pcs`); empty is
 * 0; null when it is none.
 */
export function readAmount(text: string): number | null {
  const bare = text.replace(TIMES, '').replace(UNIT, '');
  const whole = text === '' ? 0 : readWhole(bare.replace(/(?<=\d)[.,]0{1,2}$/, ''));
  return whole !== null && whole >= 0 && whole <= MOST ? whole : null;
}
