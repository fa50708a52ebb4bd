import { useCallback, useState } from 'react';
import type { LivePart } from '../live/shownParts';
import { canvasOfUrl, useLive } from '../live/useLive';
import { usePatientAsk } from './patientAsk';

/**
 * Reads an address anew when another screen changed what it tells of.
 * @param parts of the canvas that it tells of
 * @param come is handed each answer, as of the newest render
 * @param atOnce asks also when the page opens
 * @returns to be called when an answer to a write of this page is shown: what is still to come may have been read before
 * it, or tell what it does not know yet; only a later answer does
 */
export function useReadAnew<View>(
  url: string,
  parts: readonly LivePart[],
  come: (view: View) => void,
  atOnce = false,
): () => void {
  const asking = usePatientAsk<View>(url, come, undefined, atOnce);
  useLive(canvasOfUrl(url), parts, () => asking.current?.ask());
  return useCallback(() => asking.current?.overtaken(), [asking]);
}

/**
 * A view that came with the page. The page was made before this screen had a name, by which undo goes: so the view is
 * asked for once more. Later it follows what other screens do. Until an answer comes what is there is shown on.
 * @param parts of the canvas that the view shows
 * @returns the view, and shows what a write was answered with
 */
export function useView<View extends object | string>(
  url: string,
  first: View,
  parts: readonly LivePart[],
): [View, (next: View | ((before: View) => View)) => void] {
  const [view, setView] = useState(first);
  const overtakes = useReadAnew<View>(url, parts, setView, true);
  const show = useCallback(
    (next: View | ((before: View) => View)) => {
      setView(next);
      overtakes();
    },
    [overtakes],
  );
  return [view, show];
}
