// @vitest-environment happy-dom

import { act, cleanup, fireEvent, render, renderHook, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { panelsSideBySide } from '../../src/core/canvas/canvas';
import { cutIntoBlocks } from '../../src/core/sections/blockGrid';
import { frontAtFirst, frontInAddress, frontOfTab, keepFront } from '../../src/islands/sections/inFrontHere';
import { usePickedSections } from '../../src/islands/sections/usePickedSections';
import { isForThePicture } from '../../src/ui/keysOutside';
import { NumberField } from '../../src/ui/NumberField';
import { TermWord } from '../../src/ui/TermWord';
import { asNumber } from '../../src/ui/typedNumber';
import { type Asked, standInFetch } from './requests';

let asked: Asked[] = [];
beforeEach(() => {
  sessionStorage.clear();
  history.replaceState(null, '', '/canvas/c1/bench');
  asked = standInFetch(() => Response.json({}));
  vi.useFakeTimers();
});
afterEach(() => {
  cleanup();
  vi.runAllTimers();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('where a page begins', () => {
  const kept = { section: 30, line: 7 };

  it('is at its address, else where this tab was, else where the canvas was left', () => {
    expect(frontAtFirst('?section=4&colour=2', { section: 9, line: 1 }, kept)).toEqual({
      section: 4,
      line: 2,
    });
    expect(frontAtFirst('', { section: 9, line: 1 }, kept)).toEqual({ section: 9, line: 1 });
    expect(frontAtFirst('', null, kept)).toEqual(kept);
    expect(frontAtFirst('', null, null)).toEqual({ section: null, line: null });
  });

  it('keeps the section where the address names a colour alone, and drops the colour in another section', () => {
    expect(frontAtFirst('?colour=2', null, kept)).toEqual({ section: 30, line: 2 });
    expect(frontAtFirst('?section=30', null, kept)).toEqual(kept);
    expect(frontAtFirst('?section=31', null, kept)).toEqual({ section: 31, line: null });
  });

  it('takes no nonsense from an address or a store', () => {
    expect(frontInAddress('?section=-1&colour=x')).toEqual({ section: null, line: null });
    sessionStorage.setItem('oculent-in-front-c1', '{"section":"9"}');
    expect(frontOfTab('c1')).toEqual({ section: null, line: null });
    sessionStorage.setItem('oculent-in-front-c1', 'broken');
    expect(frontOfTab('c1')).toBeNull();
  });
});

describe('what is in front', () => {
  it('is in the address and in the tab at once, and told once it has stood for a while', () => {
    keepFront('c1', { section: 3, line: null }, null);
    keepFront('c1', { section: 3, line: 8 }, null);
    expect(location.search).toBe('?section=3&colour=8');
    expect(frontOfTab('c1')).toEqual({ section: 3, line: 8 });
    expect(frontOfTab('c2')).toBeNull();
    expect(asked).toEqual([]);
    vi.advanceTimersByTime(600);
    expect(asked).toEqual([
      { method: 'PUT', url: '/api/canvases/c1/in-front', body: { section: 3, line: 8 } },
    ]);
  });

  it('is not told where nothing is new, and told at once when the page is left', () => {
    keepFront('c5', { section: 30, line: 7 }, { section: 30, line: 7 });
    vi.advanceTimersByTime(600);
    expect(asked).toEqual([]);
    keepFront('c5', { section: 31, line: null }, { section: 30, line: 7 });
    window.dispatchEvent(new Event('pagehide'));
    expect(asked.map(({ body }) => body)).toEqual([{ section: 31, line: null }]);
    vi.advanceTimersByTime(600);
    expect(asked).toHaveLength(1);
  });
});

describe('sections picked by hand', () => {
  // Three across, two down.
  const sections = cutIntoBlocks(panelsSideBySide({ width: 6, height: 4 }, 1), { columns: 2, rows: 2 });
  const at = (number: number) => ({ x: sections[number - 1]!.x, y: sections[number - 1]!.y });
  const hand = (shift = false) => {
    let here = 1;
    const hook = renderHook(() =>
      usePickedSections(
        sections,
        here,
        (next) => (here = next),
        () => shift,
      ),
    );
    const press = (number: number, ...over: number[]) =>
      act(() => {
        hook.result.current.marking.begin(at(number), false);
        if (over.length > 0) hook.result.current.marking.extend(over.map(at));
        hook.result.current.marking.end();
        hook.rerender();
      });
    const picked = () => [...hook.result.current.picked].sort();
    return { hook, press, picked, here: () => here };
  };

  it('go in with a press and out with another; a drag goes on with the same', () => {
    const { press, picked, here } = hand();
    press(1, 2, 3);
    expect(picked()).toEqual([1, 2, 3]);
    expect(here()).toBe(3);
    press(3, 2);
    expect(picked()).toEqual([1]);
  });

  it('with Shift, or with an area asked for, are all up to there', () => {
    const held = hand(true);
    held.press(5);
    expect(held.picked()).toEqual([1, 2, 4, 5]);
    const asked = hand();
    act(() => asked.hook.result.current.setArea(true));
    asked.press(5);
    expect(asked.picked()).toEqual([1, 2, 4, 5]);
    expect(asked.hook.result.current.area).toBe(false);
    // The area was asked for once.
    asked.press(6);
    expect(asked.picked()).toEqual([1, 2, 4, 5, 6]);
  });

  it('by keyboard: Space picks, Shift and arrows pick on the way', () => {
    const { hook, picked, here } = hand();
    const key = (name: string, shiftKey = false) =>
      act(() => {
        hook.result.current.onKey({ key: name, shiftKey });
        hook.rerender();
      });
    key(' ');
    key('ArrowRight', true);
    key('ArrowDown');
    expect(picked()).toEqual([1, 2]);
    expect(here()).toBe(5);
    expect(hook.result.current.onKey({ key: 'x', shiftKey: false })).toBe(false);
  });

  it('are as before when a drag is broken off', () => {
    const { hook, press, picked } = hand();
    press(1);
    act(() => hook.result.current.marking.begin(at(2), false));
    act(() => hook.result.current.marking.abort());
    expect(picked()).toEqual([1]);
  });
});

describe('a key outside of the picture', () => {
  const pressed = (html: string, key: string, more: KeyboardEventInit = {}) => {
    document.body.innerHTML = html;
    const target = document.querySelector('[data-here]') ?? document.body;
    let taken = false;
    const listen = (event: KeyboardEvent) => {
      taken = isForThePicture(event);
    };
    window.addEventListener('keydown', listen);
    target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, ...more }));
    window.removeEventListener('keydown', listen);
    return taken;
  };

  it('acts on it where no text is typed and nothing else takes the key', () => {
    expect(pressed('', 'a')).toBe(true);
    expect(pressed('', 'ArrowUp')).toBe(true);
    expect(pressed('<button data-here>Undo</button>', 'n')).toBe(true);
    expect(pressed('<button data-here>Undo</button>', ' ')).toBe(false);
    expect(pressed('<a href="/" data-here>Shelf</a>', 'Enter')).toBe(false);
    // A heading that has the focus because what was pressed is gone takes no keys of its own.
    expect(pressed('<h2 tabindex="-1" data-here>Section 2</h2>', ' ')).toBe(true);
    expect(pressed('<ul tabindex="0" data-here></ul>', 'ArrowDown')).toBe(false);
    expect(pressed('<input data-here>', 'a')).toBe(false);
    expect(pressed('<select data-here></select>', 'ArrowUp')).toBe(false);
    expect(pressed('<dialog open><p data-here>Keys</p></dialog>', 'a')).toBe(false);
    expect(pressed('', 'a', { ctrlKey: true })).toBe(false);
  });
});

describe('a field for a length', () => {
  it('takes any unit, and tells what fits in the one that was typed', () => {
    const taken: number[] = [];
    render(
      <NumberField
        words="Width, mm"
        value={20}
        least={1}
        most={40}
        unit="mm"
        onChange={(to) => taken.push(to)}
      />,
    );
    const input = screen.getByLabelText(/Width/);
    fireEvent.change(input, { target: { value: '1 in' } });
    expect(taken).toEqual([25.4]);
    fireEvent.change(input, { target: { value: '2 in' } });
    expect(taken).toHaveLength(1);
    expect(screen.getByRole('alert').textContent).toBe('0.04 to 1.57 in');
  });

  it('of a form becomes its number, or none that the schema refuses', () => {
    const { setValueAs } = asNumber('mm');
    expect(setValueAs('0,1 in')).toBe(2.54);
    expect(setValueAs('wide')).toBeNaN();
    expect(setValueAs('')).toBe('');
    expect(setValueAs(2.5)).toBe(2.5);
    expect(asNumber('whole').setValueAs('1,240')).toBe(1240);
  });
});

it('a word of the trade explains itself on a tap, and is heard with its sentence', () => {
  render(<TermWord term="confetti">confetti</TermWord>);
  const word = screen.getByRole('button', { name: 'confetti' });
  const sentence = document.getElementById(word.getAttribute('aria-describedby')!)!;
  expect(sentence.textContent).toMatch(/^Squares with no neighbour/);
  expect(sentence.hidden).toBe(true);
  fireEvent.click(word);
  expect(sentence.hidden).toBe(false);
  fireEvent.keyDown(word, { key: 'Escape' });
  expect(sentence.hidden).toBe(true);
});

it.each([
  [100, 356, 0],
  // 390 pixels wide: what would end at 446 is moved to end 8 before the edge.
  [190, 446, -64],
  [0, 256, 8],
  [-40, 500, 48],
])('the sentence of a word stays on the screen where it would reach from %i to %i', (left, right, moved) => {
  vi.spyOn(document.documentElement, 'clientWidth', 'get').mockReturnValue(390);
  vi.spyOn(HTMLElement.prototype, 'getBoundingClientRect').mockReturnValue({ left, right } as DOMRect);
  render(<TermWord term="confetti">confetti</TermWord>);
  const word = screen.getByRole('button', { name: 'confetti' });
  const sentence = document.getElementById(word.getAttribute('aria-describedby')!)!;
  fireEvent.click(word);
  expect(sentence.style.left).toBe(`${moved}px`);
  fireEvent.click(word);
  expect([sentence.hidden, sentence.style.left]).toEqual([true, '0px']);
  vi.restoreAllMocks();
});
