import { setImmediate } from 'node:timers/promises';

/** After so long (ms) others have the thread. */
const TURN_MS = 12;

/** What `make` makes of each item, in their order; what else waits for the thread has its turns in between. */
export async function inTurns<Item, Made>(
  items: readonly Item[],
  make: (item: Item) => Made,
): Promise<Made[]> {
  const made: Made[] = [];
  let since = performance.now();
  for (const item of items) {
    made.push(make(item));
    if (performance.now() - since < TURN_MS) continue;
    await setImmediate();
    since = performance.now();
  }
  return made;
}
