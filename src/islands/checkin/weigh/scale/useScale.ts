import { useCallback, useEffect, useRef, useState } from 'react';
import { ScaleLines, type ScaleReading, WeightSettler } from '../../../../core/checkin/scaleReader';
import type { Weight } from '../../../../core/checkin/weighing';
import type { ScaleSource } from './scaleSource';

/** The reading in view, and a way to take a weight once it has come to rest. */
export interface Scale {
  reading: ScaleReading | 'over' | null;
  /** Waits for rest. Rejects with a sentence when the load is too heavy or the scale never settles. */
  take(): Promise<Weight>;
}

export function useScale(source: ScaleSource | null, resolutionGrams: number): Scale {
  const [reading, setReading] = useState<Scale['reading']>(null);
  const taking = useRef<((reading: ScaleReading | 'over') => void) | null>(null);
  useEffect(() => {
    if (!source) return;
    const lines = new ScaleLines();
    source.listen((text) => {
      for (const next of lines.push(text)) {
        setReading(next);
        taking.current?.(next);
      }
    });
    return () => source.close();
  }, [source]);

  const take = useCallback(
    () =>
      new Promise<Weight>((resolve, reject) => {
        const settler = new WeightSettler(resolutionGrams);
        taking.current = (next) => {
          const settling = settler.push(next);
          if (settling.kind === 'waiting') return;
          taking.current = null;
          if (settling.kind === 'settled') resolve(settling.weight);
          else if (settling.kind === 'over')
            reject(new Error('This is more than the scale can weigh. Take some off.'));
          else {
            reject(
              new Error(
                'The scale has not settled for half a minute. Put it on a firm table, out of draughts, and try again.',
              ),
            );
          }
        };
      }),
    [resolutionGrams],
  );
  return { reading, take };
}
