const KEY = 'oculent-hidden-hints';

/** Hints that are hidden on this device. */
export function dismissedHints(): string[] {
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    return Array.isArray(stored) ? stored.filter((each) => typeof each === 'string') : [];
  } catch {
    return [];
  }
}

export function keepDismissed(keys: readonly string[]): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(keys));
  } catch {
    // A full store shows a hint once more; nothing is lost.
  }
}
