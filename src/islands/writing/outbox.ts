import { ApiProblem, inWords, NoAnswer, sendJson, WRITE_TIMEOUT_MS, type WriteMethod } from './api';
import { theScreen } from './screen';
import { takeTurn } from './turn';
import { browserStore, safeStore, type WaitingStore, type WaitingWrite, whenMade } from './waitingStore';

/** What the outbox needs of its surroundings; tests hand in their own. */
export interface OutboxWorld {
  store: WaitingStore;
  /** The screen where a write is made. */
  screen(): string | Promise<string>;
  send(write: WaitingWrite): Promise<unknown>;
  /** Runs work while no other tab runs such work. @param work stops where it no longer has its turn */
  alone(work: (hasTurn: () => boolean) => Promise<void>): Promise<void>;
  /** Tells other tabs; they get it through `heard`. */
  tell(news: News): void;
  heard(listen: (news: News) => void): void;
  later(work: () => void, ms: number): void;
  /** Asks that what waits stays, also where room is short or nobody comes by for weeks. */
  keep(): void;
}

/** What tabs tell each other. */
type News =
  | { kind: 'changed' }
  | { kind: 'answered'; write: WaitingWrite; answer: unknown }
  | { kind: 'aside'; key: string; canvasId: string | null; sentence: string };

/** How things stand, for all pages alike. */
export interface OutboxState {
  /** Writes that were not acknowledged yet. */
  waiting: number;
  /** Whether the server did not answer the last try. */
  away: boolean;
  /** Whether that was because this device is not let in any more. */
  out: boolean;
  /** Writes that the server refuses, or fails at again and again. */
  aside: readonly WaitingWrite[];
  /** Whether the browser could not keep a write, so that it would be lost with this page. */
  unkept: boolean;
}

const RETRY_MS = 2000;
/** Digits of a time in microseconds, until the year 2286. */
const KEY_DIGITS = 16;
/** So many writes are read from the store at once. */
const AT_ONCE = 50;
/** A tab that has the turn to send and says nothing for so long is asleep. */
const ASLEEP_MS = WRITE_TIMEOUT_MS * 1.5;
/** From so many faults of the server's own on, a write no longer holds the others back. */
const MOST_TRIES = 3;

interface Hopes {
  answered(answer: unknown): void;
  refused(error: ApiProblem): void;
  away(): void;
}

/** Told of an answer; `own` where the write was made at this screen, by this page or the one before a reload. */
type AnswerListener = (canvasId: string | null, answer: unknown, own: boolean, write: WaitingWrite) => void;

/**
 * Sends writes one after the other, in the order in which they were made over all tabs, and keeps each until the server
 * has acknowledged it. Any page sends what any page left behind. A write that is refused, or fails for good, is set
 * aside with its sentence and never holds back the others.
 */
export class Outbox {
  private readonly hopes = new Map<string, Hopes>();
  private readonly listeners = new Set<(state: OutboxState) => void>();
  private readonly answers = new Set<AnswerListener>();
  private screen: string | null = null;
  private last = 0;
  private away = false;
  private out = false;
  private unkept = false;
  private retrying = false;
  private state: OutboxState = { waiting: 0, away: false, out: false, aside: [], unkept: false };

  constructor(private readonly world: OutboxWorld) {
    world.heard((news) => this.hear(news));
    void Promise.resolve(world.screen()).then((name) => {
      this.screen = name;
    });
  }

  /** Sends what earlier pages left behind. */
  start(): void {
    void this.refresh();
    void this.drain();
  }

  current(): OutboxState {
    return this.state;
  }

  /** @returns stops listening */
  subscribe(listener: (state: OutboxState) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** Listens to every answer, whichever tab sent the write. @returns stops listening */
  onAnswer(listener: AnswerListener): () => void {
    this.answers.add(listener);
    return () => this.answers.delete(listener);
  }

  /** Writes of a canvas that are not acknowledged yet, in their order. */
  async waitingFor(canvasId: string): Promise<WaitingWrite[]> {
    return this.world.store.waitingFor(canvasId);
  }

  /**
   * Takes a write in; it is sent at once or as soon as the server answers.
   * @param hopes told what becomes of it, as long as this page lives; without, a refusal is set aside
   */
  async put(
    method: WriteMethod,
    url: string,
    body: unknown,
    canvasId: string | null,
    hopes: Hopes | null = null,
  ): Promise<void> {
    const screen = await this.world.screen();
    const key = this.nextKey(await this.world.store.lastKey());
    const write = { key, screen, madeAt: Date.now(), canvasId, method, url, body, tries: 0, aside: null };
    if (hopes) this.hopes.set(write.key, hopes);
    await this.world.store.put(write);
    this.world.tell({ kind: 'changed' });
    await this.refresh();
    void this.drain();
  }

  /** Sends a write again that was set aside. */
  async retry(write: WaitingWrite): Promise<void> {
    await this.world.store.put({ ...write, aside: null, tries: 0 });
    this.world.tell({ kind: 'changed' });
    await this.refresh();
    void this.drain();
  }

  /** Gives a write up. */
  async drop(write: WaitingWrite): Promise<void> {
    await this.world.store.remove(write.key);
    this.world.tell({ kind: 'changed' });
    await this.refresh();
  }

  unkeptNow(): void {
    this.unkept = true;
  }

  /**
   * Time of making, then a number of its own: sorts as text, also beside those of other tabs. A clock may be set back, or
   * begin anew with an empty battery: what is made later comes later all the same.
   * @param after the last key of those that wait
   */
  private nextKey(after: string | null): string {
    const later = after === null ? 0 : Number.parseInt(after, 10) + 1;
    this.last = Math.max(this.last + 1, Date.now() * 1000, later);
    return `${String(this.last).padStart(KEY_DIGITS, '0')}-${Math.random().toString(36).slice(2, 8)}`;
  }

  private async drain(): Promise<void> {
    await this.world.alone(async (hasTurn) => {
      for (;;) {
        const next = await this.world.store.first(AT_ONCE);
        if (next.length === 0) break;
        for (const write of next) if (!hasTurn() || !(await this.sendOne(write))) return;
      }
    });
    await this.refresh();
  }

  /** @returns whether to go on with the next */
  private async sendOne(write: WaitingWrite): Promise<boolean> {
    try {
      const answer = await this.world.send(write);
      await this.world.store.remove(write.key);
      this.away = false;
      this.out = false;
      // Counted here: asking the store after each of thousands would take longer than sending them.
      this.show(Math.max(0, this.state.waiting - 1), this.state.aside);
      const news: News = { kind: 'answered', write, answer };
      this.world.tell(news);
      this.hear(news);
      return true;
    } catch (error) {
      // Who is not let in any more did nothing wrong: all of it waits until the device has joined again.
      const out = error instanceof ApiProblem && error.status === 401;
      const refused = error instanceof ApiProblem && error.status < 500 && !out;
      const failed = error instanceof ApiProblem && !refused && !out;
      if (refused || (failed && write.tries + 1 >= MOST_TRIES)) {
        await this.setAside(write, error as ApiProblem);
        return true;
      }
      if (failed) await this.world.store.put({ ...write, tries: write.tries + 1 });
      else if (!(error instanceof NoAnswer) && !out) console.error(error);
      if (!this.away) this.world.keep();
      this.away = true;
      this.out = out;
      for (const { away } of this.hopes.values()) away();
      this.tryLater();
      return false;
    }
  }

  private async setAside(write: WaitingWrite, error: ApiProblem): Promise<void> {
    const hopes = this.hopes.get(write.key);
    this.hopes.delete(write.key);
    // Who waits for the answer is told where it was done; else it is kept with its sentence until someone looks.
    if (hopes) await this.world.store.remove(write.key);
    else await this.world.store.put({ ...write, aside: inWords(error) });
    await this.refresh();
    hopes?.refused(error);
    const { key, canvasId } = write;
    const news: News = { kind: 'aside', key, canvasId, sentence: inWords(error) };
    this.world.tell(news);
  }

  private tryLater(): void {
    if (this.retrying) return;
    this.retrying = true;
    this.world.later(() => {
      this.retrying = false;
      void this.drain();
    }, RETRY_MS);
  }

  private hear(news: News): void {
    if (news.kind !== 'changed') {
      const { key } = news.kind === 'answered' ? news.write : news;
      const hopes = this.hopes.get(key);
      this.hopes.delete(key);
      if (news.kind === 'answered') {
        hopes?.answered(news.answer);
        const { write, answer } = news;
        const own = write.screen !== undefined && write.screen === this.screen;
        for (const listener of this.answers) listener(write.canvasId, answer, own, write);
      } else if (hopes) {
        hopes.refused(new ApiProblem(409, news.sentence));
        void this.world.store.remove(key).then(() => this.refresh());
      }
    }
    void this.refresh();
  }

  private async refresh(): Promise<void> {
    const { store } = this.world;
    this.show(...(await Promise.all([store.count(), store.aside()])));
  }

  private show(waiting: number, aside: readonly WaitingWrite[]): void {
    if (waiting === 0) this.away = false;
    this.state = { waiting, away: this.away, out: this.out, aside, unkept: this.unkept && waiting > 0 };
    for (const listener of this.listeners) listener(this.state);
  }
}

/** The browser as the outbox sees it. */
function browserWorld(onFailure: () => void): OutboxWorld {
  const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('oculent-outbox');
  let turn: Promise<void> = Promise.resolve();
  let heardAt = Date.now();
  channel?.addEventListener('message', ({ data }) => {
    if ((data as News).kind !== 'changed') heardAt = Date.now();
  });
  return {
    store: safeStore(browserStore(), onFailure),
    screen: () => theScreen().own(),
    send: (write) => {
      const { method, url, body, screen } = write;
      return sendJson(method, url, body, { screen, waitedMs: Date.now() - whenMade(write) });
    },
    // Where there are no locks (an insecure address), one page still sends in order, and ids keep two pages apart.
    alone: async (work) => {
      const { locks } = navigator;
      if (!locks) {
        const next = () => work(() => true);
        turn = turn.then(next, next);
        return turn;
      }
      const waits = new AbortController();
      let has = false;
      const ask = (byForce: boolean) => {
        let lost = false;
        const begin = () => {
          has = true;
          return work(() => !lost);
        };
        const asking = { byForce, signal: waits.signal, lost: () => (lost = true) };
        return takeTurn(locks, 'oculent-outbox', begin, asking);
      };
      const askedAt = Date.now();
      const watch = setInterval(() => {
        // A write takes so long at most: whoever has the turn and says nothing is asleep.
        if (has || Date.now() - Math.max(askedAt, heardAt) < ASLEEP_MS) return;
        clearInterval(watch);
        waits.abort();
      }, ASLEEP_MS / 10);
      await ask(false);
      clearInterval(watch);
      if (!has) await ask(true);
    },
    tell: (news) => channel?.postMessage(news),
    heard: (listen) => channel?.addEventListener('message', ({ data }) => listen(data as News)),
    later: (work, ms) => void setTimeout(work, ms),
    // Not sooner: some browsers ask the user about it.
    keep: () => void navigator.storage?.persist?.().catch(() => false),
  };
}

let only: Outbox | null = null;

/** The page's outbox. */
export function theOutbox(): Outbox {
  if (!only) {
    const outbox = new Outbox(browserWorld(() => outbox.unkeptNow()));
    only = outbox;
    outbox.start();
    window.addEventListener('online', () => outbox.start());
  }
  return only;
}
