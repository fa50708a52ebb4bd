import fc from 'fast-check';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { decodePicture, encodePng } from '../../src/server/files/pixels';

/** Encodes with the second library, in the colour type wanted (PNG specification, third edition, table 8). */
function png(width: number, height: number, rgba: Uint8Array, colorType: 2 | 6 = 6): Uint8Array {
  const image = new PNG({ width, height });
  image.data = Buffer.from(rgba);
  return new Uint8Array(PNG.sync.write(image, { colorType }));
}

describe('reading PNG', () => {
  it('agrees with a second library, pixel by pixel', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 9 }),
        fc.infiniteStream(fc.integer({ min: 0, max: 255 })),
        async (width, height, bytes) => {
          const rgba = Uint8Array.from({ length: width * height * 4 }, (_, i) =>
            i % 4 === 3 ? 255 : (bytes.next().value as number),
          );
          const read = await decodePicture(png(width, height, rgba));
          expect(read).toEqual({ width, height, rgba, exact: true });
        },
      ),
      { numRuns: 40 },
    );
  });

  it('keeps transparent pixels transparent', async () => {
    const { rgba } = await decodePicture(png(1, 1, Uint8Array.of(10, 20, 30, 0)));
    expect(rgba[3]).toBe(0);
  });

  it('reads pictures without transparency', async () => {
    const { rgba } = await decodePicture(png(1, 1, Uint8Array.of(10, 20, 30, 255), 2));
    expect([...rgba]).toEqual([10, 20, 30, 255]);
  });

  it('refuses what is no PNG, in words', async () => {
    await expect(decodePicture(new TextEncoder().encode('BM6…'))).rejects.toThrow(
      'This is a BMP picture; open it in any picture program and save it as PNG.',
    );
    await expect(decodePicture(new Uint8Array())).rejects.toThrow('no picture that we know');
  });

  it('refuses a PNG that is cut short or spoilt', async () => {
    const whole = png(
      40,
      40,
      new Uint8Array(6400).map((_, i) => (i * 7919) % 256),
    );
    await expect(decodePicture(whole.slice(0, whole.length / 2))).rejects.toThrow('damaged');
    const spoilt = whole.slice();
    spoilt.fill(0, 60, 120);
    await expect(decodePicture(spoilt)).rejects.toThrow('damaged');
  });

  it('refuses a picture that unpacks to more than a canvas can hold, by its header alone', async () => {
    const create = { width: 6000, height: 5000, channels: 4 as const, background: '#00000000' };
    const bomb = new Uint8Array(await sharp({ create }).png().toBuffer());
    expect(bomb.length).toBeLessThan(300_000);
    await expect(decodePicture(bomb)).rejects.toThrow('6,000 × 5,000 pixels; we unpack at most 25,000,000.');
  });
});

describe('writing PNG', () => {
  it('is read the same by the second library', async () => {
    const rgba = Uint8ClampedArray.from({ length: 5 * 4 * 4 }, (_, i) =>
      i % 4 === 3 ? 255 : (i * 37) % 256,
    );
    const read = PNG.sync.read(Buffer.from(await encodePng(5, 4, rgba, 100)));
    expect([read.width, read.height]).toEqual([5, 4]);
    expect([...read.data]).toEqual([...rgba]);
  });

  it('never enlarges, and shrinks to the width wanted', async () => {
    const rgba = new Uint8ClampedArray(100 * 50 * 4).fill(200);
    const read = PNG.sync.read(Buffer.from(await encodePng(100, 50, rgba, 20)));
    expect([read.width, read.height]).toEqual([20, 10]);
  });
});
