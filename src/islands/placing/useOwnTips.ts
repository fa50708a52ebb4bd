import { useState } from 'react';
import type { OwnTip } from '../../core/placing/tips';
import { useSame } from '../../ui/useSame';
import { useReadAnew } from '../writing/useView';

/** The tips that the user owns, as this page and other screens have changed them. */
export function useOwnTips(first: OwnTip[]): [OwnTip[], (tips: OwnTip[]) => void] {
  const [told, setTold] = useState(first);
  const overtakes = useReadAnew<{ tips: OwnTip[] }>(
    '/api/tips',
    ['other'],
    ({ tips }) => setTold(tips),
    true,
  );
  // Told once more as they were, they ask for no new plan.
  const own = useSame(told);
  return [
    own,
    (tips) => {
      setTold(tips);
      overtakes();
    },
  ];
}
