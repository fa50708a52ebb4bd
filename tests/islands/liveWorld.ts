import { type LiveEvent, LiveFeed, type LiveWorld } from '../../src/islands/live/feed';
import type { MarkEvent } from '../../src/server/live/contract';

type Heard = Parameters<LiveWorld['open']>[1];
interface Tab {
  listen: Parameters<LiveWorld['heard']>[0];
  closed: boolean;
  /** Put to sleep by the browser: what it is told comes when it wakes. */
  asleep: boolean;
  woken: () => void;
  left: () => void;
  late: (() => void)[];
}

/** A browser whose tabs share one stream, held by hand. */
export class StandInStreams {
  /** Addresses that were opened, in order. */
  readonly opened: string[] = [];
  /** How canvases stood when the tabs' pages were made. */
  readonly made = new Map<string, string>();
  private heard: Heard = () => {};
  private broken: () => void = () => {};
  private readonly queue: { tab: Tab; work: () => void; lost: () => void }[] = [];
  private readonly tabs: Tab[] = [];
  private timers: { work: () => void; at: number; tab: Tab }[] = [];
  private clock = 0;

  tab(): { feed: LiveFeed; told: LiveEvent[]; close(): void; sleep(): void; wake(): void } {
    const own: Tab = {
      listen: () => {},
      closed: false,
      asleep: false,
      woken: () => {},
      left: () => {},
      late: [],
    };
    this.tabs.push(own);
    const feed = new LiveFeed({
      lead: (work, lost, byForce) => {
        const before = this.queue.findIndex(({ tab }) => tab === own);
        if (before > 0) this.queue.splice(before, 1);
        if (byForce) {
          const [from] = this.queue.splice(0, 1, { tab: own, work, lost });
          work();
          // The other one hears of it late, after what it was told meanwhile.
          if (from?.tab.asleep) from.tab.late.push(from.lost);
          else from?.lost();
          return;
        }
        this.queue.push({ tab: own, work, lost });
        if (this.queue.length === 1) work();
      },
      tell: (news) => {
        for (const tab of this.tabs) {
          if (tab === own || tab.closed) continue;
          const hear = () => tab.listen(structuredClone(news));
          if (tab.asleep) tab.late.push(hear);
          else hear();
        }
      },
      heard: (listen) => {
        own.listen = listen;
      },
      open: (url, heard, broken) => {
        this.opened.push(url);
        this.heard = heard;
        this.broken = broken;
        return { close: () => {} };
      },
      made: (canvas) => this.made.get(canvas) ?? null,
      later: (work, ms) => this.timers.push({ work, at: this.clock + ms, tab: own }),
      woken: (listen) => {
        own.woken = listen;
      },
      left: (listen) => {
        own.left = listen;
      },
      now: () => this.clock,
    });
    const told: LiveEvent[] = [];
    feed.subscribe((event) => told.push(event));
    return {
      feed,
      told,
      close: () => {
        own.left();
        own.closed = true;
        const leads = this.queue[0]?.tab === own;
        this.queue.splice(
          this.queue.findIndex(({ tab }) => tab === own),
          1,
        );
        if (leads) this.queue[0]?.work();
      },
      sleep: () => {
        own.asleep = true;
      },
      wake: () => {
        own.asleep = false;
        for (const work of own.late.splice(0)) work();
        own.woken();
      },
    };
  }

  /** Lets time pass; without a number three seconds, after which what was begun is done. */
  wait(ms = 3000): void {
    const until = this.clock + ms;
    for (;;) {
      this.timers.sort((a, b) => a.at - b.at);
      const next = this.timers.find(({ at, tab }) => at <= until && !tab.asleep);
      if (!next) break;
      this.timers.splice(this.timers.indexOf(next), 1);
      this.clock = Math.max(this.clock, next.at);
      if (!next.tab.closed) next.work();
    }
    this.clock = until;
  }

  say(event: string, data: object): void {
    this.heard(event, structuredClone(data) as Record<string, unknown>);
  }

  break(): void {
    this.broken();
  }
}

/** A mark as the ledger tells it. */
export function toldMark(after: number, position: number, kind: 'lay' | 'lift', runs: number[]): MarkEvent {
  return { after, position, id: `m${position}`, kind, runs, by: { screen: 'elsewhere', device: 'Tablet' } };
}
