import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import { inWorker } from '../jobs/pool';
import type { clothPng } from './chartFiles';

type Drawn = Parameters<typeof clothPng>[0];

/** Bytes of pictures that are kept; a large one has some hundreds of thousands. */
const KEPT_BYTES = 16_000_000;

/**
 * Browsers keep none of them, for others use the same browser: each visit of the shelf would draw them all again, though
 * little of them changes from one to the next.
 */
const kept = new LRUCache<string, Uint8Array>({
  maxSize: KEPT_BYTES,
  sizeCalculation: (png) => png.byteLength,
});

/** The picture of a canvas as a PNG. @returns the bytes as they are kept, not to be changed */
export async function clothPicture(drawn: Drawn): Promise<Uint8Array> {
  const name = nameOf(drawn);
  const known = kept.get(name);
  if (known) return known;
  const png = await inWorker('clothPng', drawn);
  kept.set(name, png);
  return png;
}

/** Names a picture by all that is seen on it, so that none has to be forgotten when something changes. */
function nameOf({ chart, legend, laid, width }: Drawn): string {
  const seen = [chart.width, chart.height, width, legend.map(({ line, hex }) => [line, hex])];
  const digest = createHash('sha256').update(JSON.stringify(seen)).update(chart.cells);
  // Nothing laid is another picture than no word of what is laid.
  digest.update(laid === null ? 'whole' : 'laid:');
  return digest.update(laid ?? '').digest('base64');
}
