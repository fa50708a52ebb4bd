import { otherScreensInWords } from '../../core/devices/device';
import { MonitorSmartphone } from '../../ui/icons';
import { usePresent } from './useLive';

/** In a word: on which other devices the canvas is open too. */
export function Present({ canvasId }: { canvasId: string }) {
  const names = usePresent(canvasId);
  if (names.length === 0) return null;
  const words = `Also open at ${otherScreensInWords(names)}`;
  return (
    <p className="flex items-center gap-1.5 text-faded" role="status" title={words}>
      <MonitorSmartphone size={20} aria-hidden className="shrink-0" />
      <span className="max-xl:sr-only">{words}</span>
    </p>
  );
}
