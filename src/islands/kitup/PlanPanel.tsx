import { useState } from 'react';
import { COLOUR_ORDERS, type ColourOrder } from '../../core/codes/colourOrder';
import { ALLOT_GOALS, type AllotGoal, type LeaveRule } from '../../core/kitup/allotTask';
import { GOAL_WORDS, ORDER_WORDS } from '../../core/kitup/planInWords';
import type { KitupView } from '../../server/kitup/contract';
import { ArrowUp } from '../../ui/icons';

/** What a plan is asked for, without the colours that are kept in place. */
export interface PlanWish {
  storageIds: string[];
  order: ColourOrder;
  leave: LeaveRule;
  goals: AllotGoal[];
  several: boolean;
}

const FIRST_WISH: PlanWish = {
  storageIds: [],
  order: 'code',
  leave: 'fewest drills',
  goals: [...ALLOT_GOALS],
  several: false,
};

/** The wish that the plan in view was made from; null before the first. */
export function standingWish({ plan, cases }: KitupView): PlanWish | null {
  if (!plan) return null;
  const { order, leave, goals, several } = plan;
  return { storageIds: cases.map(({ storage }) => storage.id), order, leave, goals, several };
}

/** Cases, order and goals of a plan; each goal tells what was reached. */
export function PlanPanel({
  view,
  busy,
  onPlan,
}: {
  view: KitupView;
  busy: boolean;
  /** @returns whether it is planned so */
  onPlan: (wish: PlanWish) => Promise<boolean>;
}) {
  // What is not touched follows the plan: another screen may plan while this form is open.
  const [own, setOwn] = useState<Partial<PlanWish>>({});
  const said = { ...(standingWish(view) ?? FIRST_WISH), ...own };
  const isThere = (id: string) => view.storages.some((storage) => storage.id === id);
  const wish = { ...said, storageIds: said.storageIds.filter(isThere) };
  const say = (part: Partial<PlanWish>) => setOwn({ ...own, ...part });
  const planned = view.plan !== null && JSON.stringify(view.plan.goals) === JSON.stringify(wish.goals);
  const up = (at: number) => {
    const goals = [...wish.goals];
    goals.splice(at - 1, 2, goals[at]!, goals[at - 1]!);
    say({ goals });
  };
  return (
    <form
      className="slip flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void onPlan(wish).then((planned) => planned && setOwn((now) => (now === own ? {} : now)));
      }}
    >
      <fieldset>
        <legend className="font-semibold">Cases for this kit</legend>
        {view.storages.map((storage) => (
          <label key={storage.id} className="flex min-h-11 items-center gap-2.5">
            <input
              type="checkbox"
              className="size-5 accent-accent"
              checked={wish.storageIds.includes(storage.id)}
              onChange={(event) =>
                say({
                  storageIds: event.target.checked
                    ? [...wish.storageIds, storage.id]
                    : wish.storageIds.filter((id) => id !== storage.id),
                })
              }
            />
            <span className="min-w-0">
              {storage.name}, {storage.free} of {storage.slots} free
            </span>
          </label>
        ))}
        <a className="inline-flex min-h-11 items-center underline" href="/storage">
          Draw another case, or change one
        </a>
      </fieldset>
      <label className="block">
        <span className="mb-1 block font-semibold">Kept in the order of</span>
        <select
          className="field"
          value={wish.order}
          onChange={(event) => say({ order: event.target.value as ColourOrder })}
        >
          {COLOUR_ORDERS.map((order) => (
            <option key={order} value={order}>
              {ORDER_WORDS[order]}
            </option>
          ))}
        </select>
      </label>
      <label className="block">
        <span className="mb-1 block font-semibold">If there are too few pots, leave in bags</span>
        <select
          className="field"
          value={wish.leave}
          onChange={(event) => say({ leave: event.target.value as LeaveRule })}
        >
          <option value="fewest drills">the fewest drills</option>
          <option value="last used">what is needed last</option>
        </select>
      </label>
      <div>
        <label className="flex min-h-11 items-center gap-2.5">
          <input
            type="checkbox"
            className="size-5 accent-accent"
            checked={wish.several}
            onChange={(event) => say({ several: event.target.checked })}
          />
          <span className="font-semibold">Use spare pots for what overflows</span>
        </label>
        {view.plan?.offer && <p className="text-[0.95rem] text-faded">{view.plan.offer}</p>}
      </div>
      <fieldset>
        <legend className="font-semibold">What matters most, from the top</legend>
        <p className="text-[0.95rem] text-faded">When two goals conflict, the upper one wins.</p>
        <ol className="flex flex-col">
          {wish.goals.map((goal, i) => (
            <li key={goal} className="flex items-start gap-2 border-b border-line py-1">
              <span className="number min-w-5 pt-2.5 font-semibold">{i + 1}</span>
              <span className="grow pt-2">
                {GOAL_WORDS[goal]}
                {planned && (
                  <span className="block text-[0.95rem] leading-snug text-faded">
                    {view.plan?.results[i]}
                  </span>
                )}
              </span>
              {i > 0 && (
                <button
                  type="button"
                  className="button !px-2.5"
                  aria-label={`${GOAL_WORDS[goal]}: matters more`}
                  title="Matters more"
                  onClick={() => up(i)}
                >
                  <ArrowUp size={18} aria-hidden />
                </button>
              )}
            </li>
          ))}
        </ol>
      </fieldset>
      <button type="submit" className="button button-main" disabled={busy || wish.storageIds.length === 0}>
        {view.plan ? 'Plan again' : 'Plan the pots'}
      </button>
    </form>
  );
}
