import { describe, expect, it } from 'vitest';
import { faultInPhoto } from '../../../src/core/inspection/photo';

describe('a photo before it is sent', () => {
  it.each([
    [{ name: 'IMG_1.HEIC', type: '', size: 1 }, 'HEIC photo'],
    [{ name: 'a.jpg', type: 'image/heic', size: 1 }, 'HEIC photo'],
    [{ name: 'a.jpg', type: 'not image/jpeg', size: 1 }, 'no JPEG, PNG or WebP'],
    [{ name: 'a.jpg', type: 'image/jpeg-2000', size: 1 }, 'no JPEG, PNG or WebP'],
    [{ name: 'a.gif', type: 'image/gif', size: 1 }, 'no JPEG, PNG or WebP'],
    [{ name: 'a.svg', type: 'image/svg+xml', size: 1 }, 'no JPEG, PNG or WebP'],
    [{ name: 'a.jpg', type: 'image/jpeg', size: 15_100_000 }, '15.1 MB; a photo may have at most 15 MB'],
  ])('%j is refused in words', (file, words) => expect(faultInPhoto(file)).toContain(words));

  it('is no HEIC photo for having that in the midst of its name', () =>
    expect(faultInPhoto({ name: 'a.heic.jpg', type: 'image/jpeg', size: 1 })).toBeNull());

  it('may be as large as is taken', () =>
    expect(faultInPhoto({ name: 'a.jpg', type: 'image/jpeg', size: 15_000_000 })).toBeNull());
});
