import { useCallback, useState } from 'react';
import type { LivePart } from '../live/shownParts';
import { canvasOfUrl, useLive } from '../live/useLive';
import { usePatientAsk } from './patientAsk';

/**
 * A view that came with the page. The page was made before this screen had a name, by which undo goes: so the view is
 * asked for once more. Later it follows what other screens do. Until an answer comes what is there is shown on.
 * @param parts of the canvas that the view shows
 */
export function useView<View>(
  url: string,
  first: View,
  parts: readonly LivePart[],
): [View, (next: View) => void] {
  const [view, setView] = useState(first);
  const asking = usePatientAsk<View>(url, setView);
  const show = useCallback(
    (next: View) => {
      setView(next);
      // What is still to come may have been read before this, or tell what this does not know yet: only a later answer does.
      if (asking.current?.isOpen) asking.current.ask();
    },
    [asking],
  );
  useLive(canvasOfUrl(url), parts, () => asking.current?.ask());
  return [view, show];
}
