import { useEffect, useMemo, useRef, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { emptyBitmap, setLaid } from '../../core/cells/bitmap';
import { runsFromCells } from '../../core/cells/cellRuns';
import type { CellRect } from '../../core/cells/chart';
import { floodCells } from '../../core/cells/flood';
import type { CellPlace } from '../../core/cells/rect';
import { cellIndex, placeOfCell, rectBetween, rectCells, wholeRect } from '../../core/cells/rect';
import { repairInWords } from '../../core/chart/repairInWords';
import { type Stamp, stampEdits, stampFromText, stampOf } from '../../core/chart/stamp';
import { counted, many } from '../../core/words/numbers';
import type { RepairView } from '../../server/chart/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Chip } from '../../ui/Chip';
import { ColourList } from '../../ui/ColourList';
import type { Marking } from '../../ui/cloth/Cloth';
import { frameLayer, panelsLayer, ringsLayer } from '../../ui/cloth/layers';
import { Notice } from '../../ui/Notice';
import { ToggleButton } from '../../ui/ToggleButton';
import { StationCloth, WithCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { inWords } from '../writing/api';
import { UndoButtons } from '../writing/UndoButtons';
import { WithView } from '../writing/WithView';
import { BeginChart } from './BeginChart';
import { ChartNav } from './ChartNav';
import { FinishSlip } from './FinishSlip';
import { RowsSlip } from './RowsSlip';
import { useRepairs } from './useRepairs';

type Tool = 'move' | 'brush' | 'rectangle' | 'flood' | 'copy' | 'paste' | 'pick';
const TOOLS: [Tool, string][] = [
  ['move', 'Move'],
  ['brush', 'Brush'],
  ['rectangle', 'Rectangle'],
  ['flood', 'Whole area'],
  ['copy', 'Copy'],
  ['paste', 'Paste'],
  ['pick', 'Pick'],
];

const HINTS: Record<Tool, string> = {
  pick: 'Point at drills, or brush over them, to give them another finish; point again to leave one out.',
  move: 'Choose a colour and a tool, then go over the squares that should have it. Space sets the square that is marked.',
  brush: 'Brush over the squares that should have the chosen colour.',
  rectangle: 'Draw a rectangle: all of it gets the chosen colour.',
  flood: 'Point at an area of one colour: all of it gets the chosen colour.',
  copy: 'Draw a rectangle around what you want to put elsewhere, or set two of its corners with Space.',
  paste:
    'Point at the square where the upper left corner goes. Rows copied in a spreadsheet can be pasted with Ctrl and V.',
};

interface RepairProps {
  entry: ShelfEntry;
  first: RepairView;
}

/** Cells that are wrong on the chart are set right; counts that differ from the sheet lead to them. */
export function RepairPage({ entry }: { entry: ShelfEntry }) {
  const { canvas } = entry;
  return (
    <>
      <ChartNav canvasId={canvas.id} here="/repair" />
      {!entry.hasChart && <BeginChart canvasId={canvas.id} />}
      {entry.hasChart && (
        <WithView<RepairView> url={`/api/canvases/${canvas.id}/chart-edits`}>
          {(first) => (
            <WithCloth entry={entry}>
              {(data) => <Repair entry={entry} first={first} data={data} />}
            </WithCloth>
          )}
        </WithView>
      )}
    </>
  );
}

function Repair({ entry, first, data }: RepairProps & { data: ClothData }) {
  const { canvas } = entry;
  const { chart } = data;
  const [tool, setTool] = useState<Tool>('move');
  const [line, setLine] = useState<number | null>(null);
  const [focus, setFocus] = useState<number | null>(null);
  const [cursor, setCursor] = useState<CellPlace | null>(null);
  const { view, version, fault, store } = useRepairs(canvas.id, chart, first);
  const [stamp, setStamp] = useState<Stamp | null>(null);
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const [drawn, setDrawn] = useState<CellRect | null>(null);
  const { legend } = view;
  const stroke = useRef<{ start: CellPlace; end: CellPlace; cells: number[] } | null>(null);

  const set = (cells: number[], to: number) => store.set([{ runs: runsFromCells(cells), line: to }]);
  const pick = (cells: number[]) => {
    const next = new Set(picked);
    const [only] = cells;
    // A single cell goes in or out; a stroke takes in all that it crosses.
    if (cells.length === 1 && only !== undefined && next.has(only)) next.delete(only);
    else for (const cell of cells) next.add(cell);
    setPicked(next);
  };
  const take = (next: Tool) => {
    setTool(next);
    setDrawn(null);
  };
  const takeStamp = (rect: CellRect) => {
    setStamp(stampOf(chart, rect));
    take('paste');
  };
  /** By keyboard: the first cell is one corner, the second the other. */
  const pickUp = (place: CellPlace) => {
    if (drawn) takeStamp(rectBetween(drawn, place));
    else setDrawn(rectBetween(place, place));
  };
  const paste = (place: CellPlace) => store.set(stamp ? stampEdits(stamp, chart, place) : []);
  useEffect(() => {
    const taken = (event: ClipboardEvent) => {
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (text === '' || (event.target as HTMLElement).closest('input, textarea')) return;
      try {
        setStamp(stampFromText(text, legend));
        setTool('paste');
        store.setFault(null);
      } catch (error) {
        store.setFault(inWords(error));
      }
    };
    document.addEventListener('paste', taken);
    return () => document.removeEventListener('paste', taken);
  }, [legend, store]);
  const at = (place: CellPlace) => cellIndex(place, chart.width);
  const [preview, setPreview] = useState<number[]>([]);
  const marking: Marking | null =
    tool === 'move' ||
    (tool === 'paste' ? stamp === null : tool !== 'copy' && tool !== 'pick' && line === null)
      ? null
      : {
          begin: (place) => {
            stroke.current = {
              start: place,
              end: place,
              cells: tool === 'flood' ? floodCells(chart, place.x, place.y) : [at(place)],
            };
          },
          extend: (places) => {
            const now = stroke.current;
            const end = places.at(-1);
            if (!now || !end) return;
            now.end = end;
            if (tool === 'brush' || tool === 'pick') now.cells.push(...places.map(at));
            else if (tool === 'rectangle' || tool === 'copy') setDrawn(rectBetween(now.start, end));
          },
          abort: () => {
            stroke.current = null;
            setDrawn(null);
          },
          end: () => {
            const now = stroke.current;
            stroke.current = null;
            setDrawn(null);
            if (!now) return;
            const rect = rectBetween(now.start, now.end);
            if (tool === 'pick') pick(now.cells);
            else if (tool === 'copy') takeStamp(rect);
            else if (tool === 'paste') paste(now.start);
            else if (line !== null) set(tool === 'rectangle' ? rectCells(chart, rect) : now.cells, line);
          },
        };
  /** What a finish would take stands out as laid drills do. */
  const previewed = useMemo(() => {
    if (preview.length === 0) return null;
    const bits = emptyBitmap(chart.cells.length);
    for (const cell of preview) setLaid(bits, cell, true);
    return bits;
  }, [preview, chart]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: cells are changed in place; the version tells
  const wish = useMemo(
    () => ({ laid: previewed, focus: focus === null ? null : new Set([focus]) }),
    [focus, previewed, version],
  );
  const frame = useMemo(() => wholeRect(chart), [chart]);
  const layers = useMemo(
    () => [
      panelsLayer(canvas.panelRects),
      ringsLayer([...picked].map((cell) => placeOfCell(cell, chart.width))),
      ...(drawn ? [frameLayer(drawn)] : []),
    ],
    [canvas, chart, drawn, picked],
  );
  const under = cursor ? chart.cells[at(cursor)]! : null;

  return (
    <div className="station lg:h-[calc(100dvh-12.2rem)] lg:grid-cols-[1fr_21rem]">
      <section className="flex min-h-[30rem] min-w-0 flex-col lg:min-h-0" aria-label="The canvas">
        <div className="mb-2 flex flex-wrap gap-2">
          {TOOLS.map(([each, words]) => (
            <ToggleButton key={each} on={tool === each} onChange={() => take(each)}>
              {words}
            </ToggleButton>
          ))}
          <div className="ml-auto">
            <UndoButtons
              short
              history={view.history}
              words={(change) => repairInWords(change, legend, chart.width)}
              busy={false}
              onUndo={(id) => store.undo(id)}
              onRedo={(id) => store.redo(id)}
            />
          </div>
        </div>
        <StationCloth
          label={`Chart of ${canvas.title} to repair`}
          entry={entry}
          legend={legend}
          data={data}
          wish={wish}
          layers={layers}
          frame={frame}
          cursor={cursor}
          onCursor={setCursor}
          marking={marking}
          onKey={(event) => {
            if (event.key !== ' ' || !cursor) return false;
            if (tool === 'paste' && stamp) paste(cursor);
            else if (tool === 'pick') pick([at(cursor)]);
            else if (tool === 'copy') pickUp(cursor);
            else if (line !== null) set([at(cursor)], line);
            else return false;
            return true;
          }}
        />
        <p className="min-h-11 pt-2" aria-live="polite" data-testid="under">
          {cursor &&
            under !== null &&
            `Column ${cursor.x + 1}, row ${cursor.y + 1}: ${ofLine(legend, under)?.code ?? 'no drill'}. `}
          {(!cursor || tool === 'copy' || tool === 'paste' || tool === 'pick') && HINTS[tool]}
        </p>
      </section>
      <section className="flex min-h-0 flex-col gap-3 overflow-y-auto" aria-label="Colours and counts">
        <div>
          <p className="big-number">
            {view.suspects.length === 0 ? 'Counts agree' : `${counted(view.suspects.length, 'colour')} off`}
          </p>
          <p>
            {view.suspects.length === 0
              ? 'Every colour has as many drills as the colour list says.'
              : 'Their number differs from the colour list; choose one to see it.'}
          </p>
        </div>
        {fault && <Notice kind="fault">{fault}</Notice>}
        {view.suspects.length > 0 && (
          <ul className="max-h-56 shrink-0 overflow-y-auto bg-paper" aria-label="Colours that are off">
            {view.suspects.map((suspect) => (
              <li key={suspect.line}>
                <button
                  type="button"
                  aria-pressed={focus === suspect.line}
                  className={`flex min-h-12 w-full items-center gap-3 border-b border-line px-2.5 py-1 text-left ${focus === suspect.line ? 'bg-wash' : ''}`}
                  onClick={() => setFocus(focus === suspect.line ? null : suspect.line)}
                >
                  <Chip line={ofLine(legend, suspect.line)!} shape={canvas.shape} />
                  <span>
                    <span translate="no" className="number font-semibold">
                      {ofLine(legend, suspect.line)!.code}
                    </span>
                    : {many(suspect.onChart)} here, {many(suspect.onSheet)} in the list
                    {suspect.perhaps !== null &&
                      `; perhaps mixed up with ${ofLine(legend, suspect.perhaps)!.code}`}
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
            label="Colour to use"
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
          picked={picked}
          last={view.finish}
          canvasId={canvas.id}
          onPreview={setPreview}
          onDone={() => window.location.reload()}
        />
        <RowsSlip chart={chart} legend={legend} onSet={(edits) => store.set(edits)} />
      </section>
    </div>
  );
}
