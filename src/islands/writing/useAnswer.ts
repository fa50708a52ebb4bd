import { useCallback, useEffect, useRef, useState } from 'react';
import type { LivePart } from '../live/shownParts';
import { canvasOfUrl, useLive } from '../live/useLive';
import { getJson, inWords } from './api';

/**
 * What an address answers, asked anew when the address changes; an answer that comes after a newer question is dropped.
 * @param url null asks nothing
 * @param parts of the canvas that the answer tells of: it is asked anew when another screen changes them
 * @returns `answer` is null until the first has come
 */
export function useAnswer<Answer>(
  url: string | null,
  parts: readonly LivePart[] = [],
): {
  answer: Answer | null;
  fault: string | null;
  reload: () => void;
} {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const asked = useRef(0);
  const reload = useCallback(() => {
    if (url === null) return;
    const mine = ++asked.current;
    getJson<Answer>(url).then(
      (next) => {
        if (mine !== asked.current) return;
        setAnswer(next);
        setFault(null);
      },
      (error: unknown) => {
        if (mine === asked.current) setFault(inWords(error));
      },
    );
  }, [url]);
  useEffect(() => {
    reload();
    return () => {
      asked.current++;
    };
  }, [reload]);
  useLive(url === null ? null : canvasOfUrl(url), url === null ? [] : parts, reload);
  return { answer, fault, reload };
}
