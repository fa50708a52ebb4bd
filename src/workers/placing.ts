import type { Bitmap } from '../core/cells/bitmap';
import type { CellPart } from '../core/cells/rect';
import { type PlacingGround, type PlacingPlan, PlacingPlanner, searchAll } from '../core/placing/plan';
import { SWITCH_NAMES, type SwitchName, type WishPrice, wishPrice } from '../core/placing/prices';
import { leftToLay, regionsOf } from '../core/placing/regions';
import { type TipWorth, tipAfterTip, WIDEST_COMPARED } from '../core/placing/tipsWorth';
import type { PlacingWish } from '../core/placing/wish';

/** What a page has this thread do. Of each kind of work only the newest is done; `id` tells which it was. */
export type PlacingOrder =
  /** What all other work is about. */
  | { what: 'ground'; ground: Omit<PlacingGround, 'laid' | 'parts'> }
  /** A quick plan of a section, the plan itself, then what each wish costs there. */
  | { what: 'plan'; id: number; laid: Bitmap; section: CellPart; wish: PlacingWish; prices: boolean }
  /** What each size of tip makes of some pieces. */
  | { what: 'tips'; id: number; laid: Bitmap; pieces: CellPart[] }
  /** The fewest placements for a whole canvas, better and better until it is stopped. */
  | { what: 'whole'; id: number; laid: Bitmap; pieces: CellPart[] }
  | { what: 'stop' };

export type PlacingAnswer =
  | { what: 'plan'; id: number; plan: PlacingPlan }
  | { what: 'price'; id: number; name: SwitchName; price: WishPrice }
  | { what: 'tips'; id: number; worth: TipWorth[]; done: boolean }
  | { what: 'whole'; id: number; cost: number; bound: number; seconds: number; done: boolean };

const answer = (message: PlacingAnswer) => postMessage(message);
const planner = new PlacingPlanner();
let ground: Omit<PlacingGround, 'laid' | 'parts'> | null = null;
const newest = { plan: 0, tips: 0, whole: 0 };

/** Lets orders in that came meanwhile. @returns whether the work is still the newest of its kind */
async function goesOn(kind: keyof typeof newest, id: number): Promise<boolean> {
  await new Promise((resolve) => setTimeout(resolve));
  return newest[kind] === id;
}

/** A large piece is compared by the quick search: tips differ by far more than the hundredths between the two. */
const COMPARED_WELL = 20_000;
/** The search tells of itself so often (ms), and a region that takes longer than the second is left as it is. */
const SLICE_MS = { told: 150, region: 1000 };
/** Rounds after which little is gained. */
const MOST_ROUNDS = 7;

addEventListener('message', ({ data }: MessageEvent<PlacingOrder>) => {
  switch (data.what) {
    case 'ground':
      ({ ground } = data);
      return;
    case 'stop':
      newest.whole++;
      return;
    case 'plan':
      newest.plan = data.id;
      return void plan(data);
    case 'tips':
      newest.tips = data.id;
      return void tips(data);
    case 'whole':
      newest.whole = data.id;
      return void whole(data);
  }
});

async function plan({ id, laid, section, wish, prices }: PlacingOrder & { what: 'plan' }): Promise<void> {
  if (!ground) return;
  const own: PlacingGround = { ...ground, laid, parts: [section] };
  // Something to see at once, then the plan itself.
  answer({ what: 'plan', id, plan: planner.plan(own, wish, 'quick') });
  if (!(await goesOn('plan', id))) return;
  const now = planner.plan(own, wish);
  answer({ what: 'plan', id, plan: now });
  if (!prices) return;
  for (const name of SWITCH_NAMES) {
    if (!(await goesOn('plan', id))) return;
    answer({ what: 'price', id, name, price: wishPrice(planner, own, wish, now, name) });
  }
}

async function tips({ id, laid, pieces }: PlacingOrder & { what: 'tips' }): Promise<void> {
  if (!ground || !(await goesOn('tips', id))) return;
  const { chart, seconds } = ground;
  const regions = pieces.map((piece) => regionsOf(leftToLay(chart, piece, laid), null));
  const squares = regions.reduce((sum, { cells }) => sum + cells.length, 0);
  const worth: TipWorth[] = [];
  for (const each of tipAfterTip(regions, seconds, squares <= COMPARED_WELL ? 1 : 0)) {
    worth.push(each);
    answer({ what: 'tips', id, worth: [...worth], done: worth.length === WIDEST_COMPARED });
    if (!(await goesOn('tips', id))) return;
  }
}

async function whole({ id, laid, pieces }: PlacingOrder & { what: 'whole' }): Promise<void> {
  if (!ground) return;
  const began = performance.now();
  const search = searchAll({ ...ground, laid, parts: pieces });
  const tell = (done: boolean) =>
    answer({
      what: 'whole',
      id,
      cost: Math.round(search.cost),
      bound: Math.round(search.bound),
      seconds: (performance.now() - began) / 1000,
      done,
    });
  tell(false);
  for (let left = true; left; ) {
    if (!(await goesOn('whole', id))) return;
    const from = performance.now();
    const since = () => performance.now() - from;
    left = search.run(
      MOST_ROUNDS,
      () => since() > SLICE_MS.region,
      () => since() > SLICE_MS.told,
    );
    tell(false);
  }
  tell(true);
}
