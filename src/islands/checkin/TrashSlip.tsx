import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { many } from '../../core/words/numbers';
import type { CheckinView } from '../../server/checkin/contract';
import { trashSchema } from '../../server/checkin/contract';

/** How many drills are thrown out, as learned so far, and a place to record more. */
export function TrashSlip({
  trash,
  onRecord,
}: {
  trash: CheckinView['trash'];
  onRecord: (record: { handled: number; thrown: number }) => Promise<unknown>;
}) {
  const form = useForm({
    resolver: yupResolver(trashSchema.omit(['id'])),
    defaultValues: { handled: '' as unknown as number, thrown: '' as unknown as number },
  });
  const fault = form.formState.errors.handled?.message ?? form.formState.errors.thrown?.message;
  return (
    <details className="slip !py-2">
      <summary className="min-h-11 py-2 font-semibold">
        Trash share {(trash.share * 100).toFixed(1)} %, from {many(trash.handled)} pieces
      </summary>
      <form
        noValidate
        onSubmit={form.handleSubmit(async (record) => {
          await onRecord(record);
          form.reset();
        })}
      >
        <p className="mb-2 text-[0.95rem]">
          It starts at 3 % and learns from what you record: misshapen, holed, tabbed or fused drills among
          those you looked at.
        </p>
        <div className="flex items-end gap-2">
          <label className="block">
            <span className="text-[0.95rem]">Thrown out</span>
            <input className="field number" inputMode="numeric" {...form.register('thrown')} />
          </label>
          <label className="block">
            <span className="text-[0.95rem]">of pieces</span>
            <input className="field number" inputMode="numeric" {...form.register('handled')} />
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
    </details>
  );
}
