import { useState } from 'react';
import type { Canvas } from '../../../core/canvas/canvas';
import type { LegendLine } from '../../../core/canvas/legend';
import {
  countByWeight,
  type Tare,
  type WeighedCount,
  type WeighedSample,
  type Weight,
  weightOf,
} from '../../../core/checkin/weighing';
import { inWords } from '../../writing/api';
import { keepSample, sampleKey, storedSample } from './samples';

/** What the display showed with nothing on the pan, and when. */
interface Zero extends Weight {
  /** Milliseconds since 1970. */
  at: number;
}

export interface Weighing {
  zero: Zero | null;
  sample: WeighedSample | null;
  tare: Tare | null;
  full: Weight | null;
  /** How many drills are in the bag on the scale; null until all three are weighed. */
  count: WeighedCount | null;
  fault: string | null;
  setZero(shown: Weight): void;
  /** @param typing it is not complete yet: it is kept on this device by {@link keepSample}, and not before */
  takeSample(pieces: number, shown: Weight, typing?: boolean): void;
  forgetSample(): void;
  keepSample(): void;
  takeTare(shown: Weight, eachItsOwn: boolean): void;
  forgetTare(): void;
  takeFull(shown: Weight): void;
  forgetFull(): void;
}

export const ZERO_FIRST = 'Zero the scale first, with nothing on it.';
const MINUTE_MS = 60_000;

/**
 * The weights that a count stands on, each reckoned from the zero that stood when it was read. Sample and empty bag
 * serve for one bag after another.
 * @param scale name of the scale, so that a sample goes with the scale on which it was weighed
 */
export function useWeighing(canvas: Canvas, line: LegendLine, scale: string, stepGrams: number): Weighing {
  const key = sampleKey(canvas, line, scale);
  const [zero, setZero] = useState<(Zero & { scale: string }) | null>(null);
  const [samples, setSamples] = useState<Record<string, WeighedSample | null>>({});
  const [tare, setTare] = useState<(Tare & { scale: string }) | null>(null);
  const [full, setFull] = useState<(Weight & { key: string }) | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const sample = key in samples ? samples[key]! : storedSample(key);
  const ownZero = zero?.scale === scale ? zero : null;
  const ownTare = tare?.scale === scale ? tare : null;
  const ownFull = full?.key === key ? full : null;

  const weigh = (load: Weight, then: (weight: Weight) => void) => {
    setFault(null);
    if (!ownZero) {
      setFault(ZERO_FIRST);
      return;
    }
    const display = { load, zero: ownZero, minutesSinceZero: (Date.now() - ownZero.at) / MINUTE_MS };
    try {
      then(weightOf(display, { stepGrams }));
    } catch (error) {
      setFault(inWords(error));
    }
  };

  const setSample = (next: WeighedSample | null) => setSamples((before) => ({ ...before, [key]: next }));

  let count: WeighedCount | null = null;
  let nonsense: string | null = null;
  if (sample && ownTare && ownFull) {
    try {
      count = countByWeight(sample, ownFull, ownTare);
    } catch (error) {
      nonsense = inWords(error);
    }
  }
  return {
    zero: ownZero,
    sample,
    tare: ownTare,
    full: ownFull,
    count,
    fault: fault ?? nonsense,
    setZero: (shown) => {
      setFault(null);
      setZero({ ...shown, at: Date.now(), scale });
    },
    takeSample: (pieces, shown, typing = false) => {
      setSample(null);
      weigh(shown, (weight) => {
        if (!(weight.grams > 0)) {
          setFault(
            'The sample weighs nothing on this scale. Put the counted drills on it, or take more of them.',
          );
          return;
        }
        const next = { id: crypto.randomUUID(), pieces, ...weight };
        setSample(next);
        if (!typing) keepSample(key, next);
      });
    },
    forgetSample: () => setSample(null),
    keepSample: () => {
      if (sample) keepSample(key, sample);
    },
    takeTare: (shown, eachItsOwn) => {
      setTare(null);
      weigh(shown, (weight) => setTare({ id: crypto.randomUUID(), ...weight, eachItsOwn, scale }));
    },
    forgetTare: () => setTare(null),
    takeFull: (shown) => {
      setFull(null);
      weigh(shown, (weight) => setFull({ ...weight, key }));
    },
    forgetFull: () => setFull(null),
  };
}
