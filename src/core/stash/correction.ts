import type { StashItem } from './cover';

/**
 * What a correction changes of the amount of a leftover, while others take from it too.
 * @param said drills as the correction has them
 * @param seen drills that stood there when it was begun; null where that is not known
 * @param now drills that are there
 * @returns the difference; null where the amount was corrected and is another one by now, so that nobody can say
 * @example correctionOf(400, 400, 250) // 0: only the name was corrected
 */
export function correctionOf(said: number, seen: number | null, now: number): number | null {
  if (seen !== null && said === seen) return 0;
  return seen === null || seen === now ? said - now : null;
}

/**
 * What a leftover is after a correction: only what its form changed, for another one may have corrected it meanwhile.
 * @param said the item as the form has it
 * @param seen as it stood there when the correction was begun; null where that is not known
 * @param now as it is there
 */
export function correctedItem(
  said: StashItem,
  seen: Omit<StashItem, 'id'> | null,
  now: StashItem,
): Omit<StashItem, 'drills'> {
  const pick = <Key extends keyof StashItem>(key: Exclude<Key, 'id'>): StashItem[Key] =>
    seen !== null && said[key] === seen[key] ? now[key] : said[key];
  return {
    id: now.id,
    code: pick('code'),
    name: pick('name'),
    hex: pick('hex'),
    finish: pick('finish'),
    shape: pick('shape'),
  };
}
