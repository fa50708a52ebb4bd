import { type Kept, keptInTab } from '../../ui/kept';
import { takeTurn } from './turn';

const KEY = 'oculent-screen';
/** A page that is loaded again may ask before the one of before has let go. */
const PATIENCE_MS = 400;

type Locks = Pick<LockManager, 'request'>;

/**
 * The name of this screen, one a tab, kept over reloads: undo takes back what was done here, and what was done here is no
 * news. A tab that was duplicated begins with the name of the other one, and takes a name of its own.
 */
export class Screen {
  private name: string;
  private isOwn: boolean;
  private readonly sure: Promise<string>;

  /** @param locks null where the browser has none (an insecure address): there a duplicate is not noticed */
  constructor(
    private readonly kept: Kept,
    private readonly locks: Locks | null,
    private readonly patienceMs = PATIENCE_MS,
  ) {
    this.name = kept.get(KEY) ?? this.fresh();
    this.isOwn = locks === null;
    this.sure = this.claim();
  }

  /** As far as it is known now. */
  current(): string {
    return this.name;
  }

  /** The name that no other tab has; at once where that is known, for what is sent while a page is left. */
  own(): string | Promise<string> {
    return this.isOwn ? this.name : this.sure;
  }

  private fresh(): string {
    const name = crypto.randomUUID();
    this.kept.set(KEY, name);
    return name;
  }

  private async claim(): Promise<string> {
    if (!(await this.hold())) {
      this.name = this.fresh();
      await this.hold();
    }
    this.isOwn = true;
    return this.name;
  }

  /** Holds the name as long as this page lives. @returns whether no other page does */
  private hold(): Promise<boolean> {
    const { locks } = this;
    if (!locks) return Promise.resolve(true);
    const signal = AbortSignal.timeout(this.patienceMs);
    const lock = `${KEY}-${this.name}`;
    return new Promise((resolve) => {
      const asLongAsItLives = () => {
        resolve(true);
        return new Promise<never>(() => {});
      };
      const lost = () => void takeTurn(locks, lock, asLongAsItLives);
      void takeTurn(locks, lock, asLongAsItLives, { signal, lost }).then(() => resolve(false));
    });
  }
}

let only: Screen | null = null;

/** The screen of this page. */
export function theScreen(): Screen {
  only ??= new Screen(keptInTab, globalThis.navigator?.locks ?? null);
  return only;
}
