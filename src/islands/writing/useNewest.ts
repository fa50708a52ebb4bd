import { useCallback, useRef } from 'react';

/**
 * For what is changed again before the answer to the change before it has come: that one knows nothing of the newer.
 * @returns wraps what is done with an answer; it is done for the change that was made last alone
 */
export function useNewest(): <Answer>(then: (answer: Answer) => void) => (answer: Answer) => void {
  const last = useRef(0);
  return useCallback((then) => {
    const mine = ++last.current;
    return (answer) => {
      if (mine === last.current) then(answer);
    };
  }, []);
}
