import { rollOf } from '../../core/placing/inWords';
import { type Placement, placementRect } from '../../core/placing/placement';
import { CODE_FONT } from '../../ui/cloth/drillSprites';
import { CUT, LAMP, type Layer, toPx } from '../../ui/cloth/layers';

/** Squares of fewer pixels have no room for a number. */
const NUMBERED_PX = 13;
const GROUND = '#fbf8f2';
const HAND = '#9b1c3a';

/**
 * The bars of a colour, numbered in the order in which they are laid, and the one in hand: filled, with a dot at the end
 * that is planted and a stroke towards where it rolls.
 * @param alone leaves the others out, so that the squares stay quiet
 */
export function barsLayer(
  placements: readonly Placement[],
  inHand: Placement | null,
  hand: 'right' | 'left',
  alone = false,
): Layer {
  return (context, camera, view) => {
    (alone ? [] : placements).forEach((placement, i) => {
      const [left, top, w, h] = toPx(placementRect(placement), camera);
      if (left > view.width || top > view.height || left + w < 0 || top + h < 0) return;
      const inset = Math.min(3, camera.scale * 0.12);
      const box = [left + inset, top + inset, w - 2 * inset, h - 2 * inset, camera.scale * 0.28] as const;
      context.beginPath();
      context.roundRect(...box);
      context.lineWidth = 4.5;
      context.strokeStyle = CUT;
      context.stroke();
      context.lineWidth = 2;
      context.strokeStyle = LAMP;
      context.stroke();
      if (camera.scale >= NUMBERED_PX && placement !== inHand) {
        numberIn(context, String(i + 1), left + w / 2, top + h / 2, camera.scale, w);
      }
    });
    if (inHand) {
      const number = placements.indexOf(inHand) + 1;
      drawInHand(context, inHand, hand, toPx(placementRect(inHand), camera), camera.scale, number);
    }
  };
}

function numberIn(
  context: CanvasRenderingContext2D,
  words: string,
  x: number,
  y: number,
  scale: number,
  room: number,
): void {
  const size = Math.min(20, scale * 0.66, (room / words.length) * 1.5);
  context.font = `700 ${size}px ${CODE_FONT}`;
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  const width = context.measureText(words).width + size * 0.5;
  context.fillStyle = GROUND;
  context.beginPath();
  context.roundRect(x - width / 2, y - size * 0.62, width, size * 1.24, size * 0.4);
  context.fill();
  context.fillStyle = CUT;
  context.fillText(words, x, y + size * 0.05);
}

function drawInHand(
  context: CanvasRenderingContext2D,
  placement: Placement,
  hand: 'right' | 'left',
  [left, top, w, h]: [number, number, number, number],
  scale: number,
  number: number,
): void {
  context.beginPath();
  context.roundRect(left - 1, top - 1, w + 2, h + 2, scale * 0.3);
  context.fillStyle = 'rgb(251 248 242 / 0.82)';
  context.fill();
  context.lineWidth = 6;
  context.strokeStyle = GROUND;
  context.stroke();
  context.lineWidth = 3.5;
  context.strokeStyle = HAND;
  context.stroke();
  if (placement.length === 1) {
    if (scale >= NUMBERED_PX) numberIn(context, String(number), left + w / 2, top + h / 2, scale, w);
    return;
  }
  // From the planted end to the other.
  const { plant, to } = rollOf(placement, hand);
  const [px, py] = [
    left + (plant.x - placement.x + 0.5) * scale,
    top + (plant.y - placement.y + 0.5) * scale,
  ];
  const reach = (placement.length - 1) * scale;
  const [dx, dy] = to === 'down' ? [0, 1] : [to === 'right' ? 1 : -1, 0];
  const [ex, ey] = [px + dx * reach, py + dy * reach];
  const head = Math.min(9, scale * 0.4);
  context.lineWidth = Math.max(2, scale * 0.12);
  context.beginPath();
  context.moveTo(px, py);
  context.lineTo(ex, ey);
  context.moveTo(ex - dx * head - dy * head, ey - dy * head - dx * head);
  context.lineTo(ex, ey);
  context.lineTo(ex - dx * head + dy * head, ey - dy * head + dx * head);
  context.stroke();
  context.fillStyle = HAND;
  context.beginPath();
  context.arc(px, py, Math.max(4, scale * 0.32), 0, 2 * Math.PI);
  context.fill();
  if (scale >= NUMBERED_PX) numberIn(context, String(number), left + w / 2, top + h / 2, scale, w);
}
