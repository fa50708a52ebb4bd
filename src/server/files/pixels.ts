import sharp from 'sharp';
import type { Rgb } from '../../core/colour/rgb';
import { many } from '../../core/words/numbers';
import { unreadable } from '../http/problem';

/** Enough for a million cells of 5 × 5 pixels; unpacked, 100 MB. */
const MAX_PICTURE_PIXELS = 25_000_000;

type PictureKind = 'PNG' | 'JPEG' | 'WebP' | 'GIF' | 'TIFF';

/** What a picture file is by its first bytes, whatever its name says. */
function kindOfPicture(bytes: Uint8Array): PictureKind | null {
  const starts = (text: string, at = 0) => [...text].every((c, i) => bytes[at + i] === c.charCodeAt(0));
  if (starts('\x89PNG\r\n\x1a\n')) return 'PNG';
  if (starts('\xff\xd8\xff')) return 'JPEG';
  if (starts('GIF8')) return 'GIF';
  if (starts('II*\0') || starts('MM\0*')) return 'TIFF';
  return starts('RIFF') && starts('WEBP', 8) ? 'WebP' : null;
}

/** Files that are mistaken for a picture that can be read, by their first bytes. */
const OTHER_KINDS: readonly (readonly [start: string, at: number, words: string])[] = [
  ['BM', 0, 'This is a BMP picture; open it in any picture program and save it as PNG.'],
  ['ftypheic', 4, 'This is a HEIC photo; have it saved or sent as JPEG.'],
  ['ftypmif1', 4, 'This is a HEIC photo; have it saved or sent as JPEG.'],
  ['ftypavif', 4, 'This is an AVIF picture; save it as PNG.'],
  ['%PDF', 0, 'This is a PDF; save its page with the chart as a picture.'],
  ['PK\x03\x04', 0, 'This is a ZIP file, or a document that is one inside.'],
  ['\xd0\xcf\x11\xe0', 0, 'This is an old spreadsheet or document; save it as XLSX or CSV.'],
  ['<svg', 0, 'This is an SVG drawing; save it as PNG.'],
  ['<?xml', 0, 'This is an XML file, perhaps an SVG drawing; save it as PNG.'],
];

/** Names a file that cannot be read as a picture. */
export function whatItIs(bytes: Uint8Array): string {
  const start = String.fromCharCode(...bytes.subarray(0, 16));
  const known = OTHER_KINDS.find(([text, at]) => start.startsWith(text, at));
  return known?.[2] ?? 'This file is no picture that we know.';
}

/** Whether a WebP keeps every pixel: its image lies in a chunk VP8L (WebP container specification). */
function isLosslessWebp(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 12; at + 8 <= bytes.length; ) {
    const name = String.fromCharCode(...bytes.subarray(at, at + 4));
    if (name === 'VP8L' || name === 'VP8 ') return name === 'VP8L';
    const size = view.getUint32(at + 4, true);
    at += 8 + size + (size % 2);
  }
  return false;
}

/**
 * Decodes a PNG, JPEG, WebP, GIF (its first picture) or TIFF to sRGB pixels. The size in its header is checked before any pixel is decoded,
 * so that a small file cannot unpack into a huge picture.
 * @returns `rgba` with 4 × width × height bytes; `exact` where the file keeps every pixel as it was drawn
 */
export async function decodePicture(
  bytes: Uint8Array,
): Promise<{ width: number; height: number; rgba: Uint8Array; exact: boolean }> {
  const kind = kindOfPicture(bytes);
  if (!kind)
    throw unreadable(
      `${whatItIs(bytes)} Give the chart as PNG, JPEG, WebP, GIF or TIFF, whatever its name says.`,
    );
  const size = await sharp(bytes, { limitInputPixels: false })
    .metadata()
    .catch(() => null);
  if (!size) throw unreadable(`This ${kind} is damaged: its header cannot be read.`);
  if (size.width * size.height > MAX_PICTURE_PIXELS) {
    throw unreadable(
      `The picture is ${many(size.width)} × ${many(size.height)} pixels; we unpack at most ${many(MAX_PICTURE_PIXELS)}. ` +
        'Save it smaller: one pixel for each square is enough.',
    );
  }
  try {
    const { data, info } = await sharp(bytes, { limitInputPixels: MAX_PICTURE_PIXELS, failOn: 'error' })
      .rotate()
      .toColourspace('srgb')
      .ensureAlpha()
      .raw({ depth: 'uchar' })
      .toBuffer({ resolveWithObject: true });
    return {
      width: info.width,
      height: info.height,
      rgba: new Uint8Array(data.buffer, data.byteOffset, data.byteLength),
      exact: kind === 'PNG' || kind === 'GIF' || (kind === 'WebP' && isLosslessWebp(bytes)),
    };
  } catch {
    throw unreadable(`This ${kind} is damaged or cut short. Export it again and try once more.`);
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
export async function photoToJpeg({ bytes }: { bytes: Uint8Array }): Promise<Uint8Array> {
  const kind = kindOfPicture(bytes);
  if (kind !== 'JPEG' && kind !== 'PNG' && kind !== 'WebP') {
    throw unreadable(`${kind ? `A photo cannot be a ${kind}.` : whatItIs(bytes)} Use a JPEG, PNG or WebP.`);
  }
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
