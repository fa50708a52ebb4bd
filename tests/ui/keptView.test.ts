// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { keepView, keptView } from '../../src/ui/cloth/keptView';

beforeEach(() => localStorage.clear());
const window800 = { width: 800, height: 600 };

describe('the view that a hand chose', () => {
  it('is kept by name, and holds its middle in a window of another size', () => {
    keepView('a', { scale: 10, left: 5, top: 2 }, window800);
    keepView('b', { scale: 4, left: 0, top: 0 }, window800);
    expect(keptView('a', window800)).toEqual({ scale: 10, left: 5, top: 2 });
    // 80 × 60 squares were in sight, the middle at 45, 32; half as wide shows 40 around it.
    expect(keptView('a', { width: 400, height: 600 })).toEqual({ scale: 10, left: 25, top: 2 });
    keepView('a', null, window800);
    expect([keptView('a', window800), keptView('b', window800)?.scale]).toEqual([null, 4]);
  });

  it('goes when two hundred others were looked at since, and no more are kept', () => {
    for (let i = 0; i < 230; i++) keepView(`view ${i}`, { scale: 1 + i, left: 0, top: 0 }, window800);
    expect(keptView('view 29', window800)).toBeNull();
    expect(keptView('view 30', window800)?.scale).toBe(31);
    // Looked at again, it is the newest.
    keepView('view 30', { scale: 3, left: 0, top: 0 }, window800);
    keepView('another', { scale: 1, left: 0, top: 0 }, window800);
    expect(keptView('view 30', window800)?.scale).toBe(3);
    expect(localStorage.length).toBe(1);
  });

  it('is none where nothing sensible is kept, or nothing can be', () => {
    for (const odd of ['{', '3', '[["a", "b", 1, 2]]', '[["a", 0, 1, 2]]', '[["a", 1, null, 2]]']) {
      localStorage.setItem('oculent-views', odd);
      expect(keptView('a', window800), odd).toBeNull();
    }
    keepView('a', { scale: 2, left: 0, top: 0 }, window800);
    expect(keptView('a', { width: 0, height: 0 })).toBeNull();
    const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    expect(() => keepView('b', { scale: 2, left: 0, top: 0 }, window800)).not.toThrow();
    full.mockRestore();
  });
});
