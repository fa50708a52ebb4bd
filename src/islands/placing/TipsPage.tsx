import { useState } from 'react';
import type { OwnTip } from '../../core/placing/tips';
import { useReadAnew } from '../writing/useView';
import { TipCase } from './TipCase';

/** The tips of all pens, for every canvas. */
export function TipsPage({ first }: { first: OwnTip[] }) {
  const [own, setOwn] = useState(first);
  const overtakes = useReadAnew<{ tips: OwnTip[] }>('/api/tips', ['other'], ({ tips }) => setOwn(tips));
  return (
    <div className="max-w-xl">
      <p className="mb-3">
        Every plan of placements goes by these. Which further one would earn its place stands under Placing,
        for each canvas.
      </p>
      <TipCase
        own={own}
        shape="both"
        onChange={(tips) => {
          setOwn(tips);
          overtakes();
        }}
      />
    </div>
  );
}
