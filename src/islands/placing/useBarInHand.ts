import { useMemo, useRef } from 'react';
import type { Placement } from '../../core/placing/placement';
import { isToLay, type StepPlace, withInHand } from '../../core/placing/stepping';
import type { Tips } from '../../core/placing/tips';
import { TOO_SOON_MS } from '../../ui/useTooSoon';
import type { ClothData } from '../cloth/useClothData';

/** A placement that came forward, where stepping was then, and of which plan it is. */
interface Held {
  placement: Placement;
  of: readonly Placement[] | null;
  since: number;
  at: StepPlace;
  line: number | null;
  by: string;
}

export interface BarInHand {
  /** The plan, with what is in hand. */
  placements: readonly Placement[];
  /** Index of what is in hand; −1 where nothing is. */
  step: number;
  inHand: Placement | null;
  /** It is laid by whoever asks, and the next one comes forward. */
  release: () => void;
  /** Whether another hand just laid what was in hand: what is pressed at that moment was meant for that. */
  wasTaken: () => boolean;
}

/**
 * What came forward, and was there long enough to be looked at, stays in hand until it is laid, passed over, or no longer
 * there to be laid. A plan is made anew after each mark, here and on other screens, at first quickly and then well;
 * meanwhile somebody is laying the bar that stood there, and the key that is pressed then must not mark another one.
 * @param placements of the plan as it is by now, null while there is none
 * @param at where stepping is, with the colour that was chosen
 * @param by what the plan goes by, such as section, tips and wishes: another one brings another bar
 * @param choose index of what comes forward there; −1 for nothing
 */
export function useBarInHand(
  { chart, laid }: Pick<ClothData, 'chart' | 'laid'>,
  placements: readonly Placement[] | null,
  { at, line, tips, by }: { at: StepPlace; line: number | null; tips: Tips; by: string },
  choose: (placements: readonly Placement[]) => number,
): BarInHand {
  const held = useRef<Held | null>(null);
  const taken = useRef(Number.NEGATIVE_INFINITY);
  // A plan goes by what held when it came, and what is wished meanwhile holds for the next one.
  const made = useRef({ placements, by });
  if (made.current.placements !== placements) made.current = { placements, by };
  const there = placements ?? NONE;
  const isLookedAt = ({ since }: Held) => performance.now() - since > TOO_SOON_MS;
  const isOwn = (other: Held) => other.at === at && other.line === line && other.by === made.current.by;
  if (held.current && (!isOwn(held.current) || !isToLay(held.current.placement, chart, laid))) {
    if (isOwn(held.current)) taken.current = performance.now();
    held.current = null;
  }
  if (held.current && held.current.of !== placements && !isLookedAt(held.current)) held.current = null;
  const first = held.current ? undefined : there[choose(there)];
  if (first) {
    const since = performance.now();
    const next = { placement: first, of: placements, since, at, line, by: made.current.by };
    // What was just laid is in the plan until it is made anew.
    if (isToLay(first, chart, laid)) held.current = next;
  }
  const own = held.current?.placement ?? null;
  const all = useMemo(
    () => (own && !there.includes(own) ? withInHand(there, own, tips, chart.width) : there),
    [there, own, tips, chart.width],
  );
  const step = own && all.includes(own) ? all.indexOf(own) : choose(all);
  return {
    placements: all,
    step,
    inHand: all[step] ?? null,
    release: () => {
      held.current = null;
    },
    wasTaken: () => performance.now() - taken.current < TOO_SOON_MS,
  };
}

const NONE: readonly Placement[] = [];
