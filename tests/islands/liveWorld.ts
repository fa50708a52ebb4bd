import { type LiveEvent, LiveFeed, type LiveWorld } from '../../src/islands/live/feed';
import type { MarkEvent } from '../../src/server/live/contract';

type Heard = Parameters<LiveWorld['open']>[1];

/** A browser whose tabs share one stream, held by hand. */
export class StandInStreams {
  /** Addresses that were opened, in order. */
  readonly opened: string[] = [];
  /** How canvases stood when the tabs' pages were made. */
  readonly made = new Map<string, string>();
  private heard: Heard = () => {};
  private broken: () => void = () => {};
  private readonly queue: { tab: object; work: () => void }[] = [];
  private readonly tabs: { listen: Parameters<LiveWorld['heard']>[0]; closed: boolean }[] = [];
  private timers: (() => void)[] = [];

  tab(): { feed: LiveFeed; told: LiveEvent[]; close(): void } {
    const own = { listen: (() => {}) as Parameters<LiveWorld['heard']>[0], closed: false };
    this.tabs.push(own);
    const feed = new LiveFeed({
      lead: (work) => {
        this.queue.push({ tab: own, work });
        if (this.queue.length === 1) work();
      },
      tell: (news) => {
        for (const tab of this.tabs) if (tab !== own && !tab.closed) tab.listen(structuredClone(news));
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
      later: (work) => this.timers.push(() => own.closed || work()),
    });
    const told: LiveEvent[] = [];
    feed.subscribe((event) => told.push(event));
    return {
      feed,
      told,
      close: () => {
        own.closed = true;
        const leads = this.queue[0]?.tab === own;
        this.queue.splice(
          this.queue.findIndex(({ tab }) => tab === own),
          1,
        );
        if (leads) this.queue[0]?.work();
      },
    };
  }

  /** Lets the time pass after which things are done. */
  wait(): void {
    for (let i = 0; i < 5; i++) for (const work of this.timers.splice(0)) work();
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
