import { useRef } from 'react';

/** The object of a render before, as long as it says the same: what depends on it is not done again. @param value as JSON has it */
export function useSame<Value extends object>(value: Value): Value {
  const kept = useRef(value);
  if (kept.current !== value && JSON.stringify(kept.current) !== JSON.stringify(value)) kept.current = value;
  return kept.current;
}
