// @vitest-environment happy-dom
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { typedIn } from '../../src/islands/writing/typedIn';
import { useTypedText } from '../../src/islands/writing/useTypedText';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

/** A field whose text the server has as `kept`; what it sends is noted and not yet kept. */
function field(kept: string) {
  const sent: [text: string, from: string][] = [];
  const refusals: (() => void)[] = [];
  const send = (text: string, from: string, refused: () => void) => {
    sent.push([text, from]);
    refusals.push(refused);
  };
  const hook = renderHook(({ kept }) => useTypedText(kept, send), { initialProps: { kept } });
  const now = () => hook.result.current;
  return {
    sent,
    now,
    type: (text: string) => act(() => now().type(text)),
    wait: (ms: number) => act(() => void vi.advanceTimersByTime(ms)),
    leave: () => act(() => now().leave()),
    choose: (which: 'mine' | 'theirs' | 'both') => act(() => now().choose(which)),
    refuse: (nth: number) => act(() => refusals[nth]!()),
    tell: (kept: string) => hook.rerender({ kept }),
    close: () => hook.unmount(),
  };
}

describe('a text that is kept while it is typed', () => {
  it('is sent after a pause and when it is left, each part once, in the place of the one before', () => {
    const notes = field('');
    notes.type('A');
    notes.wait(1000);
    notes.type('A gift');
    notes.wait(1000);
    expect([notes.sent, notes.now().isOpen]).toEqual([[], true]);
    notes.wait(600);
    expect(notes.sent).toEqual([['A gift', '']]);
    notes.type('A gift for Ann ');
    notes.leave();
    notes.wait(5000);
    expect(notes.sent.slice(1)).toEqual([['A gift for Ann ', 'A gift']]);
    // Of what is on its way nothing stands in the way of what comes after it.
    expect(notes.now().theirs).toBeNull();
    notes.tell('A gift');
    expect(notes.now()).toMatchObject({ text: 'A gift for Ann ', isOpen: true, theirs: null });
    notes.tell('A gift for Ann');
    expect(notes.now()).toMatchObject({ text: 'A gift for Ann ', isOpen: false, theirs: null });
    notes.leave();
    expect(notes.now().text).toBe('A gift for Ann');
    expect(notes.sent).toHaveLength(2);
  });

  it('is sent when the page is left, or hidden, or the field goes', () => {
    for (const go of ['pagehide', 'hidden', 'gone'] as const) {
      const notes = field('old');
      notes.type(go);
      if (go === 'pagehide') act(() => void window.dispatchEvent(new Event('pagehide')));
      else if (go === 'hidden') {
        vi.spyOn(document, 'visibilityState', 'get').mockReturnValue('hidden');
        act(() => void document.dispatchEvent(new Event('visibilitychange')));
        vi.restoreAllMocks();
      } else notes.close();
      expect(notes.sent, go).toEqual([[go, 'old']]);
      cleanup();
      expect(notes.sent, go).toHaveLength(1);
    }
  });

  it('follows another screen where nothing is typed, also after something was', () => {
    const notes = field('one');
    notes.tell('two');
    expect(notes.now().text).toBe('two');
    notes.type('two and');
    notes.leave();
    notes.tell('two and');
    notes.tell('three');
    expect(notes.now()).toMatchObject({ text: 'three', isOpen: false, theirs: null });
    expect(notes.sent).toEqual([['two and', 'two']]);
  });

  it('stays beside what another screen wrote meanwhile until one is chosen, and is not sent', () => {
    const begin = () => {
      const notes = field('one');
      notes.type('one, mine');
      notes.tell('one, theirs');
      expect(notes.now()).toMatchObject({ text: 'one, mine', theirs: 'one, theirs', isOpen: true });
      notes.leave();
      notes.wait(5000);
      expect(notes.sent).toEqual([]);
      return notes;
    };
    const mine = begin();
    mine.choose('mine');
    expect(mine.sent).toEqual([['one, mine', 'one, theirs']]);
    expect(mine.now().theirs).toBeNull();
    mine.tell('one, mine');
    expect(mine.now().isOpen).toBe(false);
    const theirs = begin();
    theirs.choose('theirs');
    expect([theirs.now().text, theirs.sent]).toEqual(['one, theirs', []]);
    const both = begin();
    both.choose('both');
    expect(both.now().text).toBe('one, theirs\none, mine');
    expect(both.sent).toEqual([['one, theirs\none, mine', 'one, theirs']]);
  });

  it('that the server refused, for another screen came first, is there beside that', () => {
    const notes = field('one');
    notes.type('one, mine');
    notes.leave();
    expect(notes.sent).toHaveLength(1);
    notes.tell('one, theirs');
    expect(notes.now()).toMatchObject({ text: 'one, mine', theirs: 'one, theirs' });
    notes.choose('mine');
    expect(notes.sent[1]).toEqual(['one, mine', 'one, theirs']);
  });

  it('that is refused for what it is, is told as not saved, and what is typed next takes no place of it', () => {
    const notes = field('one');
    notes.type('one, far too long');
    notes.leave();
    notes.type('one, far too long indeed');
    notes.leave();
    notes.refuse(0);
    notes.refuse(1);
    expect(notes.now()).toMatchObject({ text: 'one, far too long indeed', isOpen: true, theirs: null });
    // The same is not sent again and again by itself, but when the field is left once more.
    notes.wait(10_000);
    expect(notes.sent).toHaveLength(2);
    notes.type('one, shorter');
    notes.wait(2000);
    expect(notes.sent[2]).toEqual(['one, shorter', 'one']);
    notes.refuse(2);
    notes.leave();
    expect(notes.sent[3]).toEqual(['one, shorter', 'one']);
    notes.tell('one, shorter');
    expect(notes.now()).toMatchObject({ isOpen: false, theirs: null });
  });
});

it('what was typed into a write that is set aside can be read before it is deleted', () => {
  expect(typedIn({ id: 'a', notes: ' For the hall\nin oak ', note: 'x' })).toBe('For the hall\nin oak');
  expect(typedIn({ id: 'a', notes: ' ', note: 'tired' })).toBe('tired');
  for (const body of [{ id: 'a', runs: [0, 1] }, { note: 3 }, { note: '' }, null, undefined, 'note'])
    expect(typedIn(body)).toBeNull();
});
