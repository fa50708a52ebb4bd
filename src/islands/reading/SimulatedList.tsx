import type { ReadingView } from '../../server/reading/contract';
import { inWords, sendFile, sendJson } from '../writing/api';
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
  if (document.documentElement.dataset.simulated === undefined) return null;
  const base = addressOfReading(canvasId);
  const take = async () => {
    try {
      const response = await fetch(`${base}/simulated.jpg?of=${canvasId}&what=list`);
      if (!response.ok) throw new Error('The simulated camera took no photo.');
      const id = crypto.randomUUID();
      const query = new URLSearchParams({ id, kind: 'list', name: 'Simulated list' });
      await sendFile('POST', `${base}/photos?${query}`, await response.blob(), 'image/jpeg');
      const [corners] = JSON.parse(response.headers.get('x-oculent-corners') ?? '[]') as unknown[];
      onTaken(await sendJson<ReadingView>('PUT', `${base}/photos/${id}`, { corners }));
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
