import { useCallback, useEffect, useRef, useState } from 'react';
import type { LivePart } from '../live/shownParts';
import { canvasOfUrl, useLive } from '../live/useLive';
import { getJson } from './api';

/**
 * A view that came with the page. The page was made before this screen had a name, by which undo goes: so the view is
 * asked for once more, and that answer is dropped when something newer is shown by then. Later it follows what other
 * screens do.
 * @param parts of the canvas that the view shows
 */
export function useView<View>(
  url: string,
  first: View,
  parts: readonly LivePart[],
): [View, (next: View) => void] {
  const [view, setView] = useState(first);
  const touched = useRef(false);
  const show = useCallback((next: View) => {
    touched.current = true;
    setView(next);
  }, []);
  useEffect(() => {
    getJson<View>(url).then(
      (next) => {
        if (!touched.current) setView(next);
      },
      // What came with the page is shown on.
      () => {},
    );
  }, [url]);
  const asked = useRef(0);
  useLive(canvasOfUrl(url), parts, () => {
    const mine = ++asked.current;
    getJson<View>(url).then(
      (next) => mine === asked.current && show(next),
      () => {},
    );
  });
  return [view, show];
}
