/**
 * Wishes and drafts that a browser keeps for a page. One that keeps nothing, because it is told not to or has no room,
 * must not stop the page: there they live as long as it does.
 */
export class Kept {
  private readonly unstored = new Map<string, string>();

  /** @param store asked each time: where nothing may be kept even naming the store throws */
  constructor(private readonly store: () => Storage) {}

  get(key: string): string | null {
    const here = this.unstored.get(key);
    if (here !== undefined) return here;
    try {
      return this.store().getItem(key);
    } catch {
      return null;
    }
  }

  /** What was kept as JSON; null where nothing was, or nothing that can be read. */
  json(key: string): unknown {
    try {
      return JSON.parse(this.get(key) ?? 'null');
    } catch {
      return null;
    }
  }

  set(key: string, value: string): void {
    try {
      this.store().setItem(key, value);
      this.unstored.delete(key);
    } catch {
      this.unstored.set(key, value);
    }
  }

  remove(key: string): void {
    this.unstored.delete(key);
    try {
      this.store().removeItem(key);
    } catch {
      // Nothing was kept.
    }
  }
}

/** Kept for all pages of this browser. */
export const keptHere = new Kept(() => localStorage);
/** Kept for this tab, over reloads. */
export const keptInTab = new Kept(() => sessionStorage);
