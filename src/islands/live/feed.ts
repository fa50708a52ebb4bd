import type { Author, ChangedPart, MarkEvent } from '../../server/live/contract';
import { takeTurn } from '../writing/turn';

/** What pages are told. `canvas` is null for what belongs to the shelf. */
export type LiveEvent =
  | { kind: 'mark'; canvas: string; mark: MarkEvent }
  | { kind: 'changed'; canvas: string | null; parts: ChangedPart[]; by: Author | null }
  | { kind: 'present'; canvas: string; devices: string[] }
  /** The canvas was deleted. */
  | { kind: 'gone'; canvas: string }
  /** Something may have been missed: what is shown is to be read anew. */
  | { kind: 'missed'; canvas: string | null };

/** What tabs tell each other. */
type News =
  | { kind: 'told'; event: LiveEvent }
  | { kind: 'follow'; canvas: string; stamp: string | null }
  /** How far a canvas was told that somebody wants to follow. */
  | { kind: 'at'; canvas: string; stamp: string | null }
  | { kind: 'who' }
  /** A page was left: perhaps nobody follows its canvas any more. */
  | { kind: 'left' }
  /** The tab that holds the stream is awake. */
  | { kind: 'beat' };

/** A stream of events as the browser has it. */
export interface OpenStream {
  close(): void;
}

/** What the feed needs of its surroundings; tests hand in their own. */
export interface LiveWorld {
  /**
   * Runs work once this tab is the one that holds the stream; it holds it as long as it lives.
   * @param lost told where another tab took it by force
   */
  lead(work: () => void, lost: () => void, byForce: boolean): void;
  /** Tells other tabs; they get it through `heard`. */
  tell(news: News): void;
  heard(listen: (news: News) => void): void;
  /** @param broken told once, when it ends */
  open(
    url: string,
    heard: (event: string, data: Record<string, unknown>) => void,
    broken: () => void,
  ): OpenStream;
  /** How a canvas stood when this page was made; null where the page is not of it. */
  made(canvas: string): string | null;
  later(work: () => void, ms: number): void;
  /** Told when the page may have slept. */
  woken(listen: () => void): void;
  /** Told when the page is left. */
  left(listen: () => void): void;
  /** Milliseconds, going on while the machine sleeps. */
  now(): number;
}

/** The server says something every 20 s. */
const SILENT_MS = 50_000;
const WATCH_MS = 10_000;
const AGAIN_MS = 1000;
const LONGEST_AGAIN_MS = 15_000;
/** Other tabs say within this time what they follow. */
const GATHER_MS = 120;
/** From so many canvases on the tabs are asked whether they still follow them; the server takes 24. */
const MANY_CANVASES = 12;

/**
 * One stream of events for all tabs of a browser. One tab holds it and passes on what it is told; when that tab goes, or
 * is put to sleep by the browser, another takes over from where it was. A stream that says nothing is opened anew.
 */
export class LiveFeed {
  private readonly listeners = new Set<(event: LiveEvent) => void>();
  /** Canvases that tabs follow, with how far each was told. */
  private readonly followed = new Map<string, string | null>();
  /** Those that tabs have said to follow since they were asked; null while nobody counts. */
  private counted: Set<string> | null = null;
  private readonly present = new Map<string, string[]>();
  private readonly own = new Set<string>();
  /** Canvases of which another tab is asked how far it was told. */
  private readonly asked = new Set<string>();
  private leads = false;
  private stream: OpenStream | null = null;
  private opening = false;
  /** Times that the stream broke since it was open last. */
  private breaks = 0;
  /** When the stream, or the tab that holds it, was heard of last. */
  private heardAt: number;

  constructor(private readonly world: LiveWorld) {
    this.heardAt = world.now();
    world.heard((news) => this.hear(news));
    this.ask(false);
    world.woken(() => {
      this.look();
      // It may not have been counted while it slept.
      if (!this.leads) this.tellOwn();
    });
    world.left(() => {
      this.own.clear();
      world.tell({ kind: 'left' });
    });
    const watch = () => {
      this.look();
      world.later(watch, WATCH_MS);
    };
    world.later(watch, WATCH_MS);
  }

  private ask(byForce: boolean): void {
    const { world } = this;
    const lead = () => {
      this.leads = true;
      this.heardAt = world.now();
      world.tell({ kind: 'who' });
      this.reopen();
    };
    world.lead(lead, () => this.lost(), byForce);
  }

  /** This tab slept, and another one took over. */
  private lost(): void {
    this.leads = false;
    this.stream?.close();
    this.stream = null;
    this.heardAt = this.world.now();
    this.ask(false);
    this.tellOwn();
    for (const canvas of [...this.own, null]) this.pass({ kind: 'missed', canvas });
  }

  /** Says to the tab that holds the stream what this one follows. */
  private tellOwn(): void {
    for (const canvas of this.own) {
      this.world.tell({ kind: 'follow', canvas, stamp: this.followed.get(canvas) ?? null });
    }
  }

  /** A connection may be dead, or the tab that has it asleep, and nobody is told. */
  private look(): void {
    const silent = this.world.now() - this.heardAt > SILENT_MS;
    if (this.leads) this.world.tell({ kind: 'beat' });
    if (!silent) return;
    this.heardAt = this.world.now();
    if (!this.leads) this.ask(true);
    else if (this.stream) this.reopen();
  }

  /** @returns stops listening */
  subscribe(listener: (event: LiveEvent) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** From now on this tab is told of a canvas. */
  follow(canvas: string): void {
    if (this.own.has(canvas)) return;
    this.own.add(canvas);
    if (this.leads && this.followed.has(canvas)) {
      this.compare(canvas, this.followed.get(canvas) ?? null);
      return;
    }
    const stamp = this.world.made(canvas);
    this.followed.set(canvas, stamp);
    if (this.leads) this.reopen();
    else {
      this.asked.add(canvas);
      this.world.tell({ kind: 'follow', canvas, stamp });
    }
  }

  /** Other devices that have a canvas open. */
  devicesOn(canvas: string): string[] {
    return this.present.get(canvas) ?? [];
  }

  private hear(news: News): void {
    if (!this.leads && (news.kind === 'told' || news.kind === 'beat' || news.kind === 'who')) {
      this.heardAt = this.world.now();
    }
    if (news.kind === 'told') {
      this.pass(news.event);
      return;
    }
    if (news.kind === 'at') {
      if (this.asked.delete(news.canvas)) this.compare(news.canvas, news.stamp);
      return;
    }
    if (!this.leads) {
      if (news.kind === 'who') this.tellOwn();
      return;
    }
    if (news.kind === 'left') this.count();
    if (news.kind !== 'follow') return;
    this.counted?.add(news.canvas);
    if (this.followed.has(news.canvas)) {
      // The tab is new and has not been told who else is there.
      this.world.tell({ kind: 'at', canvas: news.canvas, stamp: this.followed.get(news.canvas) ?? null });
      const devices = this.present.get(news.canvas);
      if (devices)
        this.world.tell({ kind: 'told', event: { kind: 'present', canvas: news.canvas, devices } });
      return;
    }
    this.followed.set(news.canvas, news.stamp);
    if (this.followed.size > MANY_CANVASES) this.count();
    this.reopen();
  }

  /** Asks all tabs what they follow, and lets go of what none does: who is there is told to others. */
  private count(): void {
    if (this.counted) return;
    this.counted = new Set();
    this.world.tell({ kind: 'who' });
    this.world.later(() => {
      // What this tab began to follow meanwhile counts too.
      const counted = new Set([...(this.counted ?? []), ...this.own]);
      this.counted = null;
      const gone = [...this.followed.keys()].filter((canvas) => !counted.has(canvas));
      for (const canvas of gone) this.followed.delete(canvas);
      if (gone.length > 0) this.reopen();
    }, GATHER_MS);
  }

  /** Opens the stream for all that is followed; what was told before is not told again. */
  private reopen(): void {
    if (this.opening) return;
    this.opening = true;
    this.world.later(() => {
      this.opening = false;
      if (!this.leads) return;
      this.stream?.close();
      const query = [...this.followed].map(
        ([canvas, stamp]) => `canvas=${canvas}${stamp ? `~${stamp}` : ''}`,
      );
      this.stream = this.world.open(
        `/api/events${query.length > 0 ? `?${query.join('&')}` : ''}`,
        (event, data) => this.take(event, data),
        () => {
          this.stream = null;
          // A machine that is off for the night is not asked every second.
          this.world.later(() => this.reopen(), Math.min(LONGEST_AGAIN_MS, AGAIN_MS * 2 ** this.breaks++));
        },
      );
    }, GATHER_MS);
  }

  private take(event: string, data: Record<string, unknown>): void {
    this.heardAt = this.world.now();
    if (event === 'beat') {
      this.world.tell({ kind: 'beat' });
      return;
    }
    const canvas = typeof data.canvas === 'string' ? data.canvas : null;
    if (canvas !== null && typeof data.stamp === 'string') this.followed.set(canvas, data.stamp);
    const pass = (told: LiveEvent) => {
      this.world.tell({ kind: 'told', event: told });
      this.pass(told);
    };
    if (event === 'here' && canvas === null) {
      this.breaks = 0;
      // Of the shelf no ledger tells what was missed before, since the page was made or while no stream was open.
      pass({ kind: 'missed', canvas: null });
    } else if (event === 'mark' && canvas !== null) {
      pass({ kind: 'mark', canvas, mark: data as unknown as MarkEvent });
    } else if (event === 'changed') {
      const { parts = ['other'], by = null } = data as { parts?: ChangedPart[]; by?: Author | null };
      pass({ kind: 'changed', canvas, parts, by });
    } else if (event === 'present' && canvas !== null) {
      pass({ kind: 'present', canvas, devices: (data as { devices: string[] }).devices });
    } else if (event === 'gone' && canvas !== null) {
      this.followed.delete(canvas);
      pass({ kind: 'gone', canvas });
    } else if (event === 'too-much') pass({ kind: 'missed', canvas });
  }

  /** Whether something changed between the making of this page and what was told so far; marks are compared by who shows them. */
  private compare(canvas: string, told: string | null): void {
    const made = this.world.made(canvas);
    if (made === null || told === null || revisionOf(made) >= revisionOf(told)) return;
    this.pass({ kind: 'changed', canvas, parts: ['other'], by: null });
  }

  private pass(event: LiveEvent): void {
    if (event.kind === 'present') this.present.set(event.canvas, event.devices);
    for (const listener of this.listeners) listener(event);
  }
}

function revisionOf(stamp: string): number {
  return Number(stamp.split('-', 1)[0]);
}

/** The browser as the feed sees it. */
function browserWorld(): LiveWorld {
  const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('oculent-live');
  let waits = new AbortController();
  return {
    lead: (work, lost, byForce) => {
      // Where there are no locks, each tab has a stream of its own.
      if (!navigator.locks) return work();
      waits.abort();
      waits = new AbortController();
      const lead = () => {
        work();
        return new Promise<never>(() => {});
      };
      void takeTurn(navigator.locks, 'oculent-live', lead, { byForce, signal: waits.signal, lost });
    },
    tell: (news) => channel?.postMessage(news),
    heard: (listen) => channel?.addEventListener('message', ({ data }) => listen(data as News)),
    open: (url, heard, broken) => {
      if (typeof EventSource === 'undefined') return { close: () => {} };
      const source = new EventSource(url);
      for (const name of ['here', 'beat', 'mark', 'changed', 'present', 'too-much', 'gone']) {
        source.addEventListener(name, ({ data }: MessageEvent<string>) => heard(name, JSON.parse(data)));
      }
      // Coming back by itself, it would not say how far it came with each canvas.
      source.addEventListener('error', () => {
        source.close();
        broken();
      });
      return source;
    },
    made: (canvas) => {
      const [of, stamp = null] = document.documentElement.dataset.stamp?.split('~') ?? [];
      return of === canvas ? stamp : null;
    },
    later: (work, ms) => void setTimeout(work, ms),
    woken: (listen) => {
      window.addEventListener('online', listen);
      document.addEventListener('visibilitychange', listen);
    },
    left: (listen) => window.addEventListener('pagehide', listen),
    now: () => Date.now(),
  };
}

let only: LiveFeed | null = null;

/** The page's feed. */
export function theFeed(): LiveFeed {
  only ??= new LiveFeed(browserWorld());
  return only;
}
