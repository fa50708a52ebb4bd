import { useCallback, useEffect, useState } from 'react';
import type { CodeView } from '../../server/devices/contract';
import { sendJson } from '../writing/api';

/** The code that is shown, with what is left of its time. */
export function useCode(act: (work: () => Promise<void>) => Promise<boolean>): {
  code: CodeView | null;
  /** Seconds left, counted by this page's own clock. */
  left: number;
  show: () => void;
  hide: () => void;
} {
  const [code, setCode] = useState<CodeView | null>(null);
  const [until, setUntil] = useState(0);
  const [left, setLeft] = useState(0);
  useEffect(() => {
    if (!code) return;
    const count = () => setLeft(Math.max(0, Math.ceil((until - performance.now()) / 1000)));
    count();
    const timer = setInterval(count, 1000);
    return () => clearInterval(timer);
  }, [code, until]);
  const show = useCallback(
    () =>
      void act(async () => {
        const next = await sendJson<CodeView>('POST', '/api/devices/codes');
        setUntil(performance.now() + next.seconds * 1000);
        setLeft(next.seconds);
        setCode(next);
      }),
    [act],
  );
  const hide = useCallback(() => setCode(null), []);
  return { code, left, show, hide };
}
