import { stat } from 'node:fs/promises';

const LOOK_MS = 1000;

/**
 * Watches a file of the running program. Where it was built anew, what is read later would come from another program
 * than what was read before.
 * @param told once, when the file is another one or gone
 * @returns stops watching
 */
export function whenReplaced(path: string, told: () => void, every = LOOK_MS): () => void {
  const before = markOf(path);
  let over = false;
  const timer = setInterval(async () => {
    const [was, is] = [await before, await markOf(path)];
    // On a slow disk several looks are under way at once.
    if (over || was === null || is === null || was === is) return;
    over = true;
    clearInterval(timer);
    told();
  }, every);
  timer.unref();
  return () => {
    over = true;
    clearInterval(timer);
  };
}

/** What tells a file from another one at its place; null where nobody knows. */
async function markOf(path: string): Promise<string | null> {
  try {
    const { ino, mtimeMs, size } = await stat(path);
    return `${ino} ${mtimeMs} ${size}`;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'gone' : null;
  }
}
