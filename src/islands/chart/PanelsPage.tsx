import { useState } from 'react';
import { equalCuts, type PanelPlan } from '../../core/chart/panels';
import { counted, many } from '../../core/words/numbers';
import type { PanelsView } from '../../server/chart/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Printer, Tag } from '../../ui/icons';
import { Labelled } from '../../ui/Labelled';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { TermsHere } from '../../ui/TermsHere';
import { type NumberKind, typedNumber } from '../../ui/typedNumber';
import { useWrite } from '../writing/useWrite';
import { ChartNav } from './ChartNav';
import { PanelDrawing } from './PanelDrawing';

/** A picture too large for the table is cut into panels; each has its size, its drills and its own edge marks. */
export function PanelsPage({ entry, first }: { entry: ShelfEntry; first: PanelsView }) {
  const { canvas } = entry;
  const [view, setView] = useState(first);
  const { fault, write } = useWrite(canvas.id);
  const base = `/api/canvases/${canvas.id}`;
  const keep = async (plan: PanelPlan) => {
    await write<PanelsView>('PUT', `${base}/panels`, plan, setView);
  };
  const { panels } = view;
  const warnings = panels.flatMap(({ warning }) => (warning ? [warning] : []));

  return (
    <>
      <ChartNav canvasId={canvas.id} here="/panels" />
      <div className="grid items-start gap-6 lg:grid-cols-[22rem_1fr]">
        <PlanForm
          key={JSON.stringify(view.plan)}
          plan={view.plan}
          canvas={canvas}
          fault={fault}
          onKeep={keep}
        />
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
                      download
                    >
                      <Tag size={17} aria-hidden /> Its edge marks
                    </a>
                    {entry.hasChart && (
                      <a
                        className="inline-flex min-h-11 items-center gap-2 underline"
                        href={`${base}/chart.pdf?panel=${number}`}
                        download
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

/** Numbers as they are typed, parted by anything that is no digit. */
function numbersIn(text: string): number[] {
  return (text.match(/\d+/g) ?? []).map(Number);
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
  onKeep: (plan: PanelPlan) => Promise<void>;
}) {
  const [columns, setColumns] = useState(plan.columnCuts.join(', '));
  const [rows, setRows] = useState(plan.rowCuts.join(', '));
  const [overlap, setOverlap] = useState(String(plan.overlap));
  const [margin, setMargin] = useState(String(plan.marginMm));
  const [reachWidth, setReachWidth] = useState(String(plan.reachWidthCm ?? ''));
  const [reachHeight, setReachHeight] = useState(String(plan.reachHeightCm ?? ''));
  const number = (text: string, kind: NumberKind) => (text.trim() === '' ? null : typedNumber(text, kind));
  const typed = (
    words: string,
    value: string,
    change: (text: string) => void,
    placeholder = '',
    inputMode: 'decimal' | 'text' = 'decimal',
  ) => (
    <Labelled words={words}>
      <input
        className="field number"
        inputMode={inputMode}
        value={value}
        placeholder={placeholder}
        onChange={(event) => change(event.target.value)}
      />
    </Labelled>
  );
  const parts = (words: string, cuts: string, change: (count: number) => void) => (
    <NumberField
      words={words}
      value={numbersIn(cuts).length + 1}
      least={1}
      most={20}
      whole
      onChange={change}
    />
  );

  return (
    <form
      className="flex flex-col gap-4"
      aria-label="How it is cut"
      onSubmit={(event) => {
        event.preventDefault();
        void onKeep({
          columnCuts: numbersIn(columns),
          rowCuts: numbersIn(rows),
          overlap: number(overlap, 'whole') ?? 0,
          marginMm: number(margin, 'mm') ?? 0,
          reachWidthCm: number(reachWidth, 'cm'),
          reachHeightCm: number(reachHeight, 'cm'),
        });
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        {parts('Panels across', columns, (count) => setColumns(equalCuts(canvas.width, count).join(', ')))}
        {parts('Panels down', rows, (count) => setRows(equalCuts(canvas.height, count).join(', ')))}
      </div>
      {typed('Cut after columns', columns, setColumns, 'no cut', 'text')}
      {typed('Cut after rows', rows, setRows, 'no cut', 'text')}
      <div className="grid grid-cols-2 gap-3">
        {typed('Overlap, squares', overlap, setOverlap)}
        {typed('Margin, mm', margin, setMargin)}
        {typed('You reach, cm', reachWidth, setReachWidth, 'any')}
        {typed('You can hang, cm', reachHeight, setReachHeight, 'any')}
      </div>
      {fault && <Notice kind="fault">{fault}</Notice>}
      <button type="submit" className="button button-main">
        Cut it like this
      </button>
      <TermsHere terms={['panel', 'edge mark']} />
    </form>
  );
}
