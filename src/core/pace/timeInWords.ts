import { counted, many } from '../words/numbers';
import type { Minutes } from './timeModel';

/**
 * Minutes as people say them, with their band.
 * @example minutesInWords({ expected: 41.6, low: 29, high: 54 }) // 'about 42 min, 29 to 54'
 */
export function minutesInWords({ expected, low, high }: Minutes): string {
  if (expected < 0.5) return 'less than a minute';
  return `about ${many(Math.round(expected))} min, ${many(Math.round(low))} to ${many(Math.round(high))}`;
}

/** A time of many sittings: hours from two hours on. @example roughTimeInWords(130) // '2 hours' */
export function roughTimeInWords(minutes: number): string {
  const whole = Math.round(minutes);
  return whole < 120 ? counted(whole, 'minute') : `${many(Math.round(whole / 60))} hours`;
}

/** A time that was measured. @example hoursInWords(135) // '2 h 15 min' */
export function hoursInWords(minutes: number): string {
  const whole = Math.round(minutes);
  const [hours, rest] = [Math.floor(whole / 60), whole % 60];
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${many(hours)} h` : `${many(hours)} h ${rest} min`;
}
