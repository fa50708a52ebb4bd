import { type IDBPDatabase, openDB } from 'idb';
import type { WriteMethod } from './api';

/** A write on its way. Its body carries an id, so sending it twice does no harm. */
export interface WaitingWrite {
  /** Sorts in the order in which writes were made, over all tabs. */
  key: string;
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

/** Where waiting writes are kept until the server has acknowledged them. */
export interface WaitingStore {
  /** In the order in which they were made. */
  all(): Promise<WaitingWrite[]>;
  put(write: WaitingWrite): Promise<void>;
  remove(key: string): Promise<void>;
}

const STORE = 'waiting';

/** In the browser's own database, shared by all tabs and kept over reloads. */
export function browserStore(name = 'oculent-outbox'): WaitingStore {
  let opening: Promise<IDBPDatabase> | null = null;
  const open = () => {
    opening ??= openDB(name, 1, {
      upgrade: (database) => void database.createObjectStore(STORE, { keyPath: 'key' }),
    });
    return opening;
  };
  return {
    all: async () => ((await (await open()).getAll(STORE)) as unknown[]).filter(isWrite),
    put: async (write) => void (await (await open()).put(STORE, write)),
    remove: async (key) => (await open()).delete(STORE, key),
  };
}

/** What an older version or a broken disk left behind must not stop the others. */
function isWrite(entry: unknown): entry is WaitingWrite {
  const { key, url, method } = (entry ?? {}) as Partial<WaitingWrite>;
  return typeof key === 'string' && typeof url === 'string' && typeof method === 'string';
}

/** For this page alone. */
export function memoryStore(): WaitingStore {
  const writes = new Map<string, WaitingWrite>();
  return {
    all: async () => [...writes.values()].sort((a, b) => (a.key < b.key ? -1 : 1)),
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
  return {
    all: async () => {
      const kept = await first.all().catch(() => []);
      return [...kept, ...(await second.all())].sort((a, b) => (a.key < b.key ? -1 : 1));
    },
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
