import { useEffect, useState } from 'react';
import type { ChangeReport } from '../../core/corrections/facts';
import { inWords, sendJson } from '../writing/api';

/** While somebody types, nothing is asked. */
const QUIET_MS = 250;

/**
 * What a correction of the facts would cost, asked of the server.
 * @param wish the facts that differ, as JSON; null where there is nothing to ask
 * @returns of just this wish: an answer about one that was typed before says nothing of it, however late it comes
 */
export function useChangeReport(
  canvasId: string,
  wish: string | null,
): { report: ChangeReport | null; fault: string | null } {
  const [answer, setAnswer] = useState<{ of: string; report: ChangeReport | null; fault: string | null }>();
  useEffect(() => {
    if (wish === null) return;
    const timer = setTimeout(() => {
      sendJson<ChangeReport>('POST', `/api/canvases/${canvasId}/change-report`, JSON.parse(wish)).then(
        (report) => setAnswer({ of: wish, report, fault: null }),
        (error: unknown) => setAnswer({ of: wish, report: null, fault: inWords(error) }),
      );
    }, QUIET_MS);
    return () => clearTimeout(timer);
  }, [canvasId, wish]);
  return answer && answer.of === wish ? answer : { report: null, fault: null };
}
