import { Redo2, Undo2 } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import type { CellPlace } from '../../core/bench/stroke';
import type { LegendLine } from '../../core/canvas/legend';
import { runsFromCells } from '../../core/chart/cellRuns';
import { applyEdit, type CellEdit, floodCells, inverseOf, rectCells } from '../../core/chart/edit';
import { counted, many } from '../../core/words/numbers';
import type { ShelfEntry } from '../../server/contract/canvases';
import type { RepairView } from '../../server/contract/chart';
import { inWords, NoAnswer, sendJson } from '../../ui/api';
import { Chip } from '../../ui/Chip';
import { ColourList } from '../../ui/ColourList';
import { Cloth, type Marking } from '../../ui/cloth/Cloth';
import { panelsLayer } from '../../ui/cloth/layers';
import { type ClothData, useClothData } from '../../ui/cloth/useClothData';
import { NoChart } from '../../ui/NoChart';
import { Notice } from '../../ui/Notice';
import { ToggleButton } from '../../ui/ToggleButton';
import { useUndoKeys } from '../../ui/undoKeys';
import { ChartNav } from './ChartNav';
import { FinishSlip } from './FinishSlip';
import { RowsSlip } from './RowsSlip';

type Tool = 'move' | 'brush' | 'rectangle' | 'flood';
const TOOLS: [Tool, string][] = [
  ['move', 'Move'],
  ['brush', 'Brush'],
  ['rectangle', 'Rectangle'],
  ['flood', 'Whole area'],
];

interface RepairProps {
  entry: ShelfEntry;
  first: RepairView;
}

/** Cells that are wrong on the chart are set right; counts that differ from the sheet lead to them. */
export function RepairPage(props: RepairProps) {
  const { canvas } = props.entry;
  const { data, fault } = useClothData(canvas, props.entry.hasChart);
  return (
    <>
      <ChartNav canvasId={canvas.id} here="/repair" />
      {!props.entry.hasChart && <NoChart canvasId={canvas.id} what="There is no chart to repair yet." />}
      {fault && <Notice kind="fault">{fault}</Notice>}
      {props.entry.hasChart && data && <Repair {...props} data={data} />}
    </>
  );
}

function Repair({ entry, first, data }: RepairProps & { data: ClothData }) {
  const { canvas } = entry;
  const { chart } = data;
  const [view, setView] = useState(first);
  const [tool, setTool] = useState<Tool>('move');
  const [line, setLine] = useState<number | null>(null);
  const [focus, setFocus] = useState<number | null>(null);
  const [cursor, setCursor] = useState<CellPlace | null>(null);
  const [version, setVersion] = useState(0);
  const [fault, setFault] = useState<string | null>(null);
  const [undos, setUndos] = useState<CellEdit[][]>([]);
  const [redos, setRedos] = useState<CellEdit[][]>([]);
  const stroke = useRef<{ start: CellPlace; cells: number[] } | null>(null);
  const base = `/api/canvases/${canvas.id}`;

  /** Shows edits at once and sends them; what the server refuses is taken back. @returns the edits that undo them */
  const send = async (edits: CellEdit[]): Promise<CellEdit[] | null> => {
    const back = edits
      .map((edit) => inverseOf(applyEdit(chart, edit)))
      .reverse()
      .flat();
    setVersion((before) => before + 1);
    if (back.length === 0) return null;
    setFault(null);
    const id = crypto.randomUUID();
    const attempt = () => sendJson<RepairView>('POST', `${base}/chart-edits`, { id, edits });
    try {
      // A lost answer may have been committed; the same id again changes nothing.
      const next = await attempt().catch((error: unknown) => {
        if (error instanceof NoAnswer) return attempt();
        throw error;
      });
      setView(next);
      return back;
    } catch (error) {
      for (const edit of back) applyEdit(chart, edit);
      setVersion((before) => before + 1);
      setFault(inWords(error));
      return null;
    }
  };
  const set = async (cells: number[], to: number) => {
    const back = await send([{ runs: runsFromCells(cells), line: to }]);
    if (!back) return;
    setUndos((before) => [...before, back]);
    setRedos([]);
  };
  const undo = async () => {
    const edits = undos.at(-1);
    if (!edits) return;
    setUndos(undos.slice(0, -1));
    const back = await send(edits);
    if (back) setRedos((before) => [...before, back]);
  };
  const redo = async () => {
    const edits = redos.at(-1);
    if (!edits) return;
    setRedos(redos.slice(0, -1));
    const back = await send(edits);
    if (back) setUndos((before) => [...before, back]);
  };
  useUndoKeys(
    () => void undo(),
    () => void redo(),
  );
  const at = ({ x, y }: CellPlace) => y * chart.width + x;
  const marking: Marking | null =
    tool === 'move' || line === null
      ? null
      : {
          begin: (place) => {
            stroke.current = {
              start: place,
              cells: tool === 'flood' ? floodCells(chart, place.x, place.y) : [at(place)],
            };
          },
          extend: (places) => {
            const now = stroke.current;
            const end = places.at(-1);
            if (!now || !end) return;
            if (tool === 'brush') now.cells.push(...places.map(at));
            else if (tool === 'rectangle') {
              const [x, y] = [Math.min(now.start.x, end.x), Math.min(now.start.y, end.y)];
              const width = Math.abs(now.start.x - end.x) + 1;
              now.cells = rectCells(chart, { x, y, width, height: Math.abs(now.start.y - end.y) + 1 });
            }
          },
          end: () => {
            const cells = stroke.current?.cells ?? [];
            stroke.current = null;
            void set(cells, line);
          },
        };
  // biome-ignore lint/correctness/useExhaustiveDependencies: cells are changed in place; the version tells
  const wish = useMemo(
    () => ({ laid: null, focus: focus === null ? null : new Set([focus]) }),
    [focus, version],
  );
  const frame = useMemo(() => ({ x: 0, y: 0, width: chart.width, height: chart.height }), [chart]);
  const layers = useMemo(() => [panelsLayer(canvas, canvas.panels)], [canvas]);
  const under = cursor ? chart.cells[at(cursor)]! : null;
  const legend = view.legend;

  return (
    <div className="grid min-h-[38rem] grow gap-4 lg:h-[calc(100dvh-12.2rem)] lg:min-h-0 lg:grid-cols-[1fr_21rem]">
      <section className="flex min-h-[30rem] min-w-0 flex-col lg:min-h-0" aria-label="The canvas">
        <div className="mb-2 flex flex-wrap gap-2">
          {TOOLS.map(([each, words]) => (
            <ToggleButton key={each} on={tool === each} onChange={() => setTool(each)}>
              {words}
            </ToggleButton>
          ))}
          <button
            type="button"
            className="button ml-auto"
            disabled={undos.length === 0}
            onClick={() => void undo()}
          >
            <Undo2 size={20} aria-hidden /> Undo
          </button>
          <button type="button" className="button" disabled={redos.length === 0} onClick={() => void redo()}>
            <Redo2 size={20} aria-hidden /> Redo
          </button>
        </div>
        <Cloth
          label={`Chart of ${canvas.title} to repair`}
          chart={chart}
          hasChart
          legend={legend}
          shape={canvas.shape}
          wish={wish}
          layers={layers}
          frame={frame}
          cursor={cursor}
          onCursor={setCursor}
          marking={marking}
          onKey={(event) => {
            if (event.key !== ' ' || line === null || !cursor) return false;
            void set([at(cursor)], line);
            return true;
          }}
        />
        <p className="min-h-11 pt-2" aria-live="polite" data-testid="under">
          {cursor && under !== null
            ? `Column ${cursor.x + 1}, row ${cursor.y + 1}: ${legend[under - 1]?.code ?? 'no drill'}`
            : 'Choose a colour, then brush over the cells that should have it. Space sets the cell in hand.'}
        </p>
      </section>
      <section className="flex min-h-0 flex-col gap-3 overflow-y-auto" aria-label="Colours and counts">
        <div>
          <p className="big-number">
            {view.suspects.length === 0 ? 'Counts agree' : `${counted(view.suspects.length, 'colour')} off`}
          </p>
          <p>
            {view.suspects.length === 0
              ? 'Every colour has as many drills as the sheet says.'
              : 'Their number differs from the sheet; choose one to see it.'}
          </p>
        </div>
        {fault && <Notice kind="fault">{fault}</Notice>}
        {view.suspects.length > 0 && (
          <ul className="max-h-56 overflow-y-auto bg-paper" aria-label="Colours that are off">
            {view.suspects.map((suspect) => (
              <li key={suspect.line}>
                <button
                  type="button"
                  aria-pressed={focus === suspect.line}
                  className={`flex min-h-12 w-full items-center gap-3 border-b border-line px-2.5 py-1 text-left ${focus === suspect.line ? 'bg-wash' : ''}`}
                  onClick={() => setFocus(focus === suspect.line ? null : suspect.line)}
                >
                  <Chip line={legend[suspect.line - 1]!} shape={canvas.shape} />
                  <span>
                    <span className="number font-semibold">{legend[suspect.line - 1]!.code}</span>:{' '}
                    {many(suspect.onChart)} here, {many(suspect.onSheet)} on the sheet
                    {suspect.perhaps !== null &&
                      `; perhaps mixed up with ${legend[suspect.perhaps - 1]!.code}`}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        )}
        <button
          type="button"
          className={`button ${line === 0 ? 'button-on' : ''}`}
          aria-pressed={line === 0}
          onClick={() => setLine(0)}
        >
          No drill
        </button>
        <div className="flex min-h-64 flex-col">
          <ColourList
            label="Colour to set"
            lines={legend}
            shape={canvas.shape}
            chosen={line}
            onChoose={(each) => setLine(each.line)}
            beside={() => ''}
          />
        </div>
        <FinishSlip
          chart={chart}
          legend={legend}
          line={legend.find((each: LegendLine) => each.line === line) ?? null}
          base={base}
          onDone={() => window.location.reload()}
        />
        <RowsSlip chart={chart} legend={legend} onSet={(edits) => void typed(edits)} />
      </section>
    </div>
  );

  async function typed(edits: CellEdit[]) {
    const back = await send(edits);
    if (back) setUndos((before) => [...before, back]);
  }
}
