import { useCallback, useEffect, useRef, useState } from 'react';
import type { LivePart } from '../live/shownParts';
import { canvasOfUrl, useLive } from '../live/useLive';
import { ApiProblem, getJson, inWords } from './api';

/** Pauses before an answer that did not come is asked for again; the last one from then on. */
const PAUSES_MS = [2000, 5000, 10_000, 30_000];

/**
 * What an address answers, asked anew when the address changes; an answer that comes after a newer question is dropped.
 * What did not come is asked for again after a while; where an answer to the same question is there, it stays meanwhile,
 * for somebody may be typing in what shows it.
 * @param url null asks nothing
 * @param parts of the canvas that the answer tells of: it is asked anew when another screen changes them
 * @returns `answer` is null until the first has come, `fault` a sentence when there is none to this question, or a refusal
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
  /** The question whose answer is here. */
  const answered = useRef<string | null>(null);
  const again = useRef<ReturnType<typeof setTimeout>>(undefined);
  const tries = useRef(0);
  const reload = useCallback(() => {
    if (url === null) return;
    const mine = ++asked.current;
    clearTimeout(again.current);
    getJson<Answer>(url).then(
      (next) => {
        if (mine !== asked.current) return;
        answered.current = url;
        tries.current = 0;
        setAnswer(next);
        setFault(null);
      },
      (error: unknown) => {
        if (mine !== asked.current) return;
        const refused = error instanceof ApiProblem && error.status < 500;
        if (refused || answered.current !== url) setFault(inWords(error));
        if (!refused)
          again.current = setTimeout(reload, PAUSES_MS[Math.min(tries.current++, PAUSES_MS.length - 1)]);
      },
    );
  }, [url]);
  useEffect(() => {
    reload();
    return () => {
      asked.current++;
      clearTimeout(again.current);
    };
  }, [reload]);
  useLive(url === null ? null : canvasOfUrl(url), url === null ? [] : parts, reload);
  return { answer, fault, reload };
}
