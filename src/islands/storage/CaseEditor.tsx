import equal from 'fast-deep-equal';
import { useState } from 'react';
import type { CellRect } from '../../core/cells/chart';
import { drawSlot, eraseSlots, fillWithSlots, resizeTray, slotIds } from '../../core/storage/drawStorage';
import { renumbered, renumberedInWords } from '../../core/storage/redraw';
import {
  calibratedShare,
  MAX_TRAYS,
  SLOT_FORMS,
  type SlotForm,
  type Storage,
  slotsInOrder,
  type Tray,
} from '../../core/storage/storage';
import { counted, many } from '../../core/words/numbers';
import type { TakenSlotView } from '../../server/storage/contract';
import { storageSchema } from '../../server/storage/contract';
import { Eraser, Grid3x3, MousePointer2, Square } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { useAsksBeforeLeaving } from '../../ui/useAsksBeforeLeaving';
import { inWords } from '../writing/api';
import { Calibration } from './Calibration';
import { CaseBoard } from './CaseBoard';
import { TrayMeasures } from './TrayMeasures';

type Hand = 'choose' | 'slot' | 'fill' | 'erase';
const HANDS: [Hand, string, typeof Square][] = [
  ['choose', 'Choose', MousePointer2],
  ['slot', 'One slot', Square],
  ['fill', 'Many small', Grid3x3],
  ['erase', 'Erase', Eraser],
];
const FORM_WORDS: Record<SlotForm, string> = { box: 'square', round: 'round', bag: 'bag' };

/** The kit that capacities are shown for: square drills of the usual pitch. */
const USUAL_KIT = { shape: 'square', pitchMm: 2.5 } as const;

/** A case on the drawing board. What another screen makes of it meanwhile is neither lost nor drawn over unseen. */
export function CaseEditor({
  first,
  now,
  inUse,
  fault,
  onKeep,
  onLeave,
  onDelete,
}: {
  first: Storage;
  /** The case as it is kept by now; null where it was deleted. */
  now: Storage | null;
  /** Its pots that hold a colour, or are planned to. */
  inUse: TakenSlotView[];
  fault: string | null;
  /** `before` is what the drawing takes the place of; undefined for whatever is there. */
  onKeep: (storage: Storage, before: Storage | undefined) => void;
  onLeave: () => void;
  onDelete: () => void;
}) {
  const [storage, setStorage] = useState(first);
  const [before, setBefore] = useState<Storage[]>([]);
  /** What this drawing takes the place of, as far as its owner knows. */
  const [base, setBase] = useState<Storage | null>(first);
  const isOther = !equal(now, base) && !equal(now, storage);
  useAsksBeforeLeaving(!equal(storage, base));
  const [hand, setHand] = useState<Hand>('slot');
  const [form, setForm] = useState<SlotForm>(first.trays[0]?.slots[0]?.form ?? 'box');
  const [chosen, setChosen] = useState<{ tray: number; slot: string } | null>(null);
  const [shareFault, setShareFault] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const change = (next: Storage) => {
    setBefore([...before.slice(-49), storage]);
    setStorage(next);
  };
  const changeTray = (at: number, tray: Tray) =>
    change({ ...storage, trays: storage.trays.map((each, t) => (t === at ? tray : each)) });
  const onRect = (at: number, rect: CellRect) => {
    const tray = storage.trays[at]!;
    const freshId = slotIds([first, ...before, storage].flatMap(({ trays }) => trays));
    if (hand === 'erase') changeTray(at, eraseSlots(tray, rect));
    else if (hand === 'slot') changeTray(at, drawSlot(tray, rect, form, freshId));
    else changeTray(at, fillWithSlots(eraseSlots(tray, rect), rect, { width: 1, height: 1 }, form, freshId));
  };
  const calibrate = (drills: number) => {
    const tray = chosen && storage.trays[chosen.tray];
    const slot = tray?.slots.find(({ id }) => id === chosen?.slot);
    if (!tray || !slot) return;
    try {
      setShareFault(null);
      change({ ...storage, packingShare: calibratedShare(tray, slot, drills, USUAL_KIT) });
    } catch (error) {
      setShareFault(inWords(error));
    }
  };
  const keep = () => {
    try {
      storageSchema.validateSync(storage);
      setWrong(null);
      onKeep(storage, base ?? undefined);
    } catch (error) {
      setWrong(error instanceof Error ? error.message : String(error));
    }
  };
  const slots = slotsInOrder(storage.trays);
  const renumbering = renumberedInWords(renumbered(first.trays, storage.trays, inUse));
  const chosenSlot = chosen && storage.trays[chosen.tray]?.slots.find(({ id }) => id === chosen.slot);
  const number = slots.find(({ slot, tray }) => tray === chosen?.tray && slot.id === chosen.slot)?.number;

  return (
    <div className="grid items-start gap-6 lg:grid-cols-[21rem_1fr]">
      <section className="flex flex-col gap-3" aria-label="The case">
        {isOther && (
          <OtherDrawing
            deleted={now === null}
            onMine={() => setBase(now)}
            onTheirs={() => {
              if (now === null) return onLeave();
              change(now);
              setBase(now);
            }}
          />
        )}
        <p className="big-number">{counted(slots.length, 'slot')}</p>
        <label className="block">
          <span className="mb-1 block font-semibold">Name of the case</span>
          <input
            className="field"
            value={storage.name}
            maxLength={60}
            onChange={(event) => setStorage({ ...storage, name: event.target.value })}
          />
        </label>
        <fieldset>
          <legend className="mb-1 font-semibold">Drawing on the tray</legend>
          <div className="grid grid-cols-2 gap-2">
            {HANDS.map(([each, words, Icon]) => (
              <button
                key={each}
                type="button"
                aria-pressed={hand === each}
                className={`button ${hand === each ? 'button-on' : ''}`}
                onClick={() => setHand(each)}
              >
                <Icon size={18} aria-hidden /> {words}
              </button>
            ))}
          </div>
        </fieldset>
        <fieldset>
          <legend className="mb-1 font-semibold">New slots are</legend>
          <div className="flex gap-2">
            {SLOT_FORMS.map((each) => (
              <button
                key={each}
                type="button"
                aria-pressed={form === each}
                className={`button grow ${form === each ? 'button-on' : ''}`}
                onClick={() => setForm(each)}
              >
                {FORM_WORDS[each]}
              </button>
            ))}
          </div>
        </fieldset>
        <p className="text-[0.95rem] text-faded">
          Drag from one dot to another, or use the arrow keys, Shift to spread, Enter to draw. The small
          number is what a slot takes of square drills of 2.5 mm,{' '}
          {many(Math.round(storage.packingShare * 100))} % of its room.
        </p>
        <Calibration
          number={number ?? null}
          disabled={!chosenSlot}
          fault={shareFault}
          onCalibrate={calibrate}
        />
        {renumbering && <Notice kind="hint">{renumbering}</Notice>}
        {!isOther && (wrong ?? fault) && <Notice kind="fault">{wrong ?? fault}</Notice>}
        <div className="flex flex-wrap gap-2">
          <button type="button" className="button button-main grow" disabled={isOther} onClick={keep}>
            Save this case
          </button>
          <button
            type="button"
            className="button"
            disabled={before.length === 0}
            onClick={() => {
              setStorage(before.at(-1)!);
              setBefore(before.slice(0, -1));
            }}
          >
            Undo
          </button>
          <button type="button" className="button" onClick={onLeave}>
            Cancel
          </button>
          <button type="button" className="button" onClick={onDelete}>
            Delete this case
          </button>
        </div>
      </section>
      <section className="flex min-w-0 flex-col gap-6" aria-label="Trays">
        {storage.trays.map((tray, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: trays have no name but their place
          <div key={at} className="flex flex-col gap-3">
            <TrayMeasures
              tray={tray}
              number={at + 1}
              trays={storage.trays.length}
              onChange={(next) =>
                changeTray(
                  at,
                  next.columns === tray.columns && next.rows === tray.rows
                    ? next
                    : resizeTray(next, next.columns, next.rows),
                )
              }
              onRemove={() => change({ ...storage, trays: storage.trays.filter((_, t) => t !== at) })}
            />
            <CaseBoard
              storage={storage}
              index={at}
              kit={USUAL_KIT}
              hand={hand}
              chosen={chosen?.tray === at ? chosen.slot : null}
              onRect={(rect) => onRect(at, rect)}
              onChoose={(slot) => setChosen(slot === null ? null : { tray: at, slot })}
            />
          </div>
        ))}
        {storage.trays.length < MAX_TRAYS && (
          <button
            type="button"
            className="button self-start"
            onClick={() =>
              change({ ...storage, trays: [...storage.trays, { ...storage.trays.at(-1)!, slots: [] }] })
            }
          >
            Another tray
          </button>
        )}
      </section>
    </div>
  );
}

/** Another screen drew this case anew or deleted it: both are there until the user chooses. */
function OtherDrawing({
  deleted,
  onMine,
  onTheirs,
}: {
  deleted: boolean;
  onMine: () => void;
  onTheirs: () => void;
}) {
  return (
    <Notice kind="fault">
      <p>
        {deleted
          ? 'This case was deleted on another screen since you began to draw.'
          : 'This case was changed on another screen since you began to draw.'}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <button type="button" className="button" onClick={onMine}>
          Keep mine
        </button>
        <button type="button" className="button" onClick={onTheirs}>
          {deleted ? 'Let it go' : 'Show the other one'}
        </button>
      </div>
    </Notice>
  );
}
