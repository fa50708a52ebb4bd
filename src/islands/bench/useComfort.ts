import { useCallback, useEffect, useMemo, useState } from 'react';
import { type Comfort, comfortOf } from '../../core/bench/comfort';
import type { ClothEyes } from '../../ui/cloth/clothPalette';
import { keptHere } from '../../ui/kept';

const KEY = 'oculent-bench';

/** How the bench suits this pair of eyes and hands; kept by this browser. */
export function useComfort(): {
  comfort: Comfort;
  change: (part: Partial<Comfort>) => void;
  eyes: ClothEyes;
} {
  const [comfort, setComfort] = useState(() => comfortOf(keptHere.get(KEY)));
  const change = useCallback(
    (part: Partial<Comfort>) => setComfort((before) => ({ ...before, ...part })),
    [],
  );
  useEffect(() => {
    keptHere.set(KEY, JSON.stringify(comfort));
  }, [comfort]);
  const { symbols, lines, contrast } = comfort;
  useEffect(() => {
    document.documentElement.toggleAttribute('data-contrast', contrast === 'high');
    window.dispatchEvent(new Event('oculent-theme'));
    return () => {
      document.documentElement.removeAttribute('data-contrast');
    };
  }, [contrast]);
  const eyes = useMemo(() => ({ symbols, lines, contrast }), [symbols, lines, contrast]);
  return { comfort, change, eyes };
}
