import type { ReadingView } from '../../server/reading/contract';
import { mayBeSimulated } from '../../ui/standIns';
import { inWords, sendFile, sendJson } from '../writing/api';
import { simulatedPhoto } from './simulated';
import { addressOfReading } from './useReading';

/** A photo of this canvas's colour list by the stand-in camera, its first column marked; only where that is switched on. */
export function SimulatedList({
  canvasId,
  onTaken,
  onFault,
}: {
  canvasId: string;
  onTaken: (view: ReadingView) => void;
  onFault: (words: string) => void;
}) {
  if (!mayBeSimulated()) return null;
  const base = addressOfReading(canvasId);
  const take = async () => {
    try {
      const { photo, corners } = await simulatedPhoto(canvasId, { of: canvasId, what: 'list' });
      const id = crypto.randomUUID();
      const query = new URLSearchParams({ id, kind: 'list', name: 'Simulated list' });
      await sendFile('POST', `${base}/photos?${query}`, photo, 'image/jpeg');
      onTaken(await sendJson<ReadingView>('PATCH', `${base}/photos/${id}`, { corners: corners[0] }));
    } catch (error) {
      onFault(inWords(error));
    }
  };
  return (
    <button type="button" className="button" onClick={() => void take()}>
      Simulated camera
    </button>
  );
}
