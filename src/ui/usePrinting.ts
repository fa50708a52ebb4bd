import { useLayoutEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/** Whether the page is being printed just now: then it may show what is folded away on screen. */
export function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false);
  useLayoutEffect(() => {
    // Drawn before the browser takes the page for the paper.
    const before = () => flushSync(() => setPrinting(true));
    const after = () => setPrinting(false);
    window.addEventListener('beforeprint', before);
    window.addEventListener('afterprint', after);
    return () => {
      window.removeEventListener('beforeprint', before);
      window.removeEventListener('afterprint', after);
    };
  }, []);
  return printing;
}
