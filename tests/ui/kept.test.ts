// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest';
import { Kept, keptHere, keptInTab } from '../../src/ui/kept';

const throwing = (name: string) => (): never => {
  throw new DOMException('not here', name);
};
beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
});

describe('what a browser keeps for a page', () => {
  it('is kept for all pages, or for this tab', () => {
    keptHere.set('a', '1');
    keptInTab.set('a', '2');
    expect([localStorage.getItem('a'), sessionStorage.getItem('a')]).toEqual(['1', '2']);
    expect([keptHere.get('a'), keptInTab.get('a'), keptHere.get('b')]).toEqual(['1', '2', null]);
    keptHere.remove('a');
    expect([localStorage.getItem('a'), keptHere.get('a'), keptInTab.get('a')]).toEqual([null, null, '2']);
  });

  it('lives as long as the page where nothing may be kept', () => {
    const kept = new Kept(throwing('SecurityError'));
    expect(kept.get('a')).toBeNull();
    kept.set('a', '1');
    expect(kept.get('a')).toBe('1');
    kept.remove('a');
    expect(kept.get('a')).toBeNull();
  });

  it('is the newest where room ran out, and is kept again as soon as there is some', () => {
    let full = false;
    const kept = new Kept(
      () =>
        ({
          getItem: (key: string) => localStorage.getItem(key),
          setItem: (key: string, value: string) =>
            full ? throwing('QuotaExceededError')() : localStorage.setItem(key, value),
          removeItem: (key: string) => localStorage.removeItem(key),
        }) as Storage,
    );
    kept.set('a', '1');
    full = true;
    kept.set('a', '2');
    expect([kept.get('a'), localStorage.getItem('a')]).toEqual(['2', '1']);
    full = false;
    kept.set('a', '3');
    expect([kept.get('a'), localStorage.getItem('a')]).toEqual(['3', '3']);
  });

  it('is read as JSON where it is some', () => {
    keptHere.set('a', '[1, "x"]');
    keptHere.set('b', '{broken');
    expect([keptHere.json('a'), keptHere.json('b'), keptHere.json('c')]).toEqual([[1, 'x'], null, null]);
  });
});
