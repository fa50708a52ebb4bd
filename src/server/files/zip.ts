import { buffer } from 'node:stream/consumers';
import { zipSync } from 'fflate';
import { fromBufferPromise } from 'yauzl';
import { Problem, unreadable } from '../http/problem';

/** More than any canvas with its photos has. */
const MAX_ENTRIES = 5000;
const MAX_UNPACKED_BYTES = 300_000_000;

/** Packs files by their names. @param moment when they were last changed */
export function zipped(files: ReadonlyMap<string, Uint8Array>, moment: Date): Uint8Array {
  return zipSync(Object.fromEntries(files), { mtime: moment });
}

/**
 * Unpacks a ZIP in memory; nothing is written anywhere. Sizes are checked before anything is unpacked, and while it is:
 * a file that turns out larger than it says is refused.
 * @param wanted names of the files to unpack
 * @throws Problem when it is no ZIP, is damaged, would unpack to too much, or holds a name that leads outside
 */
export async function unzipped(
  bytes: Uint8Array,
  wanted: (name: string) => boolean,
): Promise<Map<string, Uint8Array>> {
  const files = new Map<string, Uint8Array>();
  try {
    const zip = await fromBufferPromise(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), {
      lazyEntries: true,
      validateEntrySizes: true,
    });
    if (zip.entryCount > MAX_ENTRIES) throw unreadable(`This ZIP holds ${zip.entryCount} files, too many.`);
    let unpacked = 0;
    for await (const entry of zip.eachEntry()) {
      const name = entry.fileName;
      unpacked += entry.uncompressedSize;
      if (unpacked > MAX_UNPACKED_BYTES) {
        throw unreadable(
          'This ZIP would unpack to more than 300 MB, which no canvas is. Nothing was unpacked.',
        );
      }
      if (!wanted(name)) continue;
      if (files.has(name)) throw unreadable(`This ZIP holds ${name} twice.`);
      files.set(name, new Uint8Array(await buffer(await zip.openReadStreamPromise(entry))));
    }
    return files;
  } catch (error) {
    throw error instanceof Problem ? error : unreadable(inWords(error));
  }
}

function inWords(error: unknown): string {
  const said = error instanceof Error ? error.message : '';
  if (/relative path|absolute path|invalid characters/.test(said)) {
    return 'This ZIP holds a file whose name leads outside of it. It is refused whole; nothing was unpacked.';
  }
  if (/too many bytes|not enough bytes/.test(said)) {
    return 'A file in this ZIP is larger or smaller than the ZIP says. It is refused whole.';
  }
  return 'This is no ZIP file, or it is damaged or cut short.';
}
