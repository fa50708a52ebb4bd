import type { Database } from './database';
import { dataDirectory, openDataDirectory } from './dataDirectory';

// The development server loads this module anew after each edit, and the start script has a copy of its own:
// the one connection of the process therefore lives on the global object.
const holder = globalThis as typeof globalThis & { oculentDatabase?: Promise<Database> };

/** The process's database, opened at the first call. */
export function connection(): Promise<Database> {
  holder.oculentDatabase ??= openDataDirectory(dataDirectory());
  return holder.oculentDatabase;
}
