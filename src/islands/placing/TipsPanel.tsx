import { useEffect, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { type CellPart, overlapOf } from '../../core/cells/rect';
import { KNOWN_TIPS, type OwnTip, type Tips } from '../../core/placing/tips';
import { savedBy, type TipWorth, tipsInWords, WIDEST_COMPARED } from '../../core/placing/tipsWorth';
import { many } from '../../core/words/numbers';
import { DataTable } from '../../ui/DataTable';
import { ToggleButton } from '../../ui/ToggleButton';
import { TipCase } from './TipCase';
import { TipsChart } from './TipsChart';

const SCOPES = { section: 'This section', panel: 'This panel', canvas: 'The canvas' } as const;
type Scope = keyof typeof SCOPES;

/** Which tips earn their place, and which are owned. */
export function TipsPanel({
  own,
  shape,
  tips,
  worth,
  comparing,
  section,
  canvas,
  onCompare,
  onChange,
}: {
  own: OwnTip[];
  shape: 'square' | 'round';
  tips: Tips;
  worth: TipWorth[];
  comparing: boolean;
  section: CellPart;
  canvas: Pick<Canvas, 'panelRects'>;
  onCompare: (pieces: readonly CellPart[]) => void;
  onChange: (own: OwnTip[]) => void;
}) {
  const [scope, setScope] = useState<Scope>('section');
  const panel = canvas.panelRects.find((rect) => overlapOf(rect, section));
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew for another piece, not with every render
  useEffect(() => {
    onCompare(scope === 'section' ? [section] : scope === 'panel' && panel ? [panel] : canvas.panelRects);
  }, [scope, section, canvas]);
  const scopes = (Object.keys(SCOPES) as Scope[]).filter(
    (each) => each !== 'panel' || canvas.panelRects.length > 1,
  );
  const owned = tips.at(-1)!;
  const all = worth.length === WIDEST_COMPARED;
  return (
    <div className="flex min-h-0 grow flex-col gap-3 overflow-y-auto" data-testid="tips">
      <fieldset className="flex flex-wrap gap-1" aria-label="For which part">
        {scopes.map((each) => (
          <ToggleButton key={each} on={scope === each} onChange={() => setScope(each)}>
            {SCOPES[each]}
          </ToggleButton>
        ))}
      </fieldset>
      <p aria-live="polite" className="font-semibold">
        {all
          ? tipsInWords(worth, tips)
          : comparing
            ? `Comparing tips, ${worth.length} of ${WIDEST_COMPARED}`
            : ''}
      </p>
      {all && worth[0]!.placements > 0 && (
        <>
          <TipsChart worth={worth} owned={owned} />
          <details>
            <summary className="min-h-11 cursor-pointer font-semibold">Tip by tip</summary>
            <DataTable
              caption="Placements with each tip"
              rows={worth.filter(({ tip }) => KNOWN_TIPS.includes(tip))}
              rowKey={({ tip }) => String(tip)}
              columns={[
                { key: 'tip', header: 'Tip', numeric: true, value: ({ tip }) => tip },
                {
                  key: 'placements',
                  header: 'Placements',
                  numeric: true,
                  value: ({ placements }) => placements,
                },
                {
                  key: 'alone',
                  header: 'Saves alone',
                  numeric: true,
                  value: ({ tip }) => savedBy(worth, 1, tip).placements,
                },
                {
                  key: 'beside',
                  header: 'Beside yours',
                  numeric: true,
                  value: ({ tip }) => Math.max(0, savedBy(worth, owned, tip).placements),
                  show: ({ tip }) =>
                    own.some(({ size }) => size === tip)
                      ? 'yours'
                      : many(Math.max(0, savedBy(worth, owned, tip).placements)),
                },
              ]}
            />
          </details>
        </>
      )}
      <TipCase own={own} shape={shape} onChange={onChange} />
    </div>
  );
}
