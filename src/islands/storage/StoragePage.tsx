import { useState } from 'react';
import { caseUse, type Storage } from '../../core/storage/storage';
import { counted } from '../../core/words/numbers';
import type { TakenSlotView } from '../../server/storage/contract';
import { Notice } from '../../ui/Notice';
import { getJson } from '../writing/api';
import { useView } from '../writing/useView';
import { useWrite } from '../writing/useWrite';
import { CaseEditor } from './CaseEditor';
import { StartLayouts } from './StartLayouts';
import { TrayOutline } from './TrayOutline';

/** The cases, strips, bottles and baggies that the user owns, with what is in them. */
export function StoragePage({ first, taken: inUse }: { first: Storage[]; taken: TakenSlotView[] }) {
  const [storages, setStorages] = useView<Storage[]>('/api/storages', first, ['other']);
  const [taken, setTaken] = useState(inUse);
  const [editing, setEditing] = useState<Storage | null>(null);
  const { fault, write, act } = useWrite();
  const kept = (next: Storage[]) => {
    setStorages(next);
    setEditing(null);
  };
  const readAnew = () => void getJson<Storage[]>('/api/storages').then(setStorages, () => {});
  /** Opens a case as it is now, with what is in it now: this page may have been open since yesterday. */
  const edit = (id: string) =>
    void act(async () => {
      const [all, inUse] = await Promise.all([
        getJson<Storage[]>('/api/storages'),
        getJson<TakenSlotView[]>('/api/storages/in-use'),
      ]);
      setStorages(all);
      setTaken(inUse);
      setEditing(all.find((storage) => storage.id === id) ?? null);
    });
  if (editing) {
    return (
      <CaseEditor
        first={editing}
        now={storages.find(({ id }) => id === editing.id) ?? null}
        inUse={taken.filter(({ storageId }) => storageId === editing.id)}
        fault={fault}
        onKeep={(storage, before) =>
          void write('PUT', `/api/storages/${storage.id}`, { ...storage, before }, kept, false, readAnew)
        }
        onLeave={() => setEditing(null)}
        onDelete={() =>
          void write('DELETE', `/api/storages/${editing.id}`, undefined, () => {
            setEditing(null);
            // The page shows what was deleted; it is made anew with it, once nothing is drawn any more.
            setTimeout(() => window.location.reload());
          })
        }
      />
    );
  }
  return (
    <div className="flex flex-col gap-6">
      {fault && <Notice kind="fault">{fault}</Notice>}
      {storages.length > 0 && (
        <ul className="grid gap-4 [grid-template-columns:repeat(auto-fill,minmax(min(20rem,100%),1fr))]">
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
              <button
                type="button"
                className="button mt-auto self-start [overflow-wrap:anywhere]"
                onClick={() => edit(storage.id)}
              >
                Redraw {storage.name}
              </button>
            </li>
          ))}
        </ul>
      )}
      <section>
        <h2 className="mb-2">{storages.length === 0 ? 'Start with a case like yours' : 'Another case'}</h2>
        <StartLayouts onAdded={edit} />
      </section>
    </div>
  );
}

/** Which kits are in a case, and what is free. */
function InUse({ storage, taken }: { storage: Storage; taken: TakenSlotView[] }) {
  const { slots, free, kits } = caseUse(storage, taken);
  return (
    <div>
      <p>
        <span className="big-number !text-[1.7rem]">{free}</span> of {counted(slots, 'slot')} free
      </p>
      {kits.map(({ id, title, slots: own }) => (
        <p key={id}>
          <a className="underline" href={`/canvas/${id}/kitup`}>
            {title}
          </a>
          : {own}
        </p>
      ))}
    </div>
  );
}
