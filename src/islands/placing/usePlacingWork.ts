import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import type { Bitmap } from '../../core/cells/bitmap';
import { type CellPart, printOfLaid } from '../../core/cells/rect';
import type { Effort } from '../../core/pace/effort';
import type { PlacingPlan } from '../../core/placing/plan';
import type { SwitchName, WishPrice } from '../../core/placing/prices';
import type { Tips } from '../../core/placing/tips';
import type { TipWorth } from '../../core/placing/tipsWorth';
import type { PlacingWish } from '../../core/placing/wish';
import type { PlacingAnswer, PlacingOrder } from '../../workers/placing';
import type { ClothData } from '../cloth/useClothData';

/** How far the search for a whole canvas is. */
export interface WholeSearch {
  placements: number;
  bound: number;
  seconds: number;
  running: boolean;
}

export interface PlacingWork {
  plan: PlacingPlan | null;
  /** What each wish costs, as far as it is known. */
  prices: Partial<Record<SwitchName, WishPrice>>;
  worth: TipWorth[];
  /** Whether more tips are still being compared. */
  comparing: boolean;
  whole: WholeSearch | null;
  fault: string | null;
  compareTips(pieces: readonly CellPart[]): void;
  searchWhole(pieces: readonly CellPart[]): void;
  stopWhole(): void;
}

/** What the work of the thread has come to. */
type Found = Pick<PlacingWork, 'plan' | 'prices' | 'worth' | 'comparing' | 'whole' | 'fault'>;
const NOTHING: Found = { plan: null, prices: {}, worth: [], comparing: false, whole: null, fault: null };

/**
 * Has a thread of its own plan placements, so that the page stays quick, and plan anew when marks, tips or wishes change.
 * @param version changes with every change of the bitmap, which is changed in place
 * @param section null where no plan is wanted
 * @param prices whether the price of each wish is wanted
 */
export function usePlacingWork(
  { chart, laid }: ClothData,
  version: number,
  legend: readonly LegendLine[],
  section: CellPart | null,
  {
    tips,
    seconds,
    hand,
    wish,
    prices,
  }: {
    tips: Tips;
    /** That one of each effort takes. */
    seconds: Readonly<Effort>;
    hand: 'right' | 'left';
    wish: PlacingWish;
    prices: boolean;
  },
): PlacingWork {
  const [found, setFound] = useState(NOTHING);
  /** What tips are compared for; anew when what they are compared by changes. */
  const [compared, setCompared] = useState<readonly CellPart[] | null>(null);
  const worker = useRef<Worker | null>(null);
  const newest = useRef({ plan: 0, tips: 0, whole: 0 });
  /** Which section the newest plan was asked for, and which the plan that is here is of. */
  const asked = useRef<CellPart | null>(null);
  const [planned, setPlanned] = useState<CellPart | null>(null);
  const order = useCallback((message: PlacingOrder) => worker.current?.postMessage(message), []);

  useEffect(() => {
    const own = new Worker(new URL('../../workers/placing.ts', import.meta.url), { type: 'module' });
    worker.current = own;
    own.onmessage = ({ data }: MessageEvent<PlacingAnswer>) => {
      const kind = data.what === 'price' ? 'plan' : data.what;
      if (data.id !== newest.current[kind]) return;
      if (data.what === 'plan') setPlanned(asked.current);
      setFound((before) => ({ ...before, ...taken(before, data) }));
    };
    own.onerror = () =>
      setFound((before) => ({
        ...before,
        comparing: false,
        whole: null,
        fault: 'The placements could not be planned. Load the page again.',
      }));
    return () => own.terminate();
  }, []);

  const ground = useMemo(
    () => ({ chart, legend, tips, seconds, hand }),
    [chart, legend, tips, seconds, hand],
  );
  useEffect(() => {
    order({ what: 'ground', ground });
  }, [ground, order]);
  // What another device marks in another section changes nothing in the plan of this one.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the bitmap is changed in place, see `version`
  const print = useMemo(
    () => section && printOfLaid(laid, chart.width, section),
    [laid, chart.width, section, version],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: the bitmap is changed in place, see `print`
  useEffect(() => {
    const id = ++newest.current.plan;
    if (!section) return;
    asked.current = section;
    setFound((before) => ({ ...before, prices: {} }));
    order({ what: 'plan', id, laid: laid as Bitmap, section: partOf(section), wish, prices });
  }, [ground, laid, print, section, wish, prices]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: the bitmap is looked at when tips are asked for
  useEffect(() => {
    if (!compared) return;
    const id = ++newest.current.tips;
    setFound((before) => ({ ...before, worth: [], comparing: true }));
    order({ what: 'tips', id, laid, pieces: compared.map(partOf) });
  }, [ground, compared, order]);

  return {
    ...found,
    // What is in hand may be laid at any moment: never a bar of the section before.
    plan: planned === section ? found.plan : null,
    compareTips: setCompared,
    searchWhole: (pieces) => {
      const id = ++newest.current.whole;
      setFound((before) => ({ ...before, whole: null }));
      order({ what: 'whole', id, laid, pieces: pieces.map(partOf) });
    },
    stopWhole: () => {
      newest.current.whole++;
      order({ what: 'stop' });
      setFound(({ whole, ...before }) => ({ ...before, whole: whole && { ...whole, running: false } }));
    },
  };
}

/** What an answer changes. */
function taken(before: Found, data: PlacingAnswer): Partial<Found> {
  switch (data.what) {
    case 'plan':
      return { plan: data.plan, fault: null };
    case 'price':
      return { prices: { ...before.prices, [data.name]: data.price } };
    case 'tips':
      return { worth: data.worth, comparing: !data.done };
    case 'whole':
      return {
        whole: { placements: data.cost, bound: data.bound, seconds: data.seconds, running: !data.done },
      };
  }
}

/** What goes to another thread of a part of the canvas. */
function partOf({ x, y, width, height, rects }: CellPart): CellPart {
  return rects ? { x, y, width, height, rects } : { x, y, width, height };
}
