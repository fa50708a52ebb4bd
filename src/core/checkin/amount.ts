/** A whole number as people write it: 1240, 1,240, 1 240 or 1.240; empty is 0; null when it is none. */
export function readAmount(text: string): number | null {
  if (text === '') return 0;
  if (/^\d{1,9}$/.test(text)) return Number(text);
  if (/^\d{1,3}([.,'\u00a0\u202f ])\d{3}(\1\d{3})*$/.test(text)) return Number(text.replace(/\D/g, ''));
  return null;
}
