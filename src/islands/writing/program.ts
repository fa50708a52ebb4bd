/** Notices that the server was brought up to date since this page came from it. */
export class ProgramWatch {
  private other = false;
  private readonly listeners = new Set<() => void>();

  /** @param own the build that the page came from; null where it does not say */
  constructor(private readonly own: string | null) {}

  /** @param build that an answer came from; null where it does not say */
  heard(build: string | null): void {
    if (this.other || this.own === null || build === null || build === this.own) return;
    this.other = true;
    for (const listener of this.listeners) listener();
  }

  /** Whether the page is of another program than the server. */
  current = (): boolean => this.other;

  /** @returns stops listening */
  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
}

let only: ProgramWatch | null = null;

/** The page's; there may be no page, as in a thread. */
export function theProgram(): ProgramWatch {
  const page = typeof document === 'undefined' ? null : document.documentElement;
  only ??= new ProgramWatch(page?.dataset.build ?? null);
  return only;
}
