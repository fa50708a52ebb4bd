import { counted, many } from '../words/numbers';
import type { SectionTally } from './section';

/**
 * How a section stands, for the ear and beside a map.
 * @example sectionInWords(tally) // 'Section 30: 41 of 400 drills left'
 */
export function sectionInWords({
  section,
  drills,
  laid,
}: Pick<SectionTally, 'section' | 'drills' | 'laid'>): string {
  const name = `Section ${many(section.number)}`;
  if (drills === 0) return `${name}: no drill goes here`;
  if (laid === drills) return `${name}: all ${many(drills)} laid`;
  return laid === 0
    ? `${name}: ${counted(drills, 'drill')} to lay`
    : `${name}: ${many(drills - laid)} of ${counted(drills, 'drill')} left`;
}
