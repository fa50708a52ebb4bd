/** What may stand in ASCII for what was typed, and must not stay as it is to be understood. */
const ODD = /(?![\0-\x7f])[\uff01-\uff5e\p{Nd}\p{Pd}\p{Cf}\u2212]/gu;

/** Digits of all scripts stand in tens one after the other, from zero to nine (The Unicode Standard, section 4.6). */
function digitOf(sign: string): string {
  const code = sign.codePointAt(0)!;
  let below = 0;
  while (/\p{Nd}/u.test(String.fromCodePoint(code - below - 1))) below++;
  return String(below % 10);
}

/**
 * What was typed, with the signs that codes and numbers are made of as they stand on an English keyboard: digits of any
 * script, full-width letters, dashes of any length, and nothing that cannot be seen.
 * @example plainSigns('Ａ–４１２') // 'A-412'
 */
export function plainSigns(typed: string): string {
  return typed.normalize('NFC').replace(ODD, (sign) => {
    const code = sign.codePointAt(0)!;
    if (code >= 0xff01 && code <= 0xff5e) return String.fromCodePoint(code - 0xfee0);
    if (/\p{Nd}/u.test(sign)) return digitOf(sign);
    return /\p{Cf}/u.test(sign) ? '' : '-';
  });
}
