import { plainSigns } from './plainSigns';

/** A whole number with thousands parted, as it is read at the bench. */
export function many(n: number): string {
  return n.toLocaleString('en');
}

/**
 * A number as people type it, with a decimal comma or point; null where it is none.
 * @example readNumber('2,5') // 2.5
 */
export function readNumber(text: string): number | null {
  const plain = plainSigns(text).trim().replace(/[,٫]/, '.');
  return /^-?(\d+(\.\d*)?|\.\d+)$/.test(plain) ? Number(plain) : null;
}

/** Thousands are parted by a comma, a point, a space or an apostrophe, always in threes; `0.125` is a fraction. */
const PARTED = /^[1-9]\d{0,2}(?:([,.'’٬\s])\d{3})(?:\1\d{3})*$/;

/**
 * A whole number as people type it, thousands parted or not; null where it is none.
 * @example readWhole('1,240') // 1240
 */
export function readWhole(text: string): number | null {
  const plain = plainSigns(text).trim();
  const digits = PARTED.test(plain) ? plain.replace(/\D/g, '') : plain;
  return /^-?\d+$/.test(digits) ? Number(digits) : null;
}

/** Units of length that are understood wherever one is typed. */
export type LengthUnit = 'mm' | 'cm' | 'in';
const MM_IN: Record<LengthUnit, number> = { mm: 1, cm: 10, in: 25.4 };
const UNIT_WORDS: Record<string, LengthUnit> = {
  mm: 'mm',
  millimetres: 'mm',
  cm: 'cm',
  centimetres: 'cm',
  in: 'in',
  inch: 'in',
  inches: 'in',
  '"': 'in',
  '″': 'in',
};

/** A length from one unit in another. @example inUnit(12, 'in', 'cm') // 30.48 */
export function inUnit(length: number, from: LengthUnit, to: LengthUnit): number {
  // Rounded to a millionth, so that 1 in is 25.4 mm and not a little more.
  return Math.round(((length * MM_IN[from]) / MM_IN[to]) * 1e6) / 1e6;
}

/**
 * A length as people type it: `40 cm`, `12 in`, `15 3/4"`, `400mm`, or a bare number.
 * @param bare the unit of a number without one
 * @returns the length in that unit, and the unit in which it was typed; null where it is no length
 * @example readLength('12 in', 'cm') // { length: 30.48, typedIn: 'in' }
 */
export function readLength(text: string, bare: LengthUnit): { length: number; typedIn: LengthUnit } | null {
  const [, amount = '', name = ''] = /^(.*?)\s*([a-z]+|["″])?$/i.exec(plainSigns(text).trim()) ?? [];
  const typedIn = name === '' ? bare : UNIT_WORDS[name.toLowerCase()];
  const [, whole, over, under] = /^(?:(\d+)\s+)?(\d+)\/(\d+)$/.exec(amount) ?? [];
  const number = under ? Number(whole ?? 0) + Number(over) / Number(under) : readNumber(amount);
  if (typedIn === undefined || number === null || !Number.isFinite(number)) return null;
  return { length: inUnit(number, typedIn, bare), typedIn };
}

/**
 * The largest of any number of values; `least` where there are none. A spread into Math.max ends with the stack.
 * @example largest([3, 9, 4]) // 9
 */
export function largest(values: Iterable<number>, least = Number.NEGATIVE_INFINITY): number {
  let most = least;
  for (const value of values) if (value > most) most = value;
  return most;
}

/**
 * `1 bag`, `12 bags`. @param several the plural where it is no plain one
 * @example counted(1200, 'bag') // '1,200 bags'
 */
export function counted(n: number, noun: string, several = `${noun}s`): string {
  return `${many(n)} ${n === 1 ? noun : several}`;
}
