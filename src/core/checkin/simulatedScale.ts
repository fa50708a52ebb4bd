import { seededRandom } from '../chance/random';

/** How a simulated scale behaves. */
export interface ScaleHabits {
  resolutionGrams: number;
  /** Standard deviation of the noise on a reading at rest, in steps of the display. */
  noiseSteps: number;
  /** Creep per reading, as strain gauges show it, in steps of the display. */
  driftSteps: number;
  /** Readings until the pan has stopped swinging. */
  readingsToRest: number;
  /** Never says that it is at rest. */
  restless: boolean;
  maxGrams: number;
}

/** A small kitchen or jeweller's scale. */
export const POCKET_SCALE: ScaleHabits = {
  resolutionGrams: 0.01,
  noiseSteps: 0.3,
  driftSteps: 0.002,
  readingsToRest: 12,
  restless: false,
  maxGrams: 200,
};

/**
 * A stand-in for a scale: gives lines of the scale protocol for a load that is set down on it.
 * @param seed the same seed gives the same readings
 */
export function simulatedScale(
  habits: ScaleHabits,
  seed: number,
): { load(grams: number): void; line(): string } {
  const random = seededRandom(seed);
  let grams = 0;
  let before = 0;
  let since = 0;
  let readings = 0;
  return {
    load(next) {
      before = grams;
      grams = next;
      since = 0;
    },
    line() {
      since++;
      readings++;
      if (grams > habits.maxGrams) return 'W OVER\n';
      const swing = (before - grams) * Math.exp((-5 * since) / habits.readingsToRest) * Math.cos(since * 1.3);
      const wandered = habits.driftSteps * readings + habits.noiseSteps * random.normal();
      const steps = Math.round((grams + swing) / habits.resolutionGrams + wandered);
      const digits = Math.max(0, Math.ceil(-Math.log10(habits.resolutionGrams)));
      const value = steps * habits.resolutionGrams;
      const stable = !habits.restless && since > habits.readingsToRest;
      return `W ${value < 0 ? '-' : '+'}${Math.abs(value).toFixed(digits)} g ${stable ? 'S' : 'U'}\n`;
    },
  };
}
