/** Signs that mean something themselves, and stand in the row of digits on some keyboards. */
const OWN_SIGNS = new Set(['+', '-', '=', '?']);

/**
 * The key that somebody means by what was pressed: on keyboards of other scripts the Latin letter that is printed on the
 * same key, and on those where digits need Shift the digit.
 */
export function keyMeant({ key, code, shiftKey }: Pick<KeyboardEvent, 'key' | 'code' | 'shiftKey'>): string {
  const letter = /^Key([A-Z])$/.exec(code)?.[1];
  if (letter && /^\p{L}+$/u.test(key) && !/^[a-z]+$/i.test(key)) return letter.toLowerCase();
  const digit = /^Digit(\d)$/.exec(code)?.[1];
  if (digit && !shiftKey && !OWN_SIGNS.has(key) && !/^\w+$/.test(key)) return digit;
  return key;
}
