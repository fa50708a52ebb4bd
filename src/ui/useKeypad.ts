import { useState } from 'react';
import { keptHere } from './kept';

const KEY = 'oculent-keypad';

/** Whether codes are typed on the page's own keys: at first where fingers point, then as it was left. */
export function useKeypad(): [boolean, (on: boolean) => void] {
  const [on, setOn] = useState(() => {
    const kept = keptHere.get(KEY);
    return kept === null
      ? window.matchMedia?.('(pointer: coarse) and (max-width: 640px)').matches
      : kept === 'on';
  });
  const change = (next: boolean) => {
    keptHere.set(KEY, next ? 'on' : 'off');
    setOn(next);
  };
  return [Boolean(on), change];
}
