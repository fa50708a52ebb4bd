import { useState } from 'react';
import { equalCuts, type PanelPlan, readCuts } from '../../core/chart/panels';
import { counted, many } from '../../core/words/numbers';
import type { PanelsView } from '../../server/chart/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { AS_TYPED } from '../../ui/asTyped';
import { Printer, Tag } from '../../ui/icons';
import { Labelled } from '../../ui/Labelled';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { TermsHere } from '../../ui/TermsHere';
import { type NumberKind, typedNumber } from '../../ui/typedNumber';
import { useView } from '../writing/useView';
import { useWrite } from '../writing/useWrite';
import { ChartNav } from './ChartNav';
import { PanelDrawing } from './PanelDrawing';

/** A picture too large for the table is cut into panels; each has its size, its drills and its own edge marks. */
export function PanelsPage({ entry, first }: { entry: ShelfEntry; first: PanelsView }) {
  const { canvas } = entry;
  const base = `/api/canvases/${canvas.id}`;
  const [view, setView] = useView(`${base}/panels`, first, ['sections', 'sheet', 'other']);
  const { fault, write } = useWrite(canvas.id);
  const keep = (plan: PanelPlan) => write<PanelsView>('PUT', `${base}/panels`, plan, setView);
  const { panels } = view;
  const warnings = panels.flatMap(({ warning }) => (warning ? [warning] : []));

  return (
    <>
      <ChartNav canvasId={canvas.id} here="/panels" />
      <div className="grid items-start gap-6 lg:grid-cols-[22rem_1fr]">
        <PlanForm plan={view.plan} canvas={canvas} fault={fault} onKeep={keep} />
        <section className="flex min-w-0 flex-col gap-4" aria-label="The panels" aria-live="polite">
          <div>
            <p className="big-number">
              {panels.length === 1 ? 'In one piece' : counted(panels.length, 'panel')}
            </p>
            <p>
              {view.twice > 0
                ? `${counted(view.twice, 'drill')} ${view.twice === 1 ? 'lies on two panels and is' : 'lie on two panels and are'} needed twice.`
                : 'Every drill lies on one panel.'}
            </p>
          </div>
          {warnings.length > 0 && (
            <Notice kind="fault">
              <ul>
                {warnings.map((warning) => (
                  <li key={warning}>{warning}</li>
                ))}
              </ul>
            </Notice>
          )}
          <div className="grid items-start gap-5 xl:grid-cols-[1fr_1.2fr]">
            <PanelDrawing entry={entry} panels={panels} />
            <ul className="flex flex-col gap-3">
              {panels.map(({ number, rect, cm, inches, drills, colours }) => (
                <li key={number} className="slip">
                  <p className="flex flex-wrap items-baseline gap-x-3">
                    <strong className="text-lg">Panel {number}</strong>
                    <span className="number">
                      {cm.width.toFixed(1)} × {cm.height.toFixed(1)} cm ({inches.width.toFixed(1)} ×{' '}
                      {inches.height.toFixed(1)} in)
                    </span>
                  </p>
                  <p className="number text-[0.95rem]">
                    columns {rect.x + 1}–{rect.x + rect.width}, rows {rect.y + 1}–{rect.y + rect.height}:{' '}
                    {many(drills)} drills{colours > 0 && `, ${counted(colours, 'colour')}`}
                  </p>
                  <div className="mt-1 flex flex-wrap gap-x-5">
                    <a
                      className="inline-flex min-h-11 items-center gap-2 underline"
                      href={`${base}/edge-marks.pdf?panel=${number}`}
                    >
                      <Tag size={17} aria-hidden /> Its edge marks
                    </a>
                    {entry.hasChart && (
                      <a
                        className="inline-flex min-h-11 items-center gap-2 underline"
                        href={`${base}/chart.pdf?panel=${number}`}
                      >
                        <Printer size={17} aria-hidden /> Its chart
                      </a>
                    )}
                  </div>
                </li>
              ))}
            </ul>
          </div>
        </section>
      </div>
    </>
  );
}

function PlanForm({
  plan,
  canvas,
  fault,
  onKeep,
}: {
  plan: PanelPlan;
  canvas: { width: number; height: number };
  fault: string | null;
  /** @returns whether it is kept */
  onKeep: (plan: PanelPlan) => Promise<boolean>;
}) {
  // What is not touched follows the plan: another screen may cut the canvas while this form is open.
  const [own, setOwn] = useState<Partial<ReturnType<typeof asTyped>>>({});
  const typing = { ...asTyped(plan), ...own };
  const { columns, rows, overlap, margin, reachWidth, reachHeight } = typing;
  const type = (part: typeof own) => setOwn((now) => ({ ...now, ...part }));
  const cuts = { columns: readCuts(columns), rows: readCuts(rows) };
  const number = (text: string, kind: NumberKind) => (text.trim() === '' ? null : typedNumber(text, kind));
  const isNumber = (text: string, kind: NumberKind) => text.trim() === '' || number(text, kind) !== null;
  /** What a field would take, where it holds something else. */
  const slips = {
    columns: cuts.columns ? '' : 'Numbers of columns, like 60, 120',
    rows: cuts.rows ? '' : 'Numbers of rows, like 60, 120',
    overlap: isNumber(overlap, 'whole') ? '' : 'A number of squares',
    margin: isNumber(margin, 'mm') ? '' : 'A length, like 30 mm',
    reachWidth: isNumber(reachWidth, 'cm') ? '' : 'A length, like 55 cm',
    reachHeight: isNumber(reachHeight, 'cm') ? '' : 'A length, like 55 cm',
  };
  const typed = (
    words: string,
    field: keyof typeof slips,
    placeholder = '',
    inputMode: 'decimal' | 'text' = 'decimal',
  ) => {
    const slip = slips[field];
    return (
      <Labelled words={words}>
        <input
          className={`field number ${slip === '' ? '' : 'field-fault'}`}
          inputMode={inputMode}
          {...AS_TYPED}
          value={typing[field]}
          placeholder={placeholder}
          aria-invalid={slip !== ''}
          onChange={(event) => type({ [field]: event.target.value })}
        />
        {slip !== '' && (
          <span role="alert" className="block text-[0.95rem] text-alarm">
            {slip}
          </span>
        )}
      </Labelled>
    );
  };
  const parts = (words: string, count: number, change: (count: number) => void) => (
    <NumberField words={words} value={count} least={1} most={20} whole onChange={change} />
  );

  return (
    <form
      className="flex flex-col gap-4"
      aria-label="How it is cut"
      onSubmit={(event) => {
        event.preventDefault();
        if (!cuts.columns || !cuts.rows || Object.values(slips).some((slip) => slip !== '')) return;
        const kept = onKeep({
          columnCuts: cuts.columns,
          rowCuts: cuts.rows,
          overlap: number(overlap, 'whole') ?? 0,
          marginMm: number(margin, 'mm') ?? 0,
          reachWidthCm: number(reachWidth, 'cm'),
          reachHeightCm: number(reachHeight, 'cm'),
        });
        void kept.then((well) => well && setOwn((now) => (now === own ? {} : now)));
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        {parts('Panels across', (cuts.columns?.length ?? 0) + 1, (count) =>
          type({ columns: equalCuts(canvas.width, count).join(', ') }),
        )}
        {parts('Panels down', (cuts.rows?.length ?? 0) + 1, (count) =>
          type({ rows: equalCuts(canvas.height, count).join(', ') }),
        )}
      </div>
      {typed('Cut after columns', 'columns', 'no cut', 'text')}
      {typed('Cut after rows', 'rows', 'no cut', 'text')}
      <div className="grid grid-cols-2 gap-3">
        {typed('Overlap, squares', 'overlap')}
        {typed('Margin, mm', 'margin')}
        {typed('You reach, cm', 'reachWidth', 'any')}
        {typed('You can hang, cm', 'reachHeight', 'any')}
      </div>
      {fault && <Notice kind="fault">{fault}</Notice>}
      <button type="submit" className="button button-main">
        Cut it like this
      </button>
      <TermsHere terms={['panel', 'edge mark']} />
    </form>
  );
}

/** A plan as the fields of the form hold it. */
function asTyped({ columnCuts, rowCuts, overlap, marginMm, reachWidthCm, reachHeightCm }: PanelPlan) {
  return {
    columns: columnCuts.join(', '),
    rows: rowCuts.join(', '),
    overlap: String(overlap),
    margin: String(marginMm),
    reachWidth: String(reachWidthCm ?? ''),
    reachHeight: String(reachHeightCm ?? ''),
  };
}
