import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { momentInWords } from '../../core/words/moments';
import { many } from '../../core/words/numbers';
import type { CheckinView, TrashRecordView } from '../../server/checkin/contract';
import { trashSchema } from '../../server/checkin/contract';
import { NumberField } from '../../ui/NumberField';
import { TermWord } from '../../ui/TermWord';
import { asNumber } from '../../ui/typedNumber';

/** Bad drills to be recorded, or what is said anew of a record. */
export interface TrashWish {
  handled: number;
  thrown: number;
  replaces?: string;
  removed?: boolean;
}

/** How many drills are thrown out, as learned so far, and a place to record more. */
export function TrashSlip({
  trash,
  records,
  onRecord,
}: {
  trash: CheckinView['trash'];
  records: readonly TrashRecordView[];
  /** `refused` is told where it was not taken. */
  onRecord: (record: TrashWish, refused?: () => void) => void;
}) {
  const form = useForm({
    resolver: yupResolver(trashSchema.pick(['handled', 'thrown'])),
    defaultValues: { handled: '' as unknown as number, thrown: '' as unknown as number },
  });
  const fault = form.formState.errors.handled?.message ?? form.formState.errors.thrown?.message;
  return (
    <details className="slip !py-2">
      <summary className="min-h-11 py-2 font-semibold">
        Bad drills {(trash.share * 100).toFixed(1)} %, from {many(trash.handled)} drills
      </summary>
      <form
        noValidate
        onSubmit={form.handleSubmit((record) => {
          // At once: a late answer would wipe what is typed next. What is refused stands there again.
          form.reset();
          onRecord(record, () => {
            const typed = Object.values(form.getValues()).some((value) => `${value ?? ''}` !== '');
            if (!typed) form.reset(record, { keepDefaultValues: true });
          });
        })}
      >
        <p className="mb-2 text-[0.95rem]">
          <TermWord term="bad drills">Bad drills</TermWord> start at 3 %, and the share learns from what you
          enter: misshapen, holed, tabbed or fused drills among those you looked at.
        </p>
        <div className="flex items-end gap-2">
          <label className="block">
            <span className="text-[0.95rem]">Thrown out</span>
            <input
              className="field number"
              inputMode="numeric"
              {...form.register('thrown', asNumber('whole'))}
            />
          </label>
          <label className="block">
            <span className="text-[0.95rem]">of drills</span>
            <input
              className="field number"
              inputMode="numeric"
              {...form.register('handled', asNumber('whole'))}
            />
          </label>
          <button type="submit" className="button">
            Record
          </button>
        </div>
        {fault && (
          <p role="alert" className="mt-1 font-medium text-alarm">
            {fault}
          </p>
        )}
      </form>
      <ul className="flex flex-col divide-y divide-line">
        {records.map((record) => (
          <TrashRecord key={record.id} record={record} onRecord={onRecord} />
        ))}
      </ul>
    </details>
  );
}

/** One record; its numbers can be corrected, and it can be removed and brought back. */
function TrashRecord({
  record,
  onRecord,
}: {
  record: TrashRecordView;
  onRecord: (record: TrashWish) => void;
}) {
  const [edited, setEdited] = useState<{ handled: number; thrown: number } | null>(null);
  const { id, handled, thrown, removed } = record;
  const say = (what: Partial<TrashWish>) => {
    setEdited(null);
    onRecord({ handled, thrown, replaces: id, removed: false, ...what });
  };
  return (
    <li className={`flex flex-wrap items-end gap-2 py-2 ${removed ? 'text-faded' : ''}`}>
      {edited ? (
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            say(edited);
          }}
        >
          <NumberField
            words="Thrown out"
            className="[&_input]:!w-24"
            value={edited.thrown}
            least={0}
            most={edited.handled}
            whole
            onChange={(next) => setEdited({ ...edited, thrown: next })}
          />
          <NumberField
            words="of drills"
            className="[&_input]:!w-24"
            value={edited.handled}
            least={Math.max(1, edited.thrown)}
            most={1_000_000}
            whole
            onChange={(next) => setEdited({ ...edited, handled: next })}
          />
          <button type="submit" className="button">
            Save
          </button>
        </form>
      ) : (
        <>
          <p className="grow py-2">
            {removed && 'Removed: '}
            <span className="number">{many(thrown)}</span> of <span className="number">{many(handled)}</span>,{' '}
            {momentInWords(new Date(record.happenedAt), new Date())}
          </p>
          {removed ? (
            <button type="button" className="button" onClick={() => say({ removed: false })}>
              Bring back
            </button>
          ) : (
            <>
              <button type="button" className="button" onClick={() => setEdited({ handled, thrown })}>
                Edit
              </button>
              <button type="button" className="button" onClick={() => say({ removed: true })}>
                Remove
              </button>
            </>
          )}
        </>
      )}
    </li>
  );
}
