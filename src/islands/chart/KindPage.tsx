import { useEffect, useRef } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { counted, many } from '../../core/words/numbers';
import type { KindView } from '../../server/chart/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Colour } from '../../ui/Chip';
import { Notice } from '../../ui/Notice';
import { TermWord } from '../../ui/TermWord';
import { withLegend } from '../../ui/withLegend';
import { useAnswer } from '../writing/useAnswer';
import { ChartNav } from './ChartNav';

/** What a canvas is like to work: blocks, confetti, runs, and where most colours meet. */
export const KindPage = withLegend(KindPageWithList);

function KindPageWithList(props: { entry: ShelfEntry; legend: LegendLine[] }) {
  const { id } = props.entry.canvas;
  const { answer, fault } = useAnswer<KindView>(`/api/canvases/${id}/kind`, ['repairs']);
  return (
    <>
      <ChartNav canvasId={id} here="/kind" />
      {fault && <Notice kind="fault">{fault}</Notice>}
      {answer ? <Kind {...props} view={answer} /> : !fault && <p aria-live="polite">Loading…</p>}
    </>
  );
}

function Kind({ entry, legend, view }: { entry: ShelfEntry; legend: LegendLine[]; view: KindView }) {
  const { canvas } = entry;
  const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
  return (
    <div className="grid items-start gap-6 lg:grid-cols-[24rem_1fr]">
      <section className="flex flex-col gap-4" aria-label="In numbers">
        <p className="text-xl leading-snug font-semibold" data-testid="kind">
          {view.inWords}
        </p>
        <dl className="grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-1">
          <dt className="big-number text-right">{percent(view.blocks)}</dt>
          <dd>in areas of 25 drills or more</dd>
          <dt className="big-number text-right">{percent(view.confetti)}</dt>
          <dd>
            <TermWord term="confetti">confetti</TermWord>: no drill of the same colour beside it
          </dd>
        </dl>
        <section className="bg-paper p-4">
          <h2>Runs along the rows</h2>
          <table className="table-plain">
            <thead>
              <tr>
                <th className="!text-right">Drills in a row</th>
                <th className="!text-right">Runs</th>
                <th>
                  <span className="sr-only">Share of the drills</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {view.runs.map(({ length, runs, share }) => (
                <tr key={length}>
                  <td className="number text-right">{length}</td>
                  <td className="number text-right">{many(runs)}</td>
                  <td className="w-2/5">
                    <progress
                      className="tally w-full"
                      max={1}
                      value={share}
                      aria-label={`${percent(share)} of the drills`}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      </section>
      <section className="flex min-w-0 flex-col gap-4" aria-label="Where colours meet">
        <h2>Colours in each block of 10 × 10</h2>
        <HeatMap heat={view.heat} />
        <p className="text-faded">
          {view.fewest === view.most
            ? `Every block has ${counted(view.most, 'colour')}.`
            : `Lightest: ${counted(view.fewest, 'colour')} in a block. Darkest: ${counted(view.most, 'colour')}.`}
        </p>
        {view.shades.length > 0 && (
          <section className="bg-paper p-4">
            <h2>Near colours that touch</h2>
            <ul className="grid gap-x-6 [grid-template-columns:repeat(auto-fill,minmax(min(24rem,100%),1fr))]">
              {view.shades.map(({ lines: [a, b], meetings }) => (
                <li key={`${a} ${b}`} className="flex items-center gap-4 border-b border-line py-1.5">
                  <Colour line={ofLine(legend, a)!} shape={canvas.shape} size={30} />
                  <Colour line={ofLine(legend, b)!} shape={canvas.shape} size={30} />
                  <span className="number ml-auto">{many(meetings)}</span>
                </li>
              ))}
            </ul>
            <a
              className="inline-flex min-h-11 items-center underline"
              href={`/canvas/${canvas.id}/kitup/symbols`}
            >
              How not to mix them up
            </a>
          </section>
        )}
      </section>
    </div>
  );
}

/** One square a block, darker with more colours. */
function HeatMap({ heat }: { heat: KindView['heat'] }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const most = Math.max(1, ...heat.colours);
    heat.colours.forEach((colours, i) => {
      const share = colours / most;
      // From the paper to the accent, so that it reads in one ink.
      context.fillStyle = `hsl(331 ${Math.round(20 + 40 * share)}% ${Math.round(94 - 68 * share)}%)`;
      context.fillRect(i % heat.columns, Math.floor(i / heat.columns), 1, 1);
    });
  }, [heat]);
  return (
    <canvas
      ref={canvas}
      width={heat.columns}
      height={heat.rows}
      role="img"
      aria-label={`Heat map of ${heat.columns} by ${heat.rows} blocks; the sentence beside it says where most colours meet.`}
      className="w-full max-w-[52rem] border border-edge [image-rendering:pixelated]"
    />
  );
}
