import type { Shape } from '../canvas/canvas';
import { seededRandom } from '../chance/random';
import type { Rgb } from '../colour/rgb';
import type { Photo } from './photo';

/** A tray with loose drills before the simulated camera. */
export interface TrayShot {
  shape: Shape;
  drills: number;
  /** Share of the drills that lie against another one, 0…1. */
  touching: number;
  drill: Rgb;
  tray: Rgb;
  seed: number;
}

const [WIDTH, HEIGHT] = [1000, 750];
const NOISE = 2.5;

/** Photographs a tray on which so many drills lie; the same seed photographs the same tray. */
export function takeTrayPhoto({ shape, drills, touching, drill, tray, seed }: TrayShot): Photo {
  const random = seededRandom(seed);
  // As large as lets all lie in one layer with room between.
  const side = Math.min(26, Math.sqrt((WIDTH * HEIGHT * 0.22) / Math.max(1, drills)));
  const lying: { x: number; y: number; turn: number }[] = [];
  const least = shape === 'square' ? side * 0.98 : side * 0.99;
  // Two squares that are turned may touch at their corners: apart means apart.
  const apart = shape === 'square' ? side * Math.SQRT2 + 3 : side + 4;
  const free = (x: number, y: number, except: number) =>
    x > side &&
    y > side &&
    x < WIDTH - side &&
    y < HEIGHT - side &&
    lying.every((other, i) => i === except || Math.hypot(other.x - x, other.y - y) >= apart);
  for (let tries = 0; lying.length < drills && tries < drills * 400; tries++) {
    const beside =
      lying.length > 0 && random.uniform() < touching ? Math.floor(random.uniform() * lying.length) : -1;
    const other = lying[beside];
    if (!other) {
      const [x, y] = [random.uniform() * WIDTH, random.uniform() * HEIGHT];
      if (free(x, y, -1)) lying.push({ x, y, turn: random.uniform() * Math.PI });
      continue;
    }
    // Against a side of the other one; rounds anywhere.
    const way =
      shape === 'square'
        ? other.turn + (Math.floor(random.uniform() * 4) * Math.PI) / 2
        : random.uniform() * 2 * Math.PI;
    const [x, y] = [other.x + least * Math.cos(way), other.y + least * Math.sin(way)];
    if (free(x, y, beside)) lying.push({ x, y, turn: other.turn });
  }
  const photo: Photo = { width: WIDTH, height: HEIGHT, data: new Uint8ClampedArray(WIDTH * HEIGHT * 4) };
  const dark = random.uniform() * 2 * Math.PI;
  const paint = (x: number, y: number, rgb: Rgb, share: number) => {
    const at = (y * WIDTH + x) * 4;
    for (let channel = 0; channel < 3; channel++)
      photo.data[at + channel] = photo.data[at + channel]! * (1 - share) + rgb[channel]! * share;
  };
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const at = (y * WIDTH + x) * 4;
      for (let channel = 0; channel < 3; channel++) photo.data[at + channel] = tray[channel]!;
      photo.data[at + 3] = 255;
    }
  for (const { x: cx, y: cy, turn } of lying) {
    const reach = Math.ceil(side);
    for (let y = Math.floor(cy) - reach; y <= cy + reach; y++)
      for (let x = Math.floor(cx) - reach; x <= cx + reach; x++) {
        if (x < 0 || y < 0 || x >= WIDTH || y >= HEIGHT) continue;
        const [dx, dy] = [x + 0.5 - cx, y + 0.5 - cy];
        const [u, v] = [dx * Math.cos(turn) + dy * Math.sin(turn), dy * Math.cos(turn) - dx * Math.sin(turn)];
        const inside =
          side / 2 - (shape === 'square' ? Math.max(Math.abs(u), Math.abs(v)) : Math.hypot(u, v));
        const share = Math.min(1, Math.max(0, inside + 0.5));
        // The cut of a drill catches the light on one side.
        const facet = 1 + 0.12 * ((u + v) / side);
        if (share > 0) paint(x, y, drill.map((part) => Math.min(255, part * facet)) as unknown as Rgb, share);
      }
  }
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const light = 0.9 + 0.1 * ((x / WIDTH - 0.5) * Math.cos(dark) + (y / HEIGHT - 0.5) * Math.sin(dark));
      const at = (y * WIDTH + x) * 4;
      for (let channel = 0; channel < 3; channel++)
        photo.data[at + channel] = photo.data[at + channel]! * light + NOISE * random.normal();
    }
  return photo;
}
