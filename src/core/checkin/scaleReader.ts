import type { Weight } from './weighing';

/** One reading of a scale. */
export interface ScaleReading {
  grams: number;
  /** The scale's own word that it has come to rest. */
  stable: boolean;
}

/** Readings that must agree in a row before a weight is taken. */
const AGREEING = 5;

/**
 * Standard deviation of the mean of those five, in steps of the display: a display that flickers between two steps
 * tells more than one that stands still (JCGM 100, F.2.2.1). Worked out by drawing readings that tremble by 0.05 to
 * 0.4 steps: 0.20 to 0.26 where all five are alike, 0.16 to 0.22 where they are not.
 */
const STILL_STEPS = 0.25;
const FLICKERING_STEPS = 0.2;

/**
 * Reads a scale's text as it arrives in pieces (docs/formats.md, "Scale protocol"): a line a reading,
 * `W +12.34 g S`, the last letter `S` when at rest and `U` when not; `W OVER` above its range.
 * Lines that are no reading are passed over, since a plug pulled halfway sends such.
 */
export class ScaleLines {
  private rest = '';

  /** @returns the readings completed by this piece of text; `'over'` for a load above the range */
  push(text: string): (ScaleReading | 'over')[] {
    const lines = (this.rest + text).split(/\r?\n/);
    // Whatever is longer than any reading is noise; it must not pile up.
    this.rest = lines.pop()!.slice(-64);
    return lines.flatMap((line): (ScaleReading | 'over')[] => {
      if (/^W OVER\s*$/.test(line)) return ['over'];
      const reading = /^W ([+-]\d{1,6}(?:\.\d{1,4})?) g ([SU])\s*$/.exec(line);
      return reading ? [{ grams: Number(reading[1]), stable: reading[2] === 'S' }] : [];
    });
  }
}

/** Whether readings have come to rest, and at which weight. */
export type Settling =
  | { kind: 'waiting'; last: ScaleReading | null }
  | { kind: 'settled'; weight: Weight }
  | { kind: 'over' }
  /** So many readings without rest that something is wrong. */
  | { kind: 'restless' };

/** Follows readings until enough of them agree, or until patience ends. */
export class WeightSettler {
  private agreed: number[] = [];
  private seen = 0;
  private last: ScaleReading | null = null;

  /** @param resolutionGrams readings agree when they differ by no more than this @param patience readings at most */
  constructor(
    private readonly resolutionGrams: number,
    private readonly patience = 300,
  ) {}

  push(reading: ScaleReading | 'over'): Settling {
    if (reading === 'over') {
      this.agreed = [];
      return { kind: 'over' };
    }
    this.seen++;
    this.last = reading;
    const reference = this.agreed[0] ?? reading.grams;
    // A hair more than one step, for decimals that binary numbers cannot hold.
    const near = Math.abs(reading.grams - reference) <= this.resolutionGrams * 1.001;
    this.agreed =
      reading.stable && near ? [...this.agreed, reading.grams] : reading.stable ? [reading.grams] : [];
    if (this.agreed.length >= AGREEING) {
      const grams = this.agreed.reduce((sum, each) => sum + each, 0) / this.agreed.length;
      const still = this.agreed.every((each) => each === this.agreed[0]);
      const steps = still ? STILL_STEPS : FLICKERING_STEPS;
      return { kind: 'settled', weight: { grams, uncertainty: steps * this.resolutionGrams } };
    }
    return this.seen >= this.patience ? { kind: 'restless' } : { kind: 'waiting', last: this.last };
  }
}
