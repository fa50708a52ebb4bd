import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { type FieldError, type UseFormRegisterReturn, useForm } from 'react-hook-form';
import { type SizeUnit, sizeInWords, squaresTyped } from '../../core/canvas/canvas';
import { many } from '../../core/words/numbers';
import { newCanvasSchema } from '../../server/canvas/contract';
import { Notice } from '../../ui/Notice';
import { TermsHere } from '../../ui/TermsHere';
import { asNumber } from '../../ui/typedNumber';
import { useWrite } from '../writing/useWrite';

/** The slip that starts a canvas: title, shape, pitch, size. The sheet comes next. */
export function NewCanvas() {
  const { fault, write } = useWrite();
  const [unit, setUnit] = useState<SizeUnit>('cm');
  const [size, setSize] = useState({ width: '', height: '' });
  const form = useForm({
    resolver: yupResolver(newCanvasSchema),
    defaultValues: {
      id: crypto.randomUUID(),
      title: '',
      shape: 'square' as const,
      pitchMm: 2.5,
      panels: 1,
      symbolsPrinted: true,
      packetDrills: 200,
    },
  });
  const { errors, isSubmitting } = form.formState;
  const pitchMm = Number(form.watch('pitchMm'));
  const { width, height } = form.watch();

  const measure = (next: typeof size, nextUnit: SizeUnit) => {
    setSize(next);
    setUnit(nextUnit);
    // The pitch as it stands now: the one of the last look may be a figure behind.
    const pitchMm = Number(form.getValues('pitchMm'));
    for (const side of ['width', 'height'] as const) {
      const cells = squaresTyped(next[side], nextUnit, pitchMm || 2.5) ?? Number.NaN;
      form.setValue(side, cells, { shouldValidate: form.formState.isSubmitted });
    }
  };

  const save = form.handleSubmit(async (canvas) => {
    await write('POST', '/api/canvases', canvas, () =>
      window.location.assign(`/canvas/${canvas.id}/checkin/sheet`),
    );
  });

  return (
    <form onSubmit={save} noValidate className="slip flex max-w-2xl flex-col gap-4">
      <Field label="Title" error={errors.title} register={form.register('title')} autoFocus />
      <fieldset>
        <legend className="mb-1 font-semibold">Drills</legend>
        <div className="flex flex-wrap gap-6">
          {(['square', 'round'] as const).map((shape) => (
            <label key={shape} className="flex min-h-11 items-center gap-2">
              <input
                type="radio"
                value={shape}
                className="size-5 accent-accent"
                {...form.register('shape')}
              />
              {shape === 'square' ? 'Square' : 'Round'}
            </label>
          ))}
        </div>
      </fieldset>
      <div className="grid grid-cols-2 gap-4 sm:grid-cols-[1fr_1fr_8rem_8rem]">
        {(['width', 'height'] as const).map((side) => (
          <label key={side} className="block">
            <span className="mb-1.5 block font-semibold">{side === 'width' ? 'Width' : 'Height'}</span>
            <input
              className={`field number ${errors[side] ? 'field-fault' : ''}`}
              inputMode="decimal"
              value={size[side]}
              aria-invalid={errors[side] !== undefined}
              aria-describedby={errors[side] ? `${side}-fault` : undefined}
              onChange={(event) => measure({ ...size, [side]: event.target.value }, unit)}
            />
            <Fault id={`${side}-fault`} error={errors[side]} />
          </label>
        ))}
        <label className="block">
          <span className="mb-1.5 block font-semibold">Measured in</span>
          <select
            className="field"
            value={unit}
            onChange={(event) => measure(size, event.target.value as SizeUnit)}
          >
            <option value="cm">centimetres</option>
            <option value="in">inches</option>
            <option value="cells">squares</option>
          </select>
        </label>
        <Field
          label="Pitch, mm"
          error={errors.pitchMm}
          register={form.register('pitchMm', { ...asNumber('mm'), onChange: () => measure(size, unit) })}
          numeric
        />
      </div>
      {width > 0 && height > 0 && (
        <p className="number" aria-live="polite">
          {width} × {height} squares, {many(width * height)} in all:{' '}
          {sizeInWords({ width, height, pitchMm: pitchMm || 2.5 })}
        </p>
      )}
      <div className="grid gap-4 sm:grid-cols-2">
        <Field
          label="Panels side by side"
          error={errors.panels}
          register={form.register('panels', asNumber('whole'))}
          numeric
        />
        <Field
          label="Drills in an ordinary bag"
          error={errors.packetDrills}
          register={form.register('packetDrills', asNumber('whole'))}
          numeric
        />
      </div>
      <label className="flex min-h-11 items-center gap-3">
        <input type="checkbox" className="size-5 accent-accent" {...form.register('symbolsPrinted')} />
        The canvas has symbols printed on it
      </label>
      <TermsHere terms={['square', 'pitch', 'panel', 'bag']} />
      {fault && <Notice kind="fault">{fault}</Notice>}
      <button type="submit" className="button button-main self-start" disabled={isSubmitting}>
        Put it on the shelf, then read its colour list
      </button>
    </form>
  );
}

function Field({
  label,
  error,
  register,
  numeric = false,
  autoFocus = false,
}: {
  label: string;
  error: FieldError | undefined;
  register: UseFormRegisterReturn;
  numeric?: boolean;
  autoFocus?: boolean;
}) {
  const fault = `${register.name}-fault`;
  return (
    <label className="block">
      <span className="mb-1.5 block font-semibold">{label}</span>
      <input
        {...register}
        // biome-ignore lint/a11y/noAutofocus: the page is this form and nothing else
        autoFocus={autoFocus}
        className={`field ${numeric ? 'number' : ''} ${error ? 'field-fault' : ''}`}
        inputMode={numeric ? 'decimal' : 'text'}
        aria-invalid={error !== undefined}
        aria-describedby={error ? fault : undefined}
      />
      <Fault id={fault} error={error} />
    </label>
  );
}

function Fault({ id, error }: { id: string; error: FieldError | undefined }) {
  if (!error) return null;
  return (
    <span id={id} role="alert" className="mt-1 block font-medium text-alarm">
      {error.message}
    </span>
  );
}
