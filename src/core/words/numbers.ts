/** A whole number with thousands parted, as it is read at the bench. */
export function many(n: number): string {
  return n.toLocaleString('en');
}

/**
 * A number as people type it, with a decimal comma or point; null where it is none.
 * @example readNumber('2,5') // 2.5
 */
export function readNumber(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  return /^-?(\d+(\.\d*)?|\.\d+)$/.test(plain) ? Number(plain) : null;
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
