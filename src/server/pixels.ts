import sharp from 'sharp';
import { MAX_CELLS } from '../core/canvas/canvas';
import type { Rgb } from '../core/colour/rgb';
import { unreadable } from './problem';

const PNG_SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

/**
 * Decodes a PNG to sRGB pixels. The size in its header is checked before any pixel is decoded,
 * so that a small file cannot unpack into a huge picture.
 * @returns `rgba` with 4 × width × height bytes
 */
export async function decodePng(
  bytes: Uint8Array,
): Promise<{ width: number; height: number; rgba: Uint8Array }> {
  if (!PNG_SIGNATURE.every((byte, i) => bytes[i] === byte)) {
    throw unreadable('This file is not a PNG picture, whatever its name says.');
  }
  const size = await sharp(bytes)
    .metadata()
    .catch(() => null);
  if (!size) throw unreadable('This PNG is damaged: its header cannot be read.');
  if (size.width * size.height > MAX_CELLS) {
    throw unreadable(
      `The picture is ${size.width} × ${size.height} pixels; a chart can have at most ${MAX_CELLS.toLocaleString('en')} cells.`,
    );
  }
  try {
    const { data, info } = await sharp(bytes, { limitInputPixels: MAX_CELLS, failOn: 'error' })
      .toColourspace('srgb')
      .ensureAlpha()
      .raw({ depth: 'uchar' })
      .toBuffer({ resolveWithObject: true });
    return { width: info.width, height: info.height, rgba: new Uint8Array(data) };
  } catch {
    throw unreadable('This PNG is damaged or cut short. Export it again and try once more.');
  }
}

/** Encodes painted pixels as PNG, no wider than `maxWidth`. @param rgba 4 × width × height bytes */
export async function encodePng(
  width: number,
  height: number,
  rgba: Uint8ClampedArray,
  maxWidth: number,
): Promise<Uint8Array> {
  const png = await sharp(rgba, { raw: { width, height, channels: 4 } })
    .resize({ width: maxWidth, withoutEnlargement: true })
    .png({ compressionLevel: 9 })
    .toBuffer();
  return new Uint8Array(png);
}

/** Cloth between the drills in pictures that leave the app. */
export const CLOTH: Rgb = [243, 238, 229];

const MAX_PHOTO_PIXELS = 60_000_000;
const PHOTO_SIDE = 1600;

/**
 * A photo (JPEG, PNG or WebP) as a JPEG of moderate size, upright and without the place and time a camera writes in.
 * @throws Problem when it is no picture, or too large to unpack
 */
export async function photoToJpeg(bytes: Uint8Array): Promise<Uint8Array> {
  try {
    const jpeg = await sharp(bytes, { limitInputPixels: MAX_PHOTO_PIXELS })
      .rotate()
      .resize({ width: PHOTO_SIDE, height: PHOTO_SIDE, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82 })
      .toBuffer();
    return new Uint8Array(jpeg);
  } catch {
    throw unreadable('This is no photo that we can read. Use a JPEG, PNG or WebP of at most 60 megapixels.');
  }
}
