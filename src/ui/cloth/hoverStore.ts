import { useSyncExternalStore } from 'react';
import type { CellPlace } from '../../core/cells/rect';

/** The cell under the pointer: only what shows it is rendered anew when the pointer moves, and only from cell to cell. */
export class HoverStore {
  private place: CellPlace | null = null;
  private readonly listeners = new Set<() => void>();

  readonly current = (): CellPlace | null => this.place;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly set = (place: CellPlace | null): void => {
    if (place?.x === this.place?.x && place?.y === this.place?.y) return;
    this.place = place;
    for (const listener of this.listeners) listener();
  };
}

export function useHover(store: HoverStore): CellPlace | null {
  return useSyncExternalStore(store.subscribe, store.current);
}
