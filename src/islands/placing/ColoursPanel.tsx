import type { Shape } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import { minutesInWords } from '../../core/pace/timeInWords';
import { minutesFor, type TimeModel } from '../../core/pace/timeModel';
import { isMostlySingles } from '../../core/placing/confetti';
import type { PlacingPlan } from '../../core/placing/plan';
import type { WishPrice } from '../../core/placing/prices';
import { priceInWords } from '../../core/placing/prices';
import { SCHOOL_REASONS, SCHOOLS, type School } from '../../core/placing/schools';
import type { PlacingWish } from '../../core/placing/wish';
import { many } from '../../core/words/numbers';
import { ColourList } from '../../ui/ColourList';
import { ArrowDown, ArrowUp } from '../../ui/icons';
import { Notice } from '../../ui/Notice';

/** The colours of the section in the order of the user's school, with what each takes. */
export function ColoursPanel({
  plan,
  legend,
  shape,
  line,
  wish,
  model,
  checkerboard,
  onChoose,
  onChange,
}: {
  plan: PlacingPlan;
  legend: LegendLine[];
  shape: Shape;
  line: number | null;
  wish: PlacingWish;
  model: TimeModel;
  /** What a checkerboard of single drills would cost. */
  checkerboard: WishPrice | null;
  onChoose: (line: number) => void;
  onChange: (part: Partial<PlacingWish>) => void;
}) {
  const colours = plan.colours[0]!;
  const chosen = colours.find((each) => each.line === line);
  const lines = colours.map((each) => each.line);
  const move = (by: 1 | -1) => {
    const from = lines.indexOf(line!);
    const order = [...lines];
    [order[from], order[from + by]] = [order[from + by]!, order[from]!];
    // Colours that this section lacks keep their places behind.
    onChange({ ownOrder: [...order, ...wish.ownOrder.filter((each) => !order.includes(each))] });
  };
  return (
    <>
      <label className="block">
        <span className="mb-1 block font-semibold">Order of the colours</span>
        <select
          className="field"
          value={wish.school}
          onChange={(event) => {
            const school = event.target.value as School;
            onChange(
              school === 'own' && wish.ownOrder.length === 0 ? { school, ownOrder: lines } : { school },
            );
          }}
        >
          {SCHOOLS.map((school) => (
            <option key={school} value={school}>
              {SCHOOL_REASONS[school].name}
            </option>
          ))}
        </select>
        <span className="mt-1 block text-[0.98rem] text-faded">{SCHOOL_REASONS[wish.school].reason}</span>
      </label>
      {isMostlySingles(plan) && plan.drills > 0 && wish.passes !== 'checkerboard' && (
        <Notice kind="hint">
          <p>
            Mostly single drills here: {many(plan.effort.singles)} of {many(plan.drills)}. Colour by colour{' '}
            {minutesInWords(minutesFor(model, plan.effort))}.
          </p>
          <button
            type="button"
            className="button mt-1.5"
            onClick={() => onChange({ passes: 'checkerboard' })}
          >
            Lay it as a checkerboard
          </button>
          {/* Below the button, for it comes later, and the button is not to move from under a finger. */}
          {checkerboard && <p className="mt-1">Dark squares first: {priceInWords(checkerboard)}.</p>}
        </Notice>
      )}
      {wish.passes === 'checkerboard' && (
        <p>
          As a checkerboard: every second square first, then the gaps.{' '}
          <button type="button" className="button" onClick={() => onChange({ passes: 'one' })}>
            Colour by colour instead
          </button>
        </p>
      )}
      {chosen && (
        <div className="flex flex-wrap items-center gap-2">
          <p className="grow basis-56" data-testid="ways">
            <span translate="no" className="number font-semibold">
              {ofLine(legend, chosen.line)!.code}
            </span>
            : {many(chosen.along)} along rows, {many(chosen.down)} down columns. Rows alone take{' '}
            {many(chosen.rowsOnly)}, columns {many(chosen.columnsOnly)}.
          </p>
          {wish.school === 'own' && (
            <>
              <button
                type="button"
                className="button"
                disabled={lines[0] === chosen.line}
                onClick={() => move(-1)}
                aria-label="Lay this colour earlier"
              >
                <ArrowUp size={20} aria-hidden />
              </button>
              <button
                type="button"
                className="button"
                disabled={lines.at(-1) === chosen.line}
                onClick={() => move(1)}
                aria-label="Lay this colour later"
              >
                <ArrowDown size={20} aria-hidden />
              </button>
            </>
          )}
        </div>
      )}
      <ColourList
        label="Colours of this section, in the order in which they are laid"
        lines={colours.map((each) => ofLine(legend, each.line)!)}
        shape={shape}
        chosen={line}
        onChoose={(each) => onChoose(each.line)}
        beside={({ line: own }) => {
          const colour = colours.find((each) => each.line === own)!;
          return `${many(colour.placements)} for ${many(colour.drills)}`;
        }}
      />
    </>
  );
}
