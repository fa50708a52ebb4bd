import { ApiProblem, NoAnswer } from '../../src/islands/writing/api';
import { Outbox, type OutboxWorld } from '../../src/islands/writing/outbox';
import { memoryStore, type WaitingStore, type WaitingWrite } from '../../src/islands/writing/waitingStore';

/** A server that answers as the test says, and remembers what it got. */
export class StandInServer {
  readonly got: WaitingWrite[] = [];
  /** What becomes of the next writes: `ok`, `away`, a status; the last goes on for ever. */
  plan: ('ok' | 'away' | 'lost' | number)[] = ['ok'];
  answer: (write: WaitingWrite) => unknown = (write) => ({ did: (write.body as { n?: number }).n });
  held: (() => void) | null = null;

  async send(write: WaitingWrite): Promise<unknown> {
    if (this.held) await new Promise<void>((resolve) => this.waiting.push(resolve));
    const what = this.plan.length > 1 ? this.plan.shift()! : this.plan[0]!;
    if (what === 'away') throw new NoAnswer();
    if (typeof what === 'number') throw new ApiProblem(what, `Refused with ${what}.`);
    this.got.push(write);
    if (what === 'lost') throw new NoAnswer();
    return this.answer(write);
  }

  private readonly waiting: (() => void)[] = [];
  /** From now on answers are held back, until {@link release}. */
  hold(): void {
    this.held = () => {};
  }
  release(): void {
    this.held = null;
    for (const go of this.waiting.splice(0)) go();
  }
}

/** A browser with tabs: one store, one lock, and news from tab to tab. */
export class StandInBrowser {
  readonly timers: (() => void)[] = [];
  /** How often it was asked to keep what waits. */
  kept = 0;
  private lock: Promise<void> = Promise.resolve();
  private readonly tabs: { listen: Parameters<OutboxWorld['heard']>[0]; closed: boolean }[] = [];

  constructor(
    readonly server: StandInServer,
    readonly store: WaitingStore = memoryStore(),
  ) {}

  /** @returns its outbox, and a way to close the tab */
  tab(): { outbox: Outbox; close(): void } {
    const own = { listen: (() => {}) as Parameters<OutboxWorld['heard']>[0], closed: false };
    this.tabs.push(own);
    const name = `screen ${this.tabs.length}`;
    const outbox = new Outbox({
      store: this.store,
      screen: async () => name,
      send: (write) => this.server.send(write),
      alone: (work) => {
        const mine = this.lock.then(() => (own.closed ? undefined : work(() => !own.closed)));
        this.lock = mine.then(
          () => {},
          () => {},
        );
        return mine;
      },
      tell: (news) => {
        for (const tab of this.tabs) if (tab !== own && !tab.closed) tab.listen(news);
      },
      heard: (listen) => {
        own.listen = listen;
      },
      later: (work) => this.timers.push(work),
      keep: () => {
        this.kept++;
      },
    });
    return {
      outbox,
      close: () => {
        own.closed = true;
      },
    };
  }

  /** Lets the time pass after which a tab tries again. */
  async wait(): Promise<void> {
    for (const work of this.timers.splice(0)) work();
    await settled();
  }
}

/** Lets everything that is under way come to rest. */
export async function settled(): Promise<void> {
  for (let i = 0; i < 60; i++) await new Promise((resolve) => setImmediate(resolve));
}
