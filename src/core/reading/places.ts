import { Refusal } from '../refusal';
import type { Corners } from './homography';
import type { Pin } from './mesh';

/** Corners as they are kept: `x,y x,y x,y x,y`. */
export function cornersToText(corners: Corners): string {
  return corners.map(([x, y]) => `${round(x)},${round(y)}`).join(' ');
}

/** @throws Refusal where they are not four */
export function cornersFromText(text: string): Corners {
  const corners = text.split(' ').map((spot) => spot.split(',').map(Number));
  if (corners.length !== 4 || corners.some((spot) => spot.length !== 2 || !spot.every(Number.isFinite)))
    throw new Refusal('These are no four corners.');
  return corners as unknown as Corners;
}

/** Pins as they are kept: `column,row,x,y` with spaces between. */
export function pinsToText(pins: readonly Pin[]): string {
  return pins.map(({ column, row, x, y }) => `${column},${row},${round(x)},${round(y)}`).join(' ');
}

export function pinsFromText(text: string): Pin[] {
  if (text === '') return [];
  return text.split(' ').map((pin) => {
    const [column = 0, row = 0, x = 0, y = 0] = pin.split(',').map(Number);
    return { column, row, x, y };
  });
}

/** A hundredth of a pixel is finer than any hand. */
const round = (value: number) => Math.round(value * 100) / 100;
