/** The second click of a double click comes so soon (ms) after the first, */
export const DOUBLE_CLICK_MS = 300;
/** and so near to it (CSS pixels). */
const DOUBLE_CLICK_PX = 16;
const PRESSED = 'button, a[href], summary, [role="button"]';

/**
 * Keeps the second click of a double click from what the first one moved under the pointer: of a row that goes away, the
 * next row; of a question that comes up, its answer. Nobody has read it, so nobody means it.
 * @param target whose clicks are watched, before anything on the page hears of them
 */
export function watchMovedClicks(target: Pick<Window, 'addEventListener'>): void {
  const NONE = { at: Number.NEGATIVE_INFINITY, x: 0, y: 0, on: null as Element | null };
  let last = NONE;
  // Who types or scrolls between two clicks looks at what is there.
  const looked = () => {
    last = NONE;
  };
  target.addEventListener('keydown', looked, { capture: true });
  target.addEventListener('wheel', looked, { capture: true, passive: true });
  target.addEventListener('input', (event) => 'inputType' in event && looked(), { capture: true });
  target.addEventListener(
    'click',
    (event) => {
      // A key or a program has no place, and a word that clicks its field is not a second click.
      if (event.detail === 0 || !(event.target instanceof Element)) return;
      const on = event.target.closest(PRESSED);
      const { clientX: x, clientY: y } = event;
      const isSecond =
        event.timeStamp - last.at < DOUBLE_CLICK_MS && Math.hypot(x - last.x, y - last.y) <= DOUBLE_CLICK_PX;
      if (isSecond && on !== null && on !== last.on) {
        event.preventDefault();
        event.stopPropagation();
        last = { ...last, at: event.timeStamp };
        return;
      }
      last = { at: event.timeStamp, x, y, on };
    },
    { capture: true },
  );
}
