import type { OwnTip } from '../../core/placing/tips';
import { useView } from '../writing/useView';
import { TipCase } from './TipCase';

/** The tips of all pens, for every canvas. */
export function TipsPage({ first }: { first: OwnTip[] }) {
  const [{ tips }, show] = useView('/api/tips', { tips: first }, ['other']);
  return (
    <div className="max-w-xl">
      <p className="mb-3">
        Every plan of placements goes by these. Which further one would earn its place stands under Placing,
        for each canvas.
      </p>
      <TipCase own={tips} shape="both" onChange={(next) => show({ tips: next })} />
    </div>
  );
}
