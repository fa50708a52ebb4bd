/** Largest photo that is taken. */
export const MAX_PHOTO_BYTES = 15_000_000;

/**
 * Why a photo cannot be taken, before it is sent; null where it may be.
 * @param most bytes that it may have
 * @example faultInPhoto({ name: 'IMG_1.HEIC', type: '', size: 1 }) // 'IMG_1.HEIC is a HEIC photo, …'
 */
export function faultInPhoto(
  { name, type, size }: { name: string; type: string; size: number },
  most = MAX_PHOTO_BYTES,
): string | null {
  if (/\.(heic|heif)$/i.test(name) || /hei[cf]/i.test(type)) {
    return `${name} is a HEIC photo, which browsers cannot show. Set the phone to “most compatible”, or send it as JPEG.`;
  }
  if (!/^image\/(jpeg|png|webp)$/.test(type)) return `${name} is no JPEG, PNG or WebP photo.`;
  if (size > most)
    return `${name} has ${(size / 1e6).toFixed(1)} MB; a photo may have at most ${most / 1e6} MB.`;
  return null;
}
