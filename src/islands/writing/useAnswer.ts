import { useCallback, useRef, useState } from 'react';
import type { LivePart } from '../live/shownParts';
import { canvasOfUrl, useLive } from '../live/useLive';
import { inWords } from './api';
import { usePatientAsk } from './patientAsk';

/**
 * What an address answers, asked anew when the address changes, and again where no answer came. Where one to the same
 * question is there, it stays meanwhile, for somebody may be typing in what shows it.
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
  /** To be called when a newer answer to a write is shown: what is still on its way to an open question is older. */
  overtaken: () => void;
} {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  /** The question whose answer is here. */
  const answered = useRef<string | null>(null);
  const asking = usePatientAsk<Answer>(
    url,
    (next) => {
      answered.current = url;
      setAnswer(next);
      setFault(null);
    },
    (error, isRefusal) => {
      if (isRefusal || answered.current !== url) setFault(inWords(error));
    },
  );
  const reload = useCallback(() => asking.current?.ask(), [asking]);
  const overtaken = useCallback(() => asking.current?.overtaken(), [asking]);
  useLive(url === null ? null : canvasOfUrl(url), url === null ? [] : parts, reload);
  return { answer, fault, reload, overtaken };
}
