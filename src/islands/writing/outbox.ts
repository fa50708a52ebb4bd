import { ApiProblem, inWords, NoAnswer, sendJson } from './api';

/** A write on its way: where to, and what. Its body carries a UUID, so sending it twice does no harm. */
interface Waiting {
  url: string;
  body: unknown;
}

const RETRY_MS = 2000;

/**
 * Sends writes one after the other and keeps each until the server has acknowledged it, also over a reload:
 * what is marked while the server is away is sent when it is back.
 */
export class Outbox<Answer> {
  private waiting: Waiting[];
  private sending = false;
  private retry: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly key: string,
    private readonly told: {
      answered(answer: Answer): void;
      refused(sentence: string): void;
      waiting(count: number, away: boolean): void;
    },
  ) {
    this.waiting = JSON.parse(localStorage.getItem(key) ?? '[]') as Waiting[];
  }

  /** Sends what an earlier page left behind. */
  resume(): void {
    this.told.waiting(this.waiting.length, false);
    void this.send();
  }

  /** Stops trying; what waits stays stored. */
  pause(): void {
    clearTimeout(this.retry);
    this.sending = true;
  }

  put(url: string, body: unknown): void {
    this.waiting.push({ url, body });
    this.store();
    this.told.waiting(this.waiting.length, false);
    void this.send();
  }

  private store(): void {
    if (this.waiting.length === 0) localStorage.removeItem(this.key);
    else localStorage.setItem(this.key, JSON.stringify(this.waiting));
  }

  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    for (let next = this.waiting[0]; next; next = this.waiting[0]) {
      try {
        this.told.answered(await sendJson<Answer>('POST', next.url, next.body));
      } catch (error) {
        const away = error instanceof NoAnswer || (error instanceof ApiProblem && error.status >= 500);
        if (away) {
          this.told.waiting(this.waiting.length, true);
          this.retry = setTimeout(() => {
            this.sending = false;
            void this.send();
          }, RETRY_MS);
          return;
        }
        this.told.refused(inWords(error));
      }
      this.waiting.shift();
      this.store();
      this.told.waiting(this.waiting.length, false);
    }
    this.sending = false;
  }
}
