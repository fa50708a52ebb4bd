import { useEffect, useMemo, useSyncExternalStore } from 'react';
import type { Chart } from '../../core/cells/chart';
import type { RepairView } from '../../server/chart/contract';
import { useLive } from '../live/useLive';
import { theOutbox } from '../writing/outbox';
import { type RepairState, RepairStore } from './repairStore';

/** Changes of a chart, and ways to make and undo them. @param chart its cells are changed in place */
export function useRepairs(
  canvasId: string,
  chart: Chart,
  first: RepairView,
): RepairState & { store: RepairStore } {
  const store = useMemo(() => new RepairStore(canvasId, chart, first, theOutbox()), [canvasId, chart, first]);
  useEffect(() => store.start(), [store]);
  useLive(canvasId, ['repairs', 'sheet'], () => void store.refresh());
  const state = useSyncExternalStore(store.subscribe, store.snapshot);
  return { ...state, store };
}
