import type { OwnTip } from '../../core/placing/tips';
import { TipCase } from './TipCase';
import { useOwnTips } from './useOwnTips';

/** The tips of all pens, for every canvas. */
export function TipsPage({ first }: { first: OwnTip[] }) {
  const [own, setOwn] = useOwnTips(first);
  return (
    <div className="max-w-xl">
      <p className="mb-3">
        Every plan of placements goes by these. Which further one would earn its place stands under Placing,
        for each canvas.
      </p>
      <TipCase own={own} shape="both" onChange={setOwn} />
    </div>
  );
}
