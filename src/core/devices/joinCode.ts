/** Letters and digits that are not taken for one another, neither in print nor in handwriting. */
const SIGNS = '23456789ABCDEFGHJKMNPQRSTUVWXYZ';
const LENGTH = 8;

/** How long a code may be used, in minutes. */
export const CODE_MINUTES = 10;
/** So many wrong codes in all withdraw the one that is open. */
export const MOST_WRONG_CODES = 10;

/**
 * A code that lets one device join, as it is shown: `K7QM-4RTX`. One of 31⁸, some 8.5 × 10¹¹.
 * @param draw gives random bytes; each byte that would favour some signs is drawn again
 */
export function drawCode(draw: (bytes: number) => Uint8Array): string {
  let signs = '';
  while (signs.length < LENGTH) {
    for (const byte of draw(LENGTH)) {
      // 8 × 31 = 248: the bytes above it would make the first signs likelier.
      if (byte < SIGNS.length * 8 && signs.length < LENGTH) signs += SIGNS[byte % SIGNS.length];
    }
  }
  return `${signs.slice(0, 4)}-${signs.slice(4)}`;
}

/** A code as somebody typed it, in the way it is shown: case, spaces and dashes do not matter. Null where it is none. */
export function readCode(typed: string): string | null {
  const signs = typed.toUpperCase().replace(/[\s\-–—]/g, '');
  if (signs.length !== LENGTH || [...signs].some((sign) => !SIGNS.includes(sign))) return null;
  return `${signs.slice(0, 4)}-${signs.slice(4)}`;
}
