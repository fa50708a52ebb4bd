import { useCallback, useState } from 'react';
import type { LivePart } from '../live/shownParts';
import { canvasOfUrl, useLive } from '../live/useLive';
import { inWords } from './api';
import { usePatientAsk } from './patientAsk';

/**
 * What an address answers, asked anew when the address changes, and again where no answer came. Where one to the same
 * question is there, it stays meanwhile, for somebody may be typing in what shows it.
 * @param url null asks nothing
 * @param parts of the canvas that the answer tells of: it is asked anew when another screen changes them
 * @returns `answer` is null until the first has come, `fault` a sentence when there is none to this question, or a refusal;
 * `isOld` while the answer is one to a question before
 */
export function useAnswer<Answer>(
  url: string | null,
  parts: readonly LivePart[] = [],
): {
  answer: Answer | null;
  isOld: boolean;
  fault: string | null;
  reload: () => void;
  /** To be called when a newer answer to a write is shown: what is still on its way to an open question is older. */
  overtaken: () => void;
} {
  const [here, setHere] = useState<{ to: string | null; answer: Answer } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const asking = usePatientAsk<Answer>(
    url,
    (next) => {
      setHere({ to: url, answer: next });
      setFault(null);
    },
    (error, isRefusal) => {
      if (isRefusal || here?.to !== url) setFault(inWords(error));
    },
  );
  const reload = useCallback(() => asking.current?.ask(), [asking]);
  const overtaken = useCallback(() => asking.current?.overtaken(), [asking]);
  useLive(url === null ? null : canvasOfUrl(url), url === null ? [] : parts, reload);
  return {
    answer: here === null ? null : here.answer,
    isOld: here !== null && here.to !== url,
    fault,
    reload,
    overtaken,
  };
}
