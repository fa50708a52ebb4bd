import { Guesses } from '../../src/core/devices/guesses';

/** Forgets wrong tries: all copies of the module that counts them share them, and so do test files in one process. */
export function noGuesses(): void {
  const holder = globalThis as typeof globalThis & { oculentJoining?: { guesses: Guesses } };
  if (holder.oculentJoining) holder.oculentJoining.guesses = new Guesses();
}
