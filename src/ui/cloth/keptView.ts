import type { Camera, ViewSize } from '../../core/view/camera';
import { keptHere } from '../kept';

const KEY = 'oculent-views';
/** So many views are kept; what was looked at longest ago is shown as a whole again. */
const MOST = 200;

/** A view that a hand chose: pixels a square, and the place in its middle. */
type KeptView = [name: string, scale: number, x: number, y: number];

function all(): KeptView[] {
  const kept = keptHere.json(KEY);
  return Array.isArray(kept)
    ? kept.filter(
        (each): each is KeptView =>
          Array.isArray(each) && typeof each[0] === 'string' && each.slice(1).every(Number.isFinite),
      )
    : [];
}

/** Keeps what a hand has brought into view, as the middle and the size of a square. @param camera null forgets it */
export function keepView(name: string | undefined, camera: Camera | null, view: ViewSize): void {
  if (name === undefined) return;
  const others = all().filter(([each]) => each !== name);
  if (camera) {
    const { scale, left, top } = camera;
    others.push([name, scale, left + view.width / scale / 2, top + view.height / scale / 2]);
  }
  keptHere.set(KEY, JSON.stringify(others.slice(-MOST)));
}

/** The view as it was kept, in a window of another size perhaps; null where none was. */
export function keptView(name: string | undefined, view: ViewSize): Camera | null {
  if (name === undefined || view.width === 0) return null;
  const kept = all().find(([each]) => each === name);
  if (!kept || !(kept[1] > 0)) return null;
  const [, scale, x, y] = kept;
  return { scale, left: x - view.width / scale / 2, top: y - view.height / scale / 2 };
}
