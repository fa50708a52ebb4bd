import exifr from 'exifr';
import jpeg from 'jpeg-js';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { readingPhoto } from '../../src/server/reading/photo';

const [WIDTH, HEIGHT] = [320, 220];
const QUARTERS = [
  [220, 40, 40],
  [40, 180, 60],
  [50, 70, 210],
  [230, 210, 60],
] as const;

/** A picture with another colour in each quarter, stored as a camera does that was held in one of eight ways. */
async function stored(orientation: number): Promise<Buffer> {
  const data = Buffer.from(
    Array.from({ length: WIDTH * HEIGHT }, (_, i) => {
      const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
      return [...QUARTERS[(y < HEIGHT / 2 ? 0 : 2) + (x < WIDTH / 2 ? 0 : 1)]!];
    }).flat(),
  );
  return sharp(data, { raw: { width: WIDTH, height: HEIGHT, channels: 3 } })
    .withMetadata({ orientation })
    .jpeg({ quality: 95 })
    .toBuffer();
}

/** The middles of the four quarters of a picture, row by row. */
function quarters({ width, height, data }: { width: number; height: number; data: Uint8Array }): number[][] {
  return [0.25, 0.75].flatMap((y) =>
    [0.25, 0.75].map((x) => {
      const at = 4 * (Math.floor(y * height) * width + Math.floor(x * width));
      return [...data.subarray(at, at + 3)];
    }),
  );
}

/** As a third program sees it: pixels by jpeg-js, which knows nothing of EXIF, turned by what exifr reads. */
async function upright(bytes: Buffer) {
  const raw = jpeg.decode(bytes, { useTArray: true });
  const { deg, scaleX, scaleY } = (await exifr.rotation(bytes))!;
  let [a, b, c, d] = quarters(raw) as [number[], number[], number[], number[]];
  if (scaleX === -1) [a, b, c, d] = [b, a, d, c];
  if (scaleY === -1) [a, b, c, d] = [c, d, a, b];
  for (let turned = 0; turned < ((deg % 360) + 360) % 360; turned += 90) [a, b, c, d] = [c, a, d, b];
  const onItsSide = deg % 180 !== 0;
  return {
    width: onItsSide ? raw.height : raw.width,
    height: onItsSide ? raw.width : raw.height,
    quarters: [a, b, c, d],
  };
}

// EXIF 2.32, tag 0x0112.
describe.each([1, 2, 3, 4, 5, 6, 7, 8])('a photo whose camera was held in way %i', (orientation) => {
  it('is kept upright, as another decoder turns it', async () => {
    const bytes = await stored(orientation);
    const kept = await readingPhoto({ bytes: new Uint8Array(bytes) });
    const shown = jpeg.decode(kept.jpeg, { useTArray: true });
    const expected = await upright(bytes);
    expect([shown.width, shown.height]).toEqual([expected.width, expected.height]);
    expect([kept.width, kept.height]).toEqual([expected.width, expected.height]);
    for (const [i, colour] of quarters(shown).entries())
      for (const [c, value] of colour.entries())
        expect(Math.abs(value - expected.quarters[i]![c]!), `quarter ${i}`).toBeLessThan(12);
    // Kept without what a camera writes in: another program would turn it again.
    expect(await exifr.orientation(Buffer.from(kept.jpeg)).catch(() => undefined)).toBeUndefined();
  });
});
