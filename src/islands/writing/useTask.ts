import { useState } from 'react';
import { inWords } from './api';

/** Something that takes a while and may fail: whether it runs, and what went wrong, in words. */
export function useTask() {
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const act = async (work: () => Promise<void>) => {
    setBusy(true);
    setFault(null);
    try {
      await work();
    } catch (error) {
      setFault(inWords(error));
    }
    setBusy(false);
  };
  return { busy, fault, act };
}
