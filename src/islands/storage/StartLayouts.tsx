import { STARTING_LAYOUTS, startStorage } from '../../core/storage/drawStorage';
import { slotsInOrder } from '../../core/storage/storage';
import { counted } from '../../core/words/numbers';
import { Notice } from '../../ui/Notice';
import { useWrite } from '../writing/useWrite';
import { TrayOutline } from './TrayOutline';

/** Generic cases to start from, drawn small. */
export function StartLayouts({ onAdded }: { onAdded: (id: string) => void }) {
  const { busy, fault, write } = useWrite();
  const add = (layout: (typeof STARTING_LAYOUTS)[number]) => {
    const storage = startStorage(crypto.randomUUID(), layout, layout.name);
    void write('PUT', `/api/storages/${storage.id}`, storage, () => onAdded(storage.id));
  };
  return (
    <div className="flex flex-col gap-3">
      {fault && <Notice kind="fault">{fault}</Notice>}
      <ul className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(13rem,1fr))]">
        {STARTING_LAYOUTS.map((layout) => {
          const trays = layout.make();
          return (
            <li key={layout.key}>
              <button
                type="button"
                className="button flex size-full !flex-col !items-start !justify-between gap-2 text-left"
                disabled={busy}
                onClick={() => add(layout)}
              >
                <span className="flex h-28 w-full items-center justify-center gap-2">
                  {trays.map((tray, t) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: trays have no name but their place
                    <TrayOutline key={t} tray={tray} />
                  ))}
                </span>
                <span>
                  {layout.name}
                  <span className="block font-normal text-faded">
                    {counted(slotsInOrder(trays).length, 'slot')}
                  </span>
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
