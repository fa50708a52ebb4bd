// @vitest-environment happy-dom
import { expect, it } from 'vitest';
import { watchRestingHand } from '../../src/ui/restingHand';

it('a hand that rests on a board asks for no menu, and a mouse does', () => {
  watchRestingHand(window);
  document.body.innerHTML = '<div class="touch-none"><canvas></canvas></div><p></p>';
  const asks = (on: string, pointerType: string) =>
    document
      .querySelector(on)!
      .dispatchEvent(new PointerEvent('contextmenu', { pointerType, bubbles: true, cancelable: true }));
  expect([asks('canvas', 'touch'), asks('canvas', 'pen'), asks('canvas', 'mouse')]).toEqual([
    false,
    false,
    true,
  ]);
  expect(asks('p', 'touch')).toBe(true);
});
