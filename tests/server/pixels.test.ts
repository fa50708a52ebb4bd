import fc from 'fast-check';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { decodePicture, encodePng, photoToJpeg } from '../../src/server/files/pixels';

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

/** A picture of one colour by the reference library. */
const plain = (width: number, height: number, background = '#2f6f8f') =>
  sharp({ create: { width, height, channels: background.length > 7 ? 4 : 3, background } });
const bytesOf = async (picture: sharp.Sharp) => new Uint8Array(await picture.toBuffer());

describe('reading other pictures', () => {
  it('says which of them keep every pixel', async () => {
    const odd = plain(7, 5, '#2f6f8f80');
    const exact: boolean[] = [];
    for (const picture of [
      odd.clone().png(),
      odd.clone().gif(),
      odd.clone().tiff(),
      odd.clone().jpeg(),
      // With transparency, or with what a camera tells, other chunks come before the one that says it (WebP container).
      odd.clone().webp({ lossless: true }),
      plain(7, 5)
        .webp({ lossless: true })
        .withExif({ IFD0: { Artist: 'abc' } }),
      odd.clone().webp({ quality: 80 }),
      plain(7, 5).webp({ quality: 80 }),
      plain(7, 5).webp({ quality: 80 }).withIccProfile('p3'),
    ])
      exact.push((await decodePicture(await bytesOf(picture))).exact);
    expect(exact).toEqual([true, true, false, false, true, true, false, false, false]);
  });
});

describe('a photo', () => {
  const sizeOf = async (picture: sharp.Sharp) => {
    const { format, width, height, exif } = await sharp(
      await photoToJpeg({ bytes: await bytesOf(picture) }),
    ).metadata();
    return [format, width, height, exif];
  };

  it('is kept as a JPEG of at most 1,600 pixels a side, without what the camera wrote in', async () => {
    expect(await sizeOf(plain(3200, 800).png())).toEqual(['jpeg', 1600, 400, undefined]);
    expect(await sizeOf(plain(800, 3200).webp())).toEqual(['jpeg', 400, 1600, undefined]);
    expect(
      await sizeOf(
        plain(30, 20)
          .jpeg()
          .withExif({ IFD0: { Artist: 'abc' } }),
      ),
    ).toEqual(['jpeg', 30, 20, undefined]);
    // Orientation 6 of Exif: the camera was held upright.
    expect(await sizeOf(plain(30, 20).jpeg().withMetadata({ orientation: 6 }))).toEqual([
      'jpeg',
      20,
      30,
      undefined,
    ]);
  });

  it('lies on white where it is transparent', async () => {
    const clear = await photoToJpeg({ bytes: await bytesOf(plain(8, 8, '#00000000').png()) });
    expect([...(await sharp(clear).raw().toBuffer()).subarray(0, 3)]).toEqual([255, 255, 255]);
  });

  it('that is none is refused in words', async () => {
    const refused = (bytes: Uint8Array) => expect(photoToJpeg({ bytes })).rejects;
    await refused(await bytesOf(plain(4, 4).tiff())).toThrow(
      'A photo cannot be a TIFF. Use a JPEG, PNG or WebP.',
    );
    await refused(await bytesOf(plain(4, 4).gif())).toThrow('A photo cannot be a GIF.');
    await refused(new TextEncoder().encode('%PDF-1.7')).toThrow('This is a PDF');
    await refused(new TextEncoder().encode('no photo')).toThrow(
      'no picture that we know. Use a JPEG, PNG or',
    );
    await refused((await bytesOf(plain(400, 400).jpeg())).slice(0, 30)).toThrow('no photo that we can read');
    await refused(await bytesOf(plain(10_000, 6001).png({ compressionLevel: 9 }))).toThrow(
      'at most 60 megapixels',
    );
    // Each level draws the one below ten times; drawn, it would go on for hours.
    const levels = Array.from(
      { length: 12 },
      (_, i) => `<g id="g${i + 1}">${`<use href="#g${i}"/>`.repeat(10)}</g>`,
    );
    const bomb = `<svg xmlns="http://www.w3.org/2000/svg"><g id="g0"><path d="M0 0h1"/></g>${levels.join('')}<use href="#g12"/></svg>`;
    await refused(new TextEncoder().encode(bomb)).toThrow('This is an SVG drawing');
  });
});
