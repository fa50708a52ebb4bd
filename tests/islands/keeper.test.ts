import { describe, expect, it } from 'vitest';
import { Keeper, type KeptStore } from '../../src/service/keeper';
import { KEPT_ANSWERS, keptFor } from '../../src/service/kept';

const FIRST = '11111111-1111-4111-8111-111111111111';
const SECOND = '22222222-2222-4222-8222-222222222222';

/** A browser's store in memory. */
function memoryStore() {
  const caches = new Map<string, Map<string, string>>();
  const store = {
    open: async (name: string) => {
      const cache = caches.get(name) ?? new Map<string, string>();
      caches.set(name, cache);
      return { put: async (url: string, answer: Response) => void cache.set(url, await answer.text()) };
    },
    delete: async (name: string) => caches.delete(name),
  } as unknown as KeptStore;
  return { store, kept: () => [...caches.values()].flatMap((cache) => [...cache.keys()]) };
}

describe('what a device keeps', () => {
  it('is all of each canvas that was opened, but for what there is no answer to', async () => {
    const { store, kept } = memoryStore();
    const keeper = new Keeper(store, async (url) => (url.endsWith('/marks') ? null : new Response(url)));
    await keeper.keep(FIRST);
    await keeper.keep(SECOND);
    const wanted = [FIRST, SECOND].flatMap((id) => keptFor(id).map(({ url }) => url));
    expect(new Set(kept())).toEqual(new Set(wanted.filter((url) => !url.endsWith('/marks'))));
  });

  it('is nothing once all is forgotten, whatever was on its way', async () => {
    for (const held of keptFor(FIRST)) {
      const { store, kept } = memoryStore();
      let answer: (response: Response) => void = () => {};
      const keeper = new Keeper(store, (url) =>
        url === held.url
          ? new Promise((resolve) => {
              answer = resolve;
            })
          : Promise.resolve(new Response(url)),
      );
      const keeping = keeper.keep(FIRST);
      await new Promise((resolve) => setTimeout(resolve, 5));
      await keeper.forget();
      answer(new Response('late'));
      await keeping;
      expect(kept(), held.url).toEqual([]);
      // A device that is let in again keeps again.
      await new Keeper(store, async (url) => new Response(url)).keep(SECOND);
      expect(kept()).toHaveLength(keptFor(SECOND).length);
    }
  });

  it('is nothing where it was put into the store while all was forgotten', async () => {
    const { store, kept } = memoryStore();
    // Forgotten between the opening of the store and the putting, which brings it back.
    const forgetful = {
      ...store,
      open: async (name: string) => {
        if (name === KEPT_ANSWERS) await keeper.forget();
        return store.open(name);
      },
    };
    const keeper = new Keeper(forgetful, async (url) => new Response(url));
    await keeper.keep(FIRST);
    expect(kept()).toEqual([]);
  });
});
