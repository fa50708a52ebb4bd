import { KEPT_ANSWERS, KEPT_PAGES, keptFor } from './kept';

/** The parts of a browser's store that are used here. */
export type KeptStore = Pick<CacheStorage, 'open' | 'delete'>;

/**
 * Keeps a canvas, and forgets all that was kept. What is still on its way when all is forgotten is not kept after it: a
 * device that was signed out would have it again.
 */
export class Keeper {
  /** How often all was forgotten since this program runs. */
  private forgotten = 0;

  /** @param get gives an answer that may be kept; null where there is none */
  constructor(
    private readonly store: KeptStore,
    private readonly get: (url: string) => Promise<Response | null>,
  ) {}

  /** Keeps all that is needed to go on laying a canvas. */
  async keep(canvasId: string): Promise<void> {
    const begun = this.begin();
    for (const { cache, url } of keptFor(canvasId)) {
      const answer = await this.get(url);
      if (!this.stands(begun)) return;
      if (answer === null) continue;
      await (await this.store.open(cache)).put(url, answer);
      await this.ended(begun, cache);
    }
  }

  /** @returns what {@link stands} and {@link ended} are asked with for what begins now */
  begin(): number {
    return this.forgotten;
  }

  /** Whether what began then may still be kept. */
  stands(begun: number): boolean {
    return begun === this.forgotten;
  }

  /** To be called when something was put into a store: it goes where all was forgotten meanwhile. */
  async ended(begun: number, cache: string): Promise<void> {
    if (!this.stands(begun)) await this.store.delete(cache);
  }

  async forget(): Promise<void> {
    this.forgotten++;
    for (const name of [KEPT_PAGES, KEPT_ANSWERS]) await this.store.delete(name);
  }
}
