import { homeNetworkSetting } from '../../data/devices';
import type { Database } from '../../data/engine/database';
import {
  channelOfSchema,
  type LedgerHeads,
  ledgerHeads,
  marksAfter,
  openRevision,
  SHELF,
  type ToldMark,
} from '../../data/live';
import type { Author, ChangedEvent, ChangedPart, ChangesView, MarkEvent, PresentEvent } from './contract';

/** More marks than these are not told one by one: reading what is laid anew is quicker. */
const MOST_TOLD = 1000;
/** Who has left is missed after so long: most come back at once, because their connection broke. */
const MISSED_MS = 3000;
const SEEN_MS = 150;
/** Streams that are held open at most, and by one device for one canvas. */
const MOST_STREAMS = 150;
const MOST_OF_DEVICE = 8;

/** Revisions that are remembered of a canvas, and canvases of which any are. */
const MOST_REVISIONS = 300;
const MOST_CANVASES = 100;

/** A reader of what happens to a canvas, or to the shelf. */
export interface Reader {
  /** Null for the machine itself. */
  device: { id: string; name: string } | null;
  /** @param stamp how far it has come with this; null where that stays */
  send(event: string, data: object, stamp: string | null): void;
  close(): void;
}

/** How far a reader has come. */
export interface Stamp {
  revision: number;
  position: number;
}

export function stampText({ revision, position }: Stamp): string {
  return `${revision}-${position}`;
}

export function readStamp(text: string | null): Stamp | null {
  const [, revision, position] = /^(\d{1,10})-(\d{1,10})$/.exec(text ?? '') ?? [];
  return revision === undefined ? null : { revision: Number(revision), position: Number(position) };
}

interface Channel {
  readers: Set<Reader>;
  /** Readers that are still being told what they missed. */
  coming: number;
  /** Whether it was given up, because nobody read. */
  gone: boolean;
  heads: LedgerHeads;
  /** Readings one after the other, so that what is told keeps its order. */
  turn: Promise<void>;
  /** Whether a reading is asked for that has not begun. */
  asked: boolean;
  /** When the readers are told who else reads: soon after somebody came, later after somebody left. */
  telling: Map<number, ReturnType<typeof setTimeout>>;
}

/**
 * Tells readers what happens, in the order of the ledgers. The database says that something did; what it was is read from
 * the ledgers once for all readers of a canvas, so that nothing is told twice, left out, or told before it is committed.
 */
export class LiveHub {
  private readonly channels = new Map<string, Promise<Channel>>();
  private readonly shelf = new Set<Reader>();
  /** How the ledgers stood, by canvas and revision. */
  private readonly past = new Map<string, Map<number, LedgerHeads>>();
  /** The name of this machine; null where it may have changed. */
  private named: string | null = null;
  /** Writes under way, by canvas. */
  private readonly writers = new Map<string, Set<Author>>();

  private constructor(private readonly database: Database) {}

  static async open(database: Database): Promise<LiveHub> {
    const hub = new LiveHub(database);
    await database.listen(
      await channelOfSchema(database),
      (payload) => hub.hear(payload),
      () => hub.hearAll(),
    );
    return hub;
  }

  /** Notes who writes to a canvas. @returns to be called when the write is over */
  writing(canvasId: string, author: Author): () => void {
    const writers = this.writers.get(canvasId) ?? new Set();
    this.writers.set(canvasId, writers.add(author));
    return () => {
      // The reading that follows the write may come a moment after its answer.
      setTimeout(() => {
        writers.delete(author);
        if (writers.size === 0 && this.writers.get(canvasId) === writers) this.writers.delete(canvasId);
      }, 50).unref();
    };
  }

  /**
   * Tells a reader what happens from now on, after what it has missed.
   * @param after how far it has come; null for one that begins now
   * @returns stops; null where there is no such canvas or too many read already
   */
  async read(canvasId: string, reader: Reader, after: Stamp | null): Promise<(() => void) | null> {
    const channel = await this.channelOf(canvasId);
    if (!channel) return null;
    const room = this.hasRoom(channel.readers, reader);
    const begun = this.inTurn(channel, async () => {
      if (!room) return;
      const { heads } = channel;
      if (after) {
        const missed = await this.missed(canvasId, after, heads);
        for (const mark of missed.marks) reader.send('mark', mark, null);
        if (missed.tooMuch) reader.send('too-much', {}, null);
        if (missed.parts.length > 0) {
          reader.send('changed', { parts: missed.parts, by: null } satisfies ChangedEvent, null);
        }
      }
      reader.send('here', {}, stampText({ revision: heads.revision, position: heads.marks }));
      channel.readers.add(reader);
    });
    try {
      await begun;
    } finally {
      channel.coming--;
      this.forget(canvasId, channel);
    }
    if (!room) return null;
    this.tellPresent(channel, SEEN_MS);
    return () => {
      channel.readers.delete(reader);
      this.tellPresent(channel, MISSED_MS);
      this.forget(canvasId, channel);
    };
  }

  /** Tells a reader when something of the shelf changes: canvases, stash, cases, devices. @returns stops; null where too many read */
  readShelf(reader: Reader): (() => void) | null {
    if (!this.hasRoom(this.shelf, reader)) return null;
    this.shelf.add(reader);
    reader.send('here', {}, null);
    return () => this.shelf.delete(reader);
  }

  /** What a reader has missed. @returns null where there is no such canvas */
  async changes(canvasId: string, after: Stamp): Promise<ChangesView | null> {
    const heads = await ledgerHeads(this.database, canvasId);
    return heads && this.missed(canvasId, after, heads);
  }

  /** Ends all streams of a device; of every device where the id is null. */
  async dropDevice(id: string | null): Promise<void> {
    const all = [...this.shelf];
    for (const channel of this.channels.values()) all.push(...(await channel).readers);
    for (const reader of all) {
      if (reader.device !== null && (id === null || reader.device.id === id)) reader.close();
    }
  }

  private hear(payload: string): void {
    if (payload === SHELF) {
      this.named = null;
      for (const reader of this.shelf) reader.send('changed', {}, null);
      return;
    }
    void this.channels.get(payload)?.then(
      (channel) => this.look(payload, channel),
      () => {},
    );
  }

  /** The connection was lost: whatever could be told may have happened. */
  private hearAll(): void {
    this.hear(SHELF);
    for (const canvasId of this.channels.keys()) this.hear(canvasId);
  }

  /** The channel of a canvas with a place in it taken, so that it is not given up meanwhile. */
  private async channelOf(canvasId: string): Promise<Channel | null> {
    for (;;) {
      const channel = await this.opened(canvasId).catch(() => null);
      if (channel === null) return null;
      if (channel.gone) continue;
      channel.coming++;
      return channel;
    }
  }

  private opened(canvasId: string): Promise<Channel> {
    const known = this.channels.get(canvasId);
    if (known) return known;
    const opening = ledgerHeads(this.database, canvasId).then((heads) => {
      if (!heads) throw new Error('There is no such canvas.');
      this.remember(canvasId, heads);
      return {
        readers: new Set<Reader>(),
        coming: 0,
        gone: false,
        heads,
        turn: Promise.resolve(),
        asked: false,
        telling: new Map(),
      };
    });
    this.channels.set(canvasId, opening);
    opening.catch(() => this.channels.delete(canvasId));
    return opening;
  }

  private forget(canvasId: string, channel: Channel): void {
    // Who is just about to read must not be left with a channel that nobody tells anything; and what was given up has no
    // place any more, which may be another one's by now.
    if (channel.gone || channel.readers.size > 0 || channel.coming > 0) return;
    channel.gone = true;
    for (const timer of channel.telling.values()) clearTimeout(timer);
    this.channels.delete(canvasId);
  }

  private inTurn(channel: Channel, work: () => Promise<void>): Promise<void> {
    const mine = channel.turn.then(work);
    channel.turn = mine.catch((error: unknown) => console.error(error));
    return mine;
  }

  /** Reads what is new and tells it. Several calls before it begins are one reading. */
  private look(canvasId: string, channel: Channel): void {
    if (channel.asked) return;
    channel.asked = true;
    const writers = this.writers.get(canvasId);
    const [only] = writers ?? [];
    const by = writers?.size === 1 && only ? only : null;
    void this.inTurn(channel, async () => {
      channel.asked = false;
      const { heads } = channel;
      const revision = await openRevision(this.database, canvasId);
      if (revision === null) {
        for (const reader of [...channel.readers]) {
          reader.send('gone', {}, null);
          reader.close();
        }
        // Nothing is told after the end.
        channel.readers.clear();
        this.forget(canvasId, channel);
        return;
      }
      const marks = await marksAfter(this.database, canvasId, heads.marks, MOST_TOLD + 1);
      const last = marks.at(-1)?.position ?? heads.marks;
      // A mark is the commonest act, and should cost others little: all heads are read only where something else changed.
      const now = revision === heads.revision ? heads : await ledgerHeads(this.database, canvasId);
      if (!now) return;
      this.remember(canvasId, now);
      const tooMany = marks.length > MOST_TOLD;
      channel.heads = { ...now, marks: tooMany ? Math.max(last, now.marks) : last };
      const stamp = (position: number) => stampText({ revision: heads.revision, position });
      if (tooMany) this.tell(channel, 'too-much', {}, stamp(channel.heads.marks));
      else {
        const deskName = marks.length > 0 ? await this.deskName() : '';
        for (const mark of told(marks, heads.marks, deskName)) {
          this.tell(channel, 'mark', mark, stamp(mark.position));
        }
      }
      const parts = changedParts(heads, now);
      const id = stampText({ revision: now.revision, position: channel.heads.marks });
      if (parts.length > 0) {
        const author = by && { ...by, device: by.device ?? (await this.deskName()) };
        this.tell(channel, 'changed', { parts, by: author } satisfies ChangedEvent, id);
      }
    }).catch(() => {});
  }

  private async missed(canvasId: string, after: Stamp, heads: LedgerHeads): Promise<ChangesView> {
    const marks =
      after.position >= heads.marks
        ? []
        : await marksAfter(this.database, canvasId, after.position, MOST_TOLD + 1);
    // A head that lies behind what the reader saw: the shelf was restored from a backup.
    const tooMuch = marks.length > MOST_TOLD || after.position > heads.marks;
    const last = marks.at(-1)?.position ?? heads.marks;
    return {
      stamp: stampText({
        revision: heads.revision,
        position: tooMuch ? heads.marks : Math.max(last, heads.marks),
      }),
      marks: tooMuch ? [] : told(marks, after.position, marks.length > 0 ? await this.deskName() : ''),
      tooMuch,
      parts: this.partsSince(canvasId, after.revision, heads),
    };
  }

  /** Keeps how the ledgers stood at a revision, so that who comes back is told what changed since. */
  remember(canvasId: string, heads: LedgerHeads): void {
    const known = this.past.get(canvasId) ?? new Map<number, LedgerHeads>();
    // The newest last, so that the oldest are dropped.
    this.past.delete(canvasId);
    this.past.set(canvasId, known);
    known.set(heads.revision, heads);
    if (known.size > MOST_REVISIONS) known.delete(known.keys().next().value!);
    if (this.past.size > MOST_CANVASES) this.past.delete(this.past.keys().next().value!);
  }

  private partsSince(canvasId: string, revision: number, heads: LedgerHeads): ChangedPart[] {
    if (revision === heads.revision) return [];
    const before = this.past.get(canvasId)?.get(revision);
    return before ? changedParts(before, heads) : ['other'];
  }

  private async deskName(): Promise<string> {
    this.named ??= (await homeNetworkSetting(this.database)).deskName;
    return this.named;
  }

  private tell(channel: Channel, event: string, data: object, stamp: string | null): void {
    for (const reader of [...channel.readers]) reader.send(event, data, stamp);
  }

  private tellPresent(channel: Channel, after: number): void {
    if (channel.gone) return;
    clearTimeout(channel.telling.get(after));
    const timer = setTimeout(() => {
      channel.telling.delete(after);
      void this.deskName().then(
        (deskName) => {
          const names = new Map(
            [...channel.readers].map(({ device }) => [device?.id ?? '', device?.name ?? deskName]),
          );
          for (const reader of [...channel.readers]) {
            const others = [...names]
              .filter(([id]) => id !== (reader.device?.id ?? ''))
              .map(([, name]) => name);
            reader.send('present', { devices: others.sort() } satisfies PresentEvent, null);
          }
        },
        () => {},
      );
    }, after);
    timer.unref();
    channel.telling.set(after, timer);
  }

  private hasRoom(readers: Set<Reader>, reader: Reader): boolean {
    const own = [...readers].filter(({ device }) => device?.id === reader.device?.id);
    // A browser that opens stream after stream keeps the newest.
    if (own.length >= MOST_OF_DEVICE) own[0]!.close();
    return readers.size < MOST_STREAMS;
  }
}

function told(marks: readonly ToldMark[], before: number, deskName: string): MarkEvent[] {
  return marks.map(({ screenId, device, runs, ...mark }, i) => ({
    ...mark,
    runs: [...runs],
    after: marks[i - 1]?.position ?? before,
    by: { screen: screenId, device: device ?? deskName },
  }));
}

const PARTS = ['bags', 'pots', 'trash', 'sittings', 'sections', 'repairs', 'sheet'] as const;

function changedParts(before: LedgerHeads, now: LedgerHeads): ChangedPart[] {
  if (before.revision === now.revision) return [];
  const parts = PARTS.filter((part) => before[part] !== now[part]);
  return parts.length > 0 ? parts : ['other'];
}

// The start script has a copy of this module of its own: the one hub of the process lives on the global object.
const holder = globalThis as typeof globalThis & {
  oculentLive?: { database: Database; hub: Promise<LiveHub> };
};

/** The hub of a database, opened at the first call. */
export function liveHub(database: Database): Promise<LiveHub> {
  if (holder.oculentLive?.database !== database) {
    holder.oculentLive = { database, hub: LiveHub.open(database) };
  }
  return holder.oculentLive.hub;
}

/** The hub where one is open, for those who only tell it something. */
export function openHub(): Promise<LiveHub> | null {
  return holder.oculentLive?.hub ?? null;
}
