import { useRef } from 'react';

/** The space bar that is held so long (ms) changes the speed of the voice. */
const HELD_MS = 600;

/** What the keys of the bench do. */
export interface BenchActs {
  hasChart: boolean;
  /** Whether the voice speaks, so that the space bar is its key. */
  speaks: boolean;
  /** Marks the square in hand. */
  touch: () => void;
  layNext: () => void;
  stepBack: () => void;
  finish: () => void;
  lift: () => void;
  popped: () => void;
  reach: () => void;
  colour: (step: 1 | -1) => void;
  timer: () => void;
  badDrill: () => void;
  speak: () => void;
  again: () => void;
  pause: () => void;
  pace: () => void;
  crossHair: () => void;
  count: () => void;
}

/** @returns takes a key; whether it was one of the bench. A key that is held down acts once, but for those of the colours */
export function useBenchKeys(acts: BenchActs): (event: Pick<KeyboardEvent, 'key' | 'repeat'>) => boolean {
  const newest = useRef(acts);
  newest.current = acts;
  const held = useRef<ReturnType<typeof setTimeout> | null>(null);
  const spaceDown = () => {
    held.current ??= setTimeout(() => newest.current.pace(), HELD_MS);
    const up = ({ key }: KeyboardEvent) => {
      if (key !== ' ') return;
      window.removeEventListener('keyup', up);
      if (held.current) clearTimeout(held.current);
      held.current = null;
    };
    window.addEventListener('keyup', up);
    acts.pause();
  };
  return ({ key, repeat }) => {
    const once = (act: () => void) => {
      if (!repeat) act();
      return true;
    };
    switch (key) {
      case ' ':
        return once(acts.speaks ? spaceDown : acts.touch);
      case 'Enter':
      case 'PageDown':
        return acts.hasChart && once(acts.layNext);
      case 'PageUp':
      case 'Backspace':
        return acts.hasChart && once(acts.stepBack);
    }
    switch (key.toLowerCase()) {
      case 'a':
        return once(acts.finish);
      case 'l':
        return once(acts.lift);
      case 'o':
        return once(acts.popped);
      case 'r':
        return once(acts.reach);
      case 'n':
        acts.colour(1);
        return true;
      case 'p':
        acts.colour(-1);
        return true;
      case 't':
        return once(acts.timer);
      case 'x':
        return once(acts.badDrill);
      case 'v':
        return once(acts.speak);
      case 's':
        return once(acts.again);
      case 'h':
        return once(acts.crossHair);
      case 'k':
        return once(acts.count);
      default:
        return false;
    }
  };
}
