import { type ReactNode, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { partingFirst } from '../../core/kitup/allotTask';
import { locksOf } from '../../core/kitup/locks';
import { likeInWords, shadeInWords, togetherInWords } from '../../core/symbols/advice';
import { counted } from '../../core/words/numbers';
import type { KitupView } from '../../server/kitup/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import type { Meeting, SymbolCheckView } from '../../server/symbols/contract';
import { Chip, Colour } from '../../ui/Chip';
import { PenLine, Shuffle, Tag } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { TermsHere } from '../../ui/TermsHere';
import { TermWord } from '../../ui/TermWord';
import { withLegend } from '../../ui/withLegend';
import { KitupNav } from '../kitup/KitupNav';
import { NoSheet } from '../kitup/NoSheet';
import { standingWish } from '../kitup/PlanPanel';
import { getJson } from '../writing/api';
import { useAnswer } from '../writing/useAnswer';
import { useWrite } from '../writing/useWrite';
import { BlockDrawing } from './BlockDrawing';
import { SymbolPad } from './SymbolPad';

interface SymbolsProps {
  entry: ShelfEntry;
  legend: LegendLine[];
  first: SymbolCheckView;
}

/** Which symbols and colours of this kit are easily mixed up, and what helps. */
export const SymbolsPage = withLegend(SymbolsPageWithList);

function SymbolsPageWithList(props: Omit<SymbolsProps, 'first'>) {
  const { id } = props.entry.canvas;
  return (
    <>
      <KitupNav canvasId={id} here="/symbols" />
      {props.legend.length === 0 ? <NoSheet canvasId={id} /> : <Compared {...props} />}
    </>
  );
}

function Compared(props: Omit<SymbolsProps, 'first'>) {
  const { answer, fault } = useAnswer<SymbolCheckView>(`/api/canvases/${props.entry.canvas.id}/symbols`);
  if (fault) return <Notice kind="fault">{fault}</Notice>;
  if (!answer) return <p aria-live="polite">Loading…</p>;
  return <Symbols {...props} first={answer} />;
}

function Symbols({ entry, legend: firstLegend, first }: SymbolsProps) {
  const { canvas } = entry;
  const [view, setView] = useState(first);
  const [legend, setLegend] = useState(firstLegend);
  const [drawing, setDrawing] = useState<LegendLine | null>(null);
  const { busy, fault, write, act } = useWrite(canvas.id);
  const [apart, setApart] = useState<string | null>(null);
  const base = `/api/canvases/${canvas.id}`;
  const mark = (line: number, other: number | null) =>
    void write<SymbolCheckView>('POST', `${base}/symbols`, { line, other }, setView);
  const drawn = (line: number) =>
    void act(async () => {
      setLegend((await getJson<{ lines: LegendLine[] }>(`${base}/sheet`)).lines);
      setView(await getJson(`${base}/symbols`));
      setDrawing((now) => (now?.line === line ? null : now));
    });
  const draw = ({ line }: LegendLine, path: string | null) =>
    void write(
      path === null ? 'DELETE' : 'PUT',
      `${base}/symbols/${line}`,
      path === null ? undefined : { path },
      () => drawn(line),
    );
  /** Plans the pots anew with look-alikes parted before the order is kept. */
  const keepApart = () =>
    void act(async () => {
      const planned = await getJson<KitupView>(`${base}/kitup`);
      const standing = standingWish(planned);
      if (!standing) {
        setApart(
          'No pots are planned yet; they will be kept apart once “Look-alikes not side by side” is at the top.',
        );
        return;
      }
      const goals = partingFirst(standing.goals);
      const wish = { ...standing, goals, locks: locksOf(planned.cases) };
      await write<KitupView>('PUT', `${base}/kitup`, wish, (next) =>
        setApart(`Look-alikes in the case: ${next.plan?.results[goals.indexOf('neighbours')] ?? ''}`),
      );
    });
  const lineOf = (number: number) => ofLine(legend, number)!;

  const remedies = ([a, b]: [number, number], redraw: boolean) => (
    <div className="flex flex-wrap gap-2">
      {view.marks[b] === a ? (
        <button type="button" className="button button-on" onClick={() => mark(b, null)}>
          <Tag size={18} aria-hidden /> Lid of {lineOf(b).code} is marked; take that off
        </button>
      ) : (
        <button type="button" className="button" onClick={() => mark(b, a)}>
          <Tag size={18} aria-hidden /> Mark the lid of {lineOf(b).code}
        </button>
      )}
      {redraw && (
        <button type="button" className="button" onClick={() => setDrawing(lineOf(b))}>
          <PenLine size={18} aria-hidden /> Redraw {lineOf(b).code}
        </button>
      )}
    </div>
  );

  return (
    <div className="flex max-w-[76rem] flex-col gap-5">
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <p className="big-number">
            {view.pairs.length === 0 ? 'No look-alikes' : counted(view.pairs.length, 'look-alike pair')}
          </p>
          <p data-testid="symbol-sentence">{view.sentence}</p>
          <TermsHere terms={['look-alikes', 'code', 'key number']} />
        </div>
        {view.pairs.length > 0 && (
          <button type="button" className="button" disabled={busy} onClick={keepApart}>
            <Shuffle size={18} aria-hidden /> Keep look-alikes apart in the case
          </button>
        )}
      </div>
      {fault && <Notice kind="fault">{fault}</Notice>}
      {apart && (
        <Notice kind="hint">
          {apart}{' '}
          <a className="underline" href={`/canvas/${canvas.id}/kitup`}>
            See the case
          </a>
        </Notice>
      )}
      <Findings title="Look-alike symbols">
        {view.pairs.map((pair) => (
          <Finding
            key={pair.lines.join()}
            lines={[lineOf(pair.lines[0]), lineOf(pair.lines[1])]}
            legend={legend}
            entry={entry}
            words={likeInWords(pair)}
            where={pair.where}
          >
            {remedies(pair.lines, true)}
          </Finding>
        ))}
      </Findings>
      <Findings title="Colours a shade apart that touch">
        {view.shades.map((pair) => (
          <Finding
            key={pair.lines.join()}
            lines={[lineOf(pair.lines[0]), lineOf(pair.lines[1])]}
            legend={legend}
            entry={entry}
            words={shadeInWords(pair)}
            where={pair.where}
          >
            {remedies(pair.lines, false)}
          </Finding>
        ))}
      </Findings>
      {view.dark.length > 0 && (
        <section className="bg-paper p-4">
          <h2>
            Symbols on dark ground: use the <TermWord term="light pad">light pad</TermWord>
          </h2>
          <p className="mb-2 text-faded">
            In room light their print is hard to see on the tint. Dim the pad when your eyes or head ache.
          </p>
          <ul className="grid gap-x-6 gap-y-1 [grid-template-columns:repeat(auto-fill,minmax(13rem,1fr))]">
            {view.dark.map((line) => (
              <li key={line}>
                <Colour line={lineOf(line)} shape={canvas.shape} />
              </li>
            ))}
          </ul>
        </section>
      )}
      <section className="bg-paper p-4">
        <h2>Draw a symbol</h2>
        <p className="mb-2 text-faded">
          {view.unprintable.length > 0
            ? `No font here has the symbol of ${counted(view.unprintable.length, 'colour')}; labels show the key number until it is drawn.`
            : 'For a symbol that no keyboard has: draw it once, or cut it out of a picture, and it is used everywhere.'}
        </p>
        <div className="flex flex-wrap gap-2">
          {legend.map((line) => (
            <button
              key={line.line}
              type="button"
              aria-label={`Draw the symbol of ${line.code}`}
              title={line.code}
              className={`border-2 p-1 ${view.unprintable.includes(line.line) ? 'border-alarm' : 'border-transparent hover:border-accent'}`}
              onClick={() => setDrawing(line)}
            >
              <Chip line={line} shape={canvas.shape} size={38} />
            </button>
          ))}
        </div>
      </section>
      {drawing && (
        <SymbolPad
          line={drawing}
          shape={canvas.shape}
          onClose={() => setDrawing(null)}
          onKeep={(path) => draw(drawing, path)}
        />
      )}
    </div>
  );
}

function Findings({ title, children }: { title: string; children: ReactNode[] }) {
  if (children.length === 0) return null;
  return (
    <section className="flex flex-col gap-3">
      <h2>{title}</h2>
      <ul className="grid gap-3 xl:grid-cols-2">{children}</ul>
    </section>
  );
}

/** Two colours big, side by side; where they stand together; what helps. */
function Finding({
  lines,
  legend,
  entry,
  words,
  where,
  children,
}: {
  lines: [LegendLine, LegendLine];
  legend: LegendLine[];
  entry: ShelfEntry;
  words: string;
  where: Meeting | null;
  children: ReactNode;
}) {
  const { shape } = entry.canvas;
  return (
    <li className="slip flex flex-col justify-between gap-3">
      <div className="flex flex-wrap items-start gap-x-4 gap-y-3 sm:flex-nowrap">
        <div className="flex shrink-0 gap-2">
          {lines.map((line) => (
            <div key={line.line} className="text-center">
              <Chip line={line} shape={shape} size={80} />
              <p translate="no" className="number font-semibold">
                {line.code}
              </p>
            </div>
          ))}
        </div>
        {where && <BlockDrawing block={where} lines={lines} legend={legend} />}
        <div className="min-w-0">
          <p>{words}</p>
          {entry.hasChart && <p className="text-[0.95rem] text-faded">{togetherInWords(where)}</p>}
        </div>
      </div>
      {children}
    </li>
  );
}
