import { plainSigns } from './plainSigns';
import { withoutAccents } from './withoutAccents';

/**
 * Whether every word that was typed stands somewhere in a text, whatever its case and accents.
 * @example isIn('412 Moss green', 'green 41') // true
 */
export function isIn(text: string, typed: string): boolean {
  const plain = (some: string) => withoutAccents(plainSigns(some));
  const whole = plain(text);
  return plain(typed)
    .split(/\s+/)
    .every((word) => whole.includes(word));
}
