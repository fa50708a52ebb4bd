import sharp from 'sharp';
import { whatItIs } from '../files/pixels';
import { unreadable } from '../http/problem';

/** Larger photos say no more: squares of 45 pixels read well. */
const KEPT_PIXELS = 16e6;
const MOST_PIXELS = 120e6;
const LEAST_SIDE = 200;

/** A photo to read from: upright, of 16 megapixels at most, without the place and time that a camera writes in. */
export interface ReadyPhoto {
  width: number;
  height: number;
  jpeg: Uint8Array;
}

/** @throws Problem where it is no photo, or none of a canvas can be so small */
export async function readingPhoto({ bytes }: { bytes: Uint8Array }): Promise<ReadyPhoto> {
  try {
    const upright = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' }).rotate();
    const { width, height } = await sharp(bytes, { limitInputPixels: MOST_PIXELS }).metadata();
    if (Math.min(width, height) < LEAST_SIDE)
      throw unreadable(
        `This picture is ${width} × ${height} pixels; a photo from which squares are read has far more. Send the original from the camera.`,
      );
    const side = Math.sqrt(Math.min(1, KEPT_PIXELS / (width * height)));
    const { data, info } = await upright
      .resize({
        width: Math.floor(Math.max(width, height) * side),
        height: Math.floor(Math.max(width, height) * side),
        fit: 'inside',
        withoutEnlargement: true,
      })
      .toColourspace('srgb')
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 92 })
      .toBuffer({ resolveWithObject: true });
    return { width: info.width, height: info.height, jpeg: new Uint8Array(data) };
  } catch (error) {
    if (error instanceof Error && 'status' in error) throw error;
    const isJpeg = bytes[0] === 0xff && bytes[1] === 0xd8;
    throw unreadable(
      isJpeg
        ? 'This photo is damaged, cut short, or larger than 120 megapixels. Send it again.'
        : `${whatItIs(bytes)} Use a JPEG, PNG or WebP.`,
    );
  }
}
