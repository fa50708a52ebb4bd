import { counted } from '../words/numbers';

/**
 * What a screen is told when it comes back and others did the same meanwhile.
 * @param drills that it marked and that had been marked so already
 */
export function overlapInWords(drills: number): string {
  const [were, stand] = drills === 1 ? ['was', 'Its entry stands'] : ['were', 'All entries stand'];
  return `${counted(drills, 'drill')} that you marked here while Oculent was away ${were} marked the same way at another screen meanwhile. ${stand} in the history; the canvas is as both of you left it.`;
}
