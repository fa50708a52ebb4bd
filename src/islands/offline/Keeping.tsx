import { useEffect } from 'react';
import { beginKeeping } from './keeping';

/** On every page: keeps it, and with it the canvas that it is of, for times without an answer. Shows nothing. */
export function Keeping({ canvasId = null }: { canvasId?: string | null }) {
  useEffect(() => {
    // After the page has what it needs itself.
    const timer = setTimeout(() => void beginKeeping(canvasId), 1500);
    return () => clearTimeout(timer);
  }, [canvasId]);
  return null;
}
