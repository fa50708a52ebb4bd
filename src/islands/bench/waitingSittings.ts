import type { SittingView } from '../../server/bench/contract';
import { theMachineClock } from '../writing/machineClock';
import { type WaitingWrite, whenMade } from '../writing/waitingStore';

/** A sitting that was begun or ended here, and of which the server has not told yet. */
export interface SittingAct {
  act: 'begin' | 'end';
  sitting: string;
  /** ISO. */
  at: string;
}

/** What a write does to a sitting as it goes; null for any other, and for one that is entered afterwards with its times. */
export function sittingActOf(write: WaitingWrite): SittingAct | null {
  const { id, startedAt, endedAt } = (write.body ?? {}) as Record<string, string | null | undefined>;
  const at = theMachineClock().at(whenMade(write)).toISOString();
  if (/\/sittings$/.test(write.url) && id && !startedAt) return { act: 'begin', sitting: id, at };
  const sitting = /\/sittings\/([^/]+)\/end$/.exec(write.url)?.[1];
  return sitting === undefined ? null : { act: 'end', sitting, at: endedAt ?? at };
}

/** Sittings as they will be told once what waits has come: the clock runs here, also while the machine is off. */
export function withWaiting(sittings: readonly SittingView[], waiting: readonly SittingAct[]): SittingView[] {
  let told = [...sittings];
  for (const { act, sitting, at } of waiting) {
    if (act === 'end')
      told = told.map((each) => (each.id === sitting ? { ...each, endedAt: each.endedAt ?? at } : each));
    else if (!told.some(({ id }) => id === sitting))
      told.unshift({ id: sitting, startedAt: at, endedAt: null, note: '', drills: 0 });
  }
  return told;
}
