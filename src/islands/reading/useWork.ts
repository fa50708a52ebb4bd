import { useCallback, useState } from 'react';
import { inWords } from '../writing/api';

/** Work that a page waits for, such as a thread's: what is under way in words, and what went wrong. */
export interface Work {
  busy: string | null;
  fault: string | null;
  setFault(fault: string | null): void;
  /** @param words said while it is under way */
  work(words: string, act: () => Promise<void>): Promise<void>;
}

export function useWork(): Work {
  const [busy, setBusy] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const work = useCallback(async (words: string, act: () => Promise<void>) => {
    setBusy(words);
    setFault(null);
    try {
      await act();
    } catch (error) {
      setFault(inWords(error));
    } finally {
      setBusy(null);
    }
  }, []);
  return { busy, fault, setFault, work };
}
