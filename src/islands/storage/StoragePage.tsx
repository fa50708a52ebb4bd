import { useState } from 'react';
import { type Storage, slotsInOrder } from '../../core/storage/storage';
import { counted } from '../../core/words/numbers';
import type { TakenSlotView } from '../../server/storage/contract';
import { Notice } from '../../ui/Notice';
import { ApiProblem, getJson, inWords, removeWithAnswer, sendJson } from '../writing/api';
import { CaseEditor } from './CaseEditor';
import { StartLayouts } from './StartLayouts';
import { TrayOutline } from './TrayOutline';

/** The cases, strips, bottles and baggies that the user owns, with what is in them. */
export function StoragePage({ first, taken }: { first: Storage[]; taken: TakenSlotView[] }) {
  const [storages, setStorages] = useState(first);
  const [editing, setEditing] = useState<Storage | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const attempt = async (work: () => Promise<Storage[]>) => {
    setFault(null);
    try {
      setStorages(await work());
      return true;
    } catch (error) {
      setFault(error instanceof ApiProblem ? error.message : inWords(error));
      return false;
    }
  };
  if (editing) {
    return (
      <CaseEditor
        first={editing}
        fault={fault}
        onKeep={async (storage) => {
          const url = `/api/storages/${storage.id}`;
          if (await attempt(() => sendJson<Storage[]>('PUT', url, storage))) setEditing(null);
        }}
        onLeave={() => setEditing(null)}
        onGiveAway={async () => {
          if (await attempt(() => removeWithAnswer<Storage[]>(`/api/storages/${editing.id}`)))
            setEditing(null);
        }}
      />
    );
  }
  return (
    <div className="flex flex-col gap-6">
      {fault && <Notice kind="fault">{fault}</Notice>}
      {storages.length > 0 && (
        <ul className="grid gap-4 [grid-template-columns:repeat(auto-fill,minmax(20rem,1fr))]">
          {storages.map((storage) => (
            <li key={storage.id} className="slip flex flex-col gap-2.5">
              <h2>{storage.name}</h2>
              <div className="flex h-40 items-center justify-center gap-3">
                {storage.trays.map((tray, t) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: trays have no name but their place
                  <TrayOutline key={t} tray={tray} />
                ))}
              </div>
              <InUse storage={storage} taken={taken} />
              <button type="button" className="button mt-auto self-start" onClick={() => setEditing(storage)}>
                Redraw {storage.name}
              </button>
            </li>
          ))}
        </ul>
      )}
      <section>
        <h2 className="mb-2">{storages.length === 0 ? 'Start with a case like yours' : 'Another case'}</h2>
        <StartLayouts
          onAdded={(id) =>
            void attempt(async () => {
              const all = await getJson<Storage[]>('/api/storages');
              setEditing(all.find((storage) => storage.id === id) ?? null);
              return all;
            })
          }
        />
      </section>
    </div>
  );
}

/** Which kits are in a case, and what is free. */
function InUse({ storage, taken }: { storage: Storage; taken: TakenSlotView[] }) {
  const slots = slotsInOrder(storage.trays).length;
  const mine = taken.filter((slot) => slot.storageId === storage.id);
  const kits = [...new Map(mine.map((slot) => [slot.canvasId, slot.title]))];
  return (
    <div>
      <p>
        <span className="big-number !text-[1.7rem]">{slots - mine.length}</span> of {counted(slots, 'slot')}{' '}
        free
      </p>
      {kits.map(([id, title]) => (
        <p key={id}>
          <a className="underline" href={`/canvas/${id}/kitup`}>
            {title}
          </a>
          : {mine.filter((slot) => slot.canvasId === id).length}
        </p>
      ))}
    </div>
  );
}
