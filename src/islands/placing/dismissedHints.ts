import { keptHere } from '../../ui/kept';

const KEY = 'oculent-hidden-hints';

/** Hints that are hidden on this device. */
export function dismissedHints(): string[] {
  const stored = keptHere.json(KEY);
  return Array.isArray(stored) ? stored.filter((each) => typeof each === 'string') : [];
}

export function keepDismissed(keys: readonly string[]): void {
  keptHere.set(KEY, JSON.stringify(keys));
}
