/** A whole number with thousands parted, as it is read at the bench. */
export function many(n: number): string {
  return n.toLocaleString('en');
}

/** `1 bag`, `12 bags`. */
export function counted(n: number, noun: string): string {
  return `${many(n)} ${noun}${n === 1 ? '' : 's'}`;
}
