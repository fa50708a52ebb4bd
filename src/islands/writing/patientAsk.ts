import { type RefObject, useEffect, useRef } from 'react';
import { ApiProblem, getJson } from './api';

/** Pauses before an answer that did not come is asked for again; the last one from then on. */
const PAUSES_MS = [2000, 5000, 10_000, 30_000];

/**
 * Asks an address, and again after a while where no answer comes; a refusal is one. What comes after a newer question is
 * dropped.
 */
export class PatientAsk<Answer> {
  private asked = 0;
  private tries = 0;
  private again: ReturnType<typeof setTimeout> | undefined;
  /** Whether an answer is waited for. */
  private isOpen = false;

  /** @param failed told of each failure, and whether it is a refusal, after which it is not asked again */
  constructor(
    private readonly url: string,
    private readonly come: (answer: Answer) => void,
    private readonly failed: (error: unknown, isRefusal: boolean) => void = () => {},
  ) {}

  /** Asks now. */
  ask = (): void => {
    const mine = ++this.asked;
    clearTimeout(this.again);
    this.isOpen = true;
    getJson<Answer>(this.url).then(
      (answer) => {
        if (mine !== this.asked) return;
        this.isOpen = false;
        this.tries = 0;
        this.come(answer);
      },
      (error: unknown) => {
        if (mine !== this.asked) return;
        const isRefusal = error instanceof ApiProblem && error.status < 500;
        this.isOpen = !isRefusal;
        this.failed(error, isRefusal);
        const pause = PAUSES_MS[Math.min(this.tries++, PAUSES_MS.length - 1)];
        if (!isRefusal) this.again = setTimeout(this.ask, pause);
      },
    );
  };

  /** A newer answer to a write is shown: what is still on its way may be older, and is asked for once more. */
  overtaken(): void {
    if (this.isOpen) this.ask();
  }

  /** Whatever comes from now on is dropped. */
  end(): void {
    this.asked++;
    this.isOpen = false;
    clearTimeout(this.again);
  }
}

/**
 * Asks an address as long as the page shows it; null asks nothing.
 * @param come and `failed` as of the newest render
 * @param atOnce asks also when the address comes, and not only when it is told to
 */
export function usePatientAsk<Answer>(
  url: string | null,
  come: (answer: Answer) => void,
  failed?: (error: unknown, isRefusal: boolean) => void,
  atOnce = true,
): RefObject<PatientAsk<Answer> | null> {
  const asking = useRef<PatientAsk<Answer>>(null);
  const newest = useRef({ come, failed });
  newest.current = { come, failed };
  useEffect(() => {
    if (url === null) return;
    const own = new PatientAsk<Answer>(
      url,
      (answer) => newest.current.come(answer),
      (error, isRefusal) => newest.current.failed?.(error, isRefusal),
    );
    asking.current = own;
    if (atOnce) own.ask();
    return () => {
      asking.current = null;
      own.end();
    };
  }, [url, atOnce]);
  return asking;
}
