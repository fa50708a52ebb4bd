import { yupResolver } from '@hookform/resolvers/yup';
import { Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import { INSPECTION_KINDS, type InspectionKey, inspectionKind } from '../../core/inspection/inspection';
import { faultInPhoto } from '../../core/inspection/photo';
import { type InspectionView, inspectionSchema } from '../../server/inspection/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Notice } from '../../ui/Notice';
import { CheckinNav } from '../checkin/CheckinNav';
import { sendFile, sendJson } from '../writing/api';
import { useWrite } from '../writing/useWrite';

/** A dated record of the canvas out of its box, with what is usually done about each fault. */
export function InspectionPage({ entry, first }: { entry: ShelfEntry; first: InspectionView[] }) {
  const { canvas } = entry;
  const url = `/api/canvases/${canvas.id}/inspection`;
  const [view, setView] = useState(first);
  const { fault, setFault, write, act } = useWrite(canvas.id);
  const photo = useRef<HTMLInputElement>(null);
  const form = useForm({
    resolver: yupResolver(inspectionSchema.omit(['id'])),
    defaultValues: { kind: 'print' as InspectionKey, note: '', widthCm: null, heightCm: null },
  });
  const kind = form.watch('kind');
  const { errors } = form.formState;
  const hint = inspectionKind(kind);

  const save = form.handleSubmit(async (values) => {
    const id = crypto.randomUUID();
    const file = photo.current?.files?.[0];
    const unfit = file ? faultInPhoto(file) : null;
    if (unfit) return setFault(unfit);
    const clear = () => {
      form.reset();
      if (photo.current) photo.current.value = '';
    };
    const noted = await write<InspectionView[]>('POST', url, { id, ...values }, setView);
    if (!noted) return;
    if (!file) return clear();
    const sent = await act(async () =>
      setView(await sendFile<InspectionView[]>('PUT', `${url}/${id}/photo.jpg`, file, file.type)),
    );
    // A note whose photo was refused is not left behind: it is written again with the right one.
    if (!sent) return withdrawQuietly(id);
    clear();
  });
  const withdrawQuietly = async (id: string) => {
    const said = await sendJson<InspectionView[]>('DELETE', `${url}/${id}`).catch(() => null);
    if (said) setView(said);
  };
  const withdraw = (id: string) => void write<InspectionView[]>('DELETE', `${url}/${id}`, undefined, setView);

  return (
    <>
      <CheckinNav canvasId={canvas.id} here="/inspection" />
      <div className="grid items-start gap-6 lg:grid-cols-[24rem_1fr]">
        <form onSubmit={save} noValidate className="slip flex flex-col gap-3">
          <h2 className="text-xl">Something about the canvas</h2>
          <label className="block">
            <span className="mb-1.5 block font-semibold">What is it</span>
            <select className="field" {...form.register('kind')}>
              {INSPECTION_KINDS.map((each) => (
                <option key={each.key} value={each.key}>
                  {each.name}
                </option>
              ))}
            </select>
          </label>
          {kind === 'size' && (
            <div className="grid grid-cols-2 gap-3">
              {(['widthCm', 'heightCm'] as const).map((side) => (
                <label key={side} className="block">
                  <span className="mb-1.5 block font-semibold">
                    {side === 'widthCm' ? 'Width, cm' : 'Height, cm'}
                  </span>
                  <input
                    className={`field number ${errors[side] ? 'field-fault' : ''}`}
                    inputMode="decimal"
                    {...form.register(side, {
                      setValueAs: (text: string | null) => (text === '' ? null : text),
                    })}
                  />
                  {errors[side] && (
                    <span role="alert" className="font-medium text-alarm">
                      {errors[side]?.message}
                    </span>
                  )}
                </label>
              ))}
            </div>
          )}
          <label className="block">
            <span className="mb-1.5 block font-semibold">Note</span>
            <textarea className="field h-24" maxLength={1000} {...form.register('note')} />
          </label>
          <label className="block">
            <span className="mb-1.5 block font-semibold">Photo</span>
            <input ref={photo} type="file" accept="image/jpeg,image/png,image/webp" className="field !py-2" />
          </label>
          <Notice kind="hint">
            {hint.remedy} {hint.caution}
          </Notice>
          {fault && <Notice kind="fault">{fault}</Notice>}
          <button type="submit" className="button button-main" disabled={form.formState.isSubmitting}>
            Write it down
          </button>
        </form>
        <section aria-label="The record" className="flex min-w-0 flex-col gap-3">
          {view.length === 0 && (
            <p className="slip max-w-xl">
              Nothing is written down. Look over print, edges and adhesive before you start; a dated photo
              helps when you write to the seller.
            </p>
          )}
          {view.map((each) => (
            <article key={each.id} className="slip flex flex-wrap gap-4 !py-3" aria-label={each.name}>
              {each.hasPhoto && (
                <a href={`${url}/${each.id}/photo.jpg`}>
                  <img
                    src={`${url}/${each.id}/photo.jpg`}
                    alt={each.name}
                    className="h-32 w-auto border border-edge"
                  />
                </a>
              )}
              <div className="min-w-0 grow basis-72">
                <h3 className="text-lg font-semibold">{each.name}</h3>
                <p className="text-faded">
                  {new Date(each.happenedAt).toLocaleString('en-GB', {
                    dateStyle: 'long',
                    timeStyle: 'short',
                  })}
                </p>
                {each.size && <p className="font-semibold">{each.size}</p>}
                {each.note && <p className="whitespace-pre-line">{each.note}</p>}
                <p className="text-[0.95rem]">
                  {each.remedy} {each.caution}
                </p>
              </div>
              <button
                type="button"
                className="button self-start !px-2.5"
                aria-label={`Delete ${each.name}`}
                title="Delete"
                onClick={() => withdraw(each.id)}
              >
                <Trash2 size={19} aria-hidden />
              </button>
            </article>
          ))}
        </section>
      </div>
    </>
  );
}
