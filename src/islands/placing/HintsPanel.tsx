import { useState } from 'react';
import type { Shape } from '../../core/canvas/canvas';
import type { Finish } from '../../core/colour/finish';
import { adviceFor } from '../../core/placing/advice';
import type { PlacingPlan } from '../../core/placing/plan';
import type { OwnTip } from '../../core/placing/tips';
import { dismissedHints, keepDismissed } from './dismissedHints';

/** Short hints on tools that bear on this plan; each can be put away for good. */
export function HintsPanel({
  plan,
  shape,
  tips,
  finishes,
}: {
  plan: PlacingPlan;
  shape: Shape;
  tips: readonly OwnTip[];
  finishes: readonly Finish[];
}) {
  const [dismissed, setDismissed] = useState(dismissedHints);
  const keep = (keys: string[]) => {
    keepDismissed(keys);
    setDismissed(keys);
  };
  const all = adviceFor({ plan, shape, tips, finishes });
  const shown = all.filter(({ key }) => !dismissed.includes(key));
  return (
    <div className="flex min-h-0 grow flex-col gap-2 overflow-y-auto">
      {all.length === 0 && <p>Nothing to tell for this section.</p>}
      {shown.map(({ key, title, words }) => (
        <div key={key} className="slip !py-3">
          <div className="flex items-start justify-between gap-2">
            <h2 className="text-base font-semibold">{title}</h2>
            <button
              type="button"
              className="button"
              onClick={() => keep([...dismissed, key])}
              aria-label={`Hide the hint: ${title}`}
            >
              Hide
            </button>
          </div>
          <p>{words}</p>
        </div>
      ))}
      {shown.length < all.length && (
        <button type="button" className="button self-start" onClick={() => keep([])}>
          Show all hints again
        </button>
      )}
    </div>
  );
}
