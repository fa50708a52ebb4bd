// @vitest-environment happy-dom
import { afterEach, beforeAll, beforeEach, expect, it, vi } from 'vitest';
import { watchMovedClicks } from '../../src/ui/movedClicks';

beforeAll(() => watchMovedClicks(window));
let clicked: string[];
let clock = 0;
beforeEach(() => {
  clicked = [];
  clock += 10_000;
  document.body.innerHTML = `<button id="first"><b id="within">1</b></button><button id="second">2</button>
    <label id="words">Words<input id="field" type="checkbox"></label><p id="plain">3</p>`;
  for (const element of document.querySelectorAll('button, input, p'))
    element.addEventListener('click', () => clicked.push(element.id));
});
afterEach(() => vi.restoreAllMocks());

function click(id: string, after = 100, { x = 100, y = 100, detail = 1 } = {}) {
  clock += after;
  const event = new MouseEvent('click', { bubbles: true, cancelable: true, clientX: x, clientY: y, detail });
  Object.defineProperty(event, 'timeStamp', { value: clock });
  document.getElementById(id)!.dispatchEvent(event);
  return event.defaultPrevented;
}

it('the second click of a double click does not reach what the first one moved there', () => {
  expect([click('first'), click('second'), click('second')]).toEqual([false, true, true]);
  expect(clicked).toEqual(['first']);
  // Once it has been looked at it is meant.
  expect(click('second', 500)).toBe(false);
  expect(clicked).toEqual(['first', 'second']);
});

it('what stays where it was is clicked as often as one likes, on any part of it', () => {
  for (const id of ['first', 'within', 'first']) click(id);
  expect(clicked).toEqual(['first', 'first', 'first']);
});

it('another place, a field and its words, and a key are no second click', () => {
  click('first');
  click('second', 100, { x: 140 });
  click('words', 100, { x: 140 });
  click('field', 0, { x: 140 });
  click('first', 100, { x: 140, detail: 0 });
  expect(clicked).toEqual(['first', 'second', 'field', 'field', 'first']);
});

it('a button that comes up under a click on nothing is not pressed by the next one', () => {
  click('plain');
  expect(click('first')).toBe(true);
  expect(clicked).toEqual(['plain']);
});

it('who types, presses a key or scrolls in between has looked', () => {
  for (const event of [
    new KeyboardEvent('keydown', { bubbles: true, key: 'a' }),
    new WheelEvent('wheel', { bubbles: true }),
    new InputEvent('input', { bubbles: true, inputType: 'insertText' }),
  ]) {
    click('first', 1000);
    document.getElementById('field')!.dispatchEvent(event);
    expect(click('second'), event.type).toBe(false);
  }
  // A box that is ticked tells of itself as well, and has moved things like any other.
  click('first', 1000);
  document.getElementById('field')!.dispatchEvent(new Event('input', { bubbles: true }));
  expect(click('second')).toBe(true);
});
