import { describe, expect, it } from 'vitest';
import { HoverStore } from '../../src/ui/cloth/hoverStore';

describe('the cell under the pointer', () => {
  it('is told from cell to cell only, and no longer to who left', () => {
    const store = new HoverStore();
    const told: unknown[] = [];
    const leave = store.subscribe(() => told.push(store.current()));
    store.set(null);
    store.set({ x: 1, y: 2 });
    store.set({ x: 1, y: 2 });
    store.set({ x: 1, y: 3 });
    store.set(null);
    expect(told).toEqual([{ x: 1, y: 2 }, { x: 1, y: 3 }, null]);
    leave();
    store.set({ x: 5, y: 5 });
    expect(told).toHaveLength(3);
    expect(store.current()).toEqual({ x: 5, y: 5 });
  });
});
