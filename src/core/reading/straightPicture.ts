import { type Mesh, placeInCell } from './mesh';
import { type Photo, toLinear, toSrgb } from './photo';

/** Pixels of a square in a straightened picture: enough to be looked at, and to be read again. */
export const STRAIGHT_PX = 24;

/** The squares of a photograph as a plain grid of {@link STRAIGHT_PX} pixels each, RGBA. */
export function straightPicture(photo: Photo, mesh: Mesh): Photo {
  const [width, height] = [mesh.columns * STRAIGHT_PX, mesh.rows * STRAIGHT_PX];
  const data = new Uint8ClampedArray(width * height * 4);
  const light = [0, 0, 0];
  for (let y = 0; y < height; y++) {
    const row = Math.floor(y / STRAIGHT_PX);
    for (let x = 0; x < width; x++) {
      const column = Math.floor(x / STRAIGHT_PX);
      light.fill(0);
      // Four places of each pixel: photos have more pixels than this picture.
      for (let k = 0; k < 4; k++) {
        const s = (x - column * STRAIGHT_PX + 0.25 + 0.5 * (k & 1)) / STRAIGHT_PX;
        const t = (y - row * STRAIGHT_PX + 0.25 + 0.5 * (k >> 1)) / STRAIGHT_PX;
        const [px, py] = placeInCell(mesh, column, row, s, t);
        const at =
          (Math.min(photo.height - 1, Math.max(0, py | 0)) * photo.width +
            Math.min(photo.width - 1, Math.max(0, px | 0))) *
          4;
        for (let channel = 0; channel < 3; channel++)
          light[channel]! += toLinear(photo.data[at + channel]!) / 4;
      }
      const to = (y * width + x) * 4;
      for (let channel = 0; channel < 3; channel++) data[to + channel] = toSrgb(light[channel]!);
      data[to + 3] = 255;
    }
  }
  return { width, height, data };
}
