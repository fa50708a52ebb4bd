import { zipSync } from 'fflate';
import { type Entry, fromBufferPromise } from 'yauzl';
import { Problem, unreadable } from '../http/problem';

/** Packs files by their names. @param moment when they were last changed */
export function zipped(files: ReadonlyMap<string, Uint8Array>, moment: Date): Uint8Array {
  return zipSync(Object.fromEntries(files), { mtime: moment });
}

/** Where unpacking stops. */
export interface UnzipLimits {
  /** Of all files together, unpacked. */
  bytes: number;
  files: number;
  /** What is said where it unpacks to more. */
  flood: string;
}

/**
 * Unpacks a ZIP in memory; nothing is written anywhere. What it says of its sizes is checked before anything is
 * unpacked, and again piece by piece: a file that turns out larger than it says is refused.
 * @param wanted names of the files to keep
 * @throws Problem when it is no ZIP, is damaged, would unpack to too much, or holds a name that leads outside
 */
export async function unzipped(
  bytes: Uint8Array,
  wanted: (name: string) => boolean,
  { bytes: most, files: mostFiles, flood }: UnzipLimits,
): Promise<Map<string, Uint8Array>> {
  const files = new Map<string, Uint8Array>();
  try {
    const zip = await fromBufferPromise(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), {
      lazyEntries: true,
      validateEntrySizes: true,
    });
    if (zip.entryCount > mostFiles) throw unreadable(`This ZIP holds ${zip.entryCount} files, too many.`);
    let said = 0;
    const entries: Entry[] = [];
    for await (const entry of zip.eachEntry()) {
      said += entry.uncompressedSize;
      if (said > most) throw unreadable(flood);
      entries.push(entry);
    }
    for (const entry of entries) {
      const name = entry.fileName;
      const keep = wanted(name);
      if (keep && files.has(name)) throw unreadable(`This ZIP holds ${name} twice.`);
      const parts: Buffer[] = [];
      for await (const part of await zip.openReadStreamPromise(entry)) if (keep) parts.push(part as Buffer);
      if (keep) files.set(name, new Uint8Array(Buffer.concat(parts)));
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
  return 'This is not a ZIP file, or it is damaged or cut short.';
}
