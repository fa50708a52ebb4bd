import { useRef, useState } from 'react';
import type { ShotPlan } from '../../core/reading/shotPlan';
import type { ReadingView } from '../../server/reading/contract';
import { Dialog } from '../../ui/Dialog';
import { Labelled } from '../../ui/Labelled';
import { mayBeSimulated } from '../../ui/standIns';
import { getJson, inWords, sendFile, sendJson } from '../writing/api';
import { simulatedPhoto } from './simulated';
import { addressOfReading } from './useReading';

interface Subject {
  id: string;
  title: string;
  width: number;
  height: number;
}

/** Pixels of a square in photos of the stand-in: of those that read well, few, for they are taken sooner. */
const CELL_PX = 32;

/** Takes photos of a canvas of the shelf with the camera that ships with Oculent; shown only where that is switched on. */
export function SimulatedCamera({
  canvasId,
  plan,
  onTaken,
  onFault,
}: {
  canvasId: string;
  plan: ShotPlan;
  onTaken: (view: ReadingView) => void;
  onFault: (words: string) => void;
}) {
  const dialog = useRef<HTMLDialogElement>(null);
  const [subjects, setSubjects] = useState<Subject[]>([]);
  const [of, setOf] = useState('');
  const [level, setLevel] = useState('normal');
  const [marked, setMarked] = useState(true);
  const [taking, setTaking] = useState<string | null>(null);
  if (!mayBeSimulated()) return null;
  const base = addressOfReading(canvasId);
  const open = async () => {
    dialog.current?.showModal();
    const shelf = await getJson<{ canvas: Subject; hasChart: boolean }[]>('/api/canvases').catch(() => []);
    const all = shelf.filter(({ hasChart }) => hasChart).map(({ canvas }) => canvas);
    setSubjects(all);
    setOf((before) => before || (all.find(({ id }) => id === canvasId) ?? all[0])?.id || '');
  };
  const take = async () => {
    try {
      for (const [i, rect] of plan.shots.entries()) {
        setTaking(`Taking photo ${i + 1} of ${plan.shots.length}…`);
        const wish = { of, level, seed: 1 + i, px: CELL_PX, ...rect };
        const { photo, corners } = await simulatedPhoto(canvasId, wish);
        const id = crypto.randomUUID();
        const name = new URLSearchParams({ id, name: `Simulated ${i + 1}` });
        let view = await sendFile<ReadingView>('POST', `${base}/photos?${name}`, photo, 'image/jpeg');
        if (marked) {
          view = await sendJson<ReadingView>('PATCH', `${base}/photos/${id}`, {
            corners: corners[0],
            columns: rect.width,
            rows: rect.height,
            at: i === 0 ? { column: rect.x, row: rect.y } : null,
          });
        }
        onTaken(view);
      }
      dialog.current?.close();
    } catch (error) {
      onFault(inWords(error));
      dialog.current?.close();
    } finally {
      setTaking(null);
    }
  };
  return (
    <>
      <button type="button" className="button" onClick={() => void open()}>
        Simulated camera
      </button>
      <Dialog title="Simulated camera" width={30} handle={dialog}>
        <div className="flex flex-col gap-3">
          <p>Takes the {plan.shots.length} photos of the plan, of a canvas on this shelf that has a chart.</p>
          <Labelled words="Canvas before the camera">
            <select className="field" value={of} onChange={(event) => setOf(event.target.value)}>
              {subjects.map(({ id, title }) => (
                <option key={id} value={id}>
                  {title}
                </option>
              ))}
            </select>
          </Labelled>
          <Labelled words="How they are taken">
            <select className="field" value={level} onChange={(event) => setLevel(event.target.value)}>
              <option value="easy">With a calm hand by daylight</option>
              <option value="normal">On a usual evening</option>
              <option value="hard">Badly: waves, shadow and glare</option>
            </select>
          </Labelled>
          <label className="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              className="size-5 accent-accent"
              checked={marked}
              onChange={(event) => setMarked(event.target.checked)}
            />
            With their corners marked
          </label>
          {taking && <p aria-live="polite">{taking}</p>}
          <button
            type="button"
            className="button button-main self-start"
            disabled={taking !== null || of === ''}
            onClick={() => void take()}
          >
            Take them
          </button>
        </div>
      </Dialog>
    </>
  );
}
