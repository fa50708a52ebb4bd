import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { WriteMethod } from './api';

/** A write on its way. Its body carries an id, so sending it twice does no harm. */
export interface WaitingWrite {
  /** Sorts in the order in which writes were made, over all tabs. */
  key: string;
  /** The screen where it was made, whichever tab sends it; an older version of the program did not say. */
  screen?: string;
  /** When it was made, by this device’s clock, in milliseconds; an older version of the program did not say. */
  madeAt?: number;
  /** The canvas that it belongs to; null for what belongs to none. */
  canvasId: string | null;
  method: WriteMethod;
  url: string;
  body: unknown;
  /** Times that the server answered with a fault of its own. */
  tries: number;
  /** Why it was set aside; null while it waits to be sent. */
  aside: string | null;
}

/** When a write was made, by this device’s clock, in milliseconds; the microseconds of its key tell it of an older one. */
export function whenMade({ madeAt, key }: Pick<WaitingWrite, 'madeAt' | 'key'>): number {
  return madeAt ?? Number(key.split('-', 1)[0]) / 1000;
}

/** Where waiting writes are kept until the server has acknowledged them. There may be ten thousand after a day away. */
export interface WaitingStore {
  /** The writes that were made first of those that wait. @param most so many at most */
  first(most: number): Promise<WaitingWrite[]>;
  /** The key of the write that was made last of those that wait; null where none does. */
  lastKey(): Promise<string | null>;
  /** How many wait. */
  count(): Promise<number>;
  /** Those of a canvas that wait, in the order in which they were made. */
  waitingFor(canvasId: string): Promise<WaitingWrite[]>;
  /** Those that were set aside, in their order. */
  aside(): Promise<WaitingWrite[]>;
  put(write: WaitingWrite): Promise<void>;
  remove(key: string): Promise<void>;
}

interface Schema extends DBSchema {
  waiting: { key: string; value: WaitingWrite; indexes: { canvas: string } };
  aside: { key: string; value: WaitingWrite };
}

/** In the browser's own database, shared by all tabs and kept over reloads. */
export function browserStore(name = 'oculent-outbox'): WaitingStore {
  let opening: Promise<IDBPDatabase<Schema>> | null = null;
  const letGo = () => {
    opening = null;
  };
  const open = () => {
    opening ??= openDB<Schema>(name, 2, {
      // What is set aside lay among what waits before.
      upgrade: async (database, before, _, transaction) => {
        const waiting =
          before < 1
            ? database.createObjectStore('waiting', { keyPath: 'key' })
            : transaction.objectStore('waiting');
        waiting.createIndex('canvas', 'canvasId');
        const aside = database.createObjectStore('aside', { keyPath: 'key' });
        for (const write of await waiting.getAll()) {
          if (isWrite(write) && write.aside === null) continue;
          await waiting.delete(write.key);
          if (isWrite(write)) await aside.put(write);
        }
      },
      // Another tab has a newer program and waits for this one to let go.
      blocking: (_current, _blocked, event) => {
        (event.target as IDBDatabase | null)?.close();
        letGo();
      },
      terminated: letGo,
    });
    return opening;
  };
  /** A tablet that slept may have lost its connection to the database; what is asked here may be asked twice. */
  const ask = async <T>(work: (database: IDBPDatabase<Schema>) => Promise<T>): Promise<T> => {
    try {
      return await work(await open());
    } catch {
      const lost = opening;
      letGo();
      void lost?.then((database) => database.close()).catch(() => {});
      return work(await open());
    }
  };
  return {
    first: (most) =>
      ask(async (database) => {
        for (;;) {
          const found: unknown[] = await database.getAll('waiting', null, most);
          const good = found.filter(isWrite);
          if (good.length > 0 || found.length === 0) return good;
          for (const key of await database.getAllKeys('waiting', null, most))
            await database.delete('waiting', key);
        }
      }),
    lastKey: () =>
      ask(async (database) => {
        const last = await database.transaction('waiting').store.openKeyCursor(null, 'prev');
        return typeof last?.key === 'string' ? last.key : null;
      }),
    count: () => ask((database) => database.count('waiting')),
    waitingFor: (canvasId) =>
      ask(async (database) =>
        (await database.getAllFromIndex('waiting', 'canvas', canvasId)).filter(isWrite),
      ),
    aside: () => ask(async (database) => (await database.getAll('aside')).filter(isWrite)),
    put: (write) =>
      ask(async (database) => {
        const transaction = database.transaction(['waiting', 'aside'], 'readwrite');
        const [to, from] =
          write.aside === null ? (['waiting', 'aside'] as const) : (['aside', 'waiting'] as const);
        await Promise.all([
          transaction.objectStore(to).put(write),
          transaction.objectStore(from).delete(write.key),
          transaction.done,
        ]);
      }),
    remove: (key) =>
      ask(async (database) => {
        const transaction = database.transaction(['waiting', 'aside'], 'readwrite');
        await Promise.all([
          transaction.objectStore('waiting').delete(key),
          transaction.objectStore('aside').delete(key),
          transaction.done,
        ]);
      }),
  };
}

/** What an older version or a broken disk left behind must not stop the others. */
function isWrite(entry: unknown): entry is WaitingWrite {
  const { key, url, method } = (entry ?? {}) as Partial<WaitingWrite>;
  return typeof key === 'string' && typeof url === 'string' && typeof method === 'string';
}

const inOrder = (a: WaitingWrite, b: WaitingWrite) => (a.key < b.key ? -1 : 1);

/** For this page alone. */
export function memoryStore(): WaitingStore {
  const writes = new Map<string, WaitingWrite>();
  const sorted = (wanted: (write: WaitingWrite) => boolean) =>
    [...writes.values()].filter(wanted).sort(inOrder);
  return {
    first: async (most) => sorted(({ aside }) => aside === null).slice(0, most),
    lastKey: async () => sorted(({ aside }) => aside === null).at(-1)?.key ?? null,
    count: async () => sorted(({ aside }) => aside === null).length,
    waitingFor: async (canvasId) => sorted((write) => write.aside === null && write.canvasId === canvasId),
    aside: async () => sorted(({ aside }) => aside !== null),
    put: async (write) => void writes.set(write.key, write),
    remove: async (key) => void writes.delete(key),
  };
}

/**
 * A store that goes on in memory where the first one fails: a full or broken disk must not stop the page.
 * @param onFailure told with each write that could not be kept
 */
export function safeStore(first: WaitingStore, onFailure: () => void): WaitingStore {
  const second = memoryStore();
  const both = async (ask: (store: WaitingStore) => Promise<WaitingWrite[]>) =>
    [...(await ask(first).catch(() => [])), ...(await ask(second))].sort(inOrder);
  return {
    first: async (most) => (await both((store) => store.first(most))).slice(0, most),
    lastKey: async () => {
      const keys = [await first.lastKey().catch(() => null), await second.lastKey()];
      return keys.reduce((last, key) => (last === null || (key !== null && key > last) ? key : last));
    },
    count: async () => (await first.count().catch(() => 0)) + (await second.count()),
    waitingFor: (canvasId) => both((store) => store.waitingFor(canvasId)),
    aside: () => both((store) => store.aside()),
    put: async (write) => {
      try {
        await first.put(write);
        await second.remove(write.key);
      } catch {
        onFailure();
        await second.put(write);
      }
    },
    remove: async (key) => {
      await second.remove(key);
      await first.remove(key).catch(onFailure);
    },
  };
}
