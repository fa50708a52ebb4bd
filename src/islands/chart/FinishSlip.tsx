import { useEffect, useMemo, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { runsFromCells } from '../../core/cells/cellRuns';
import type { Chart } from '../../core/cells/chart';
import type { SprinkleRule } from '../../core/chart/edit';
import { finishCells } from '../../core/chart/finish';
import { FINISHES, type Finish } from '../../core/colour/finish';
import { counted } from '../../core/words/numbers';
import type { RepairView } from '../../server/chart/contract';
import { AS_TYPED } from '../../ui/asTyped';
import { Undo2 } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { useWrite } from '../writing/useWrite';

const rules = (seed: number): [string, string, SprinkleRule | null][] => [
  ['all', 'all of them', { kind: 'all' }],
  ['alone', 'those that stand alone', { kind: 'alone' }],
  ['half', 'half of them, scattered', { kind: 'scatter', n: 2, seed }],
  ['fifth', 'one in five, scattered', { kind: 'scatter', n: 5, seed }],
  ['tenth', 'one in ten, scattered', { kind: 'scatter', n: 10, seed }],
  ['picked', 'those picked on the canvas', null],
];

/** Drills of the chosen colour are replaced by another finish, wholly or here and there; the counts move with them. */
export function FinishSlip({
  chart,
  legend,
  line,
  picked,
  last,
  canvasId,
  onPreview,
  onDone,
}: {
  chart: Chart;
  legend: LegendLine[];
  line: LegendLine | null;
  /** Cells that were picked by hand. */
  picked: ReadonlySet<number>;
  last: RepairView['finish'];
  canvasId: string;
  /** Shows on the canvas which drills it would be. */
  onPreview: (cells: number[]) => void;
  onDone: () => void;
}) {
  const [rule, setRule] = useState('all');
  const [finish, setFinish] = useState<Finish>('iridescent');
  const [code, setCode] = useState('');
  const [seed, setSeed] = useState(1);
  const [open, setOpen] = useState(false);
  const { fault, busy, enter } = useWrite(canvasId);
  const base = `/api/canvases/${canvasId}`;
  const choices = useMemo(() => rules(seed), [seed]);
  const by = choices.find(([key]) => key === rule)![2];
  const cells = useMemo(
    () => (line ? finishCells(chart, line.line, by, picked) : []),
    [chart, line, by, picked],
  );
  useEffect(() => {
    onPreview(open ? cells : []);
    return () => onPreview([]);
  }, [open, cells, onPreview]);
  const known = legend.find((each) => each.code === code.trim() && each.finish === finish);
  const replace = () => {
    if (!line) return;
    const wish = { line: line.line, finish, code: code.trim(), runs: runsFromCells(cells) };
    void enter(`${base}/finishes`, wish, onDone);
  };
  const undo = (undoes: string) => void enter(`${base}/chart-edits`, { undoes }, onDone);
  return (
    <details className="slip" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-11 py-1.5 font-semibold">Replace by another finish</summary>
      <form
        className="flex flex-col gap-2.5"
        onSubmit={(event) => {
          event.preventDefault();
          replace();
        }}
      >
        <p>{line ? `Of ${line.code} ${line.name}:` : 'Choose a colour above first.'}</p>
        <select
          className="field"
          aria-label="Which drills"
          value={rule}
          onChange={(event) => setRule(event.target.value)}
        >
          {choices.map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
        {by?.kind === 'scatter' && (
          <button type="button" className="button" onClick={() => setSeed((before) => before + 1)}>
            Scatter them differently
          </button>
        )}
        <select
          className="field"
          aria-label="New finish"
          value={finish}
          onChange={(event) => setFinish(event.target.value as Finish)}
        >
          {FINISHES.map((each) => (
            <option key={each} value={each}>
              {each}
            </option>
          ))}
        </select>
        <label className="block">
          <span className="mb-0.5 block text-[0.95rem]">Code of the special drills</span>
          <input
            className="field number"
            value={code}
            maxLength={24}
            {...AS_TYPED}
            onChange={(event) => setCode(event.target.value)}
          />
        </label>
        {known && <p>They join the colour {known.line}.</p>}
        {fault && <Notice kind="fault">{fault}</Notice>}
        <button type="submit" className="button" disabled={busy || cells.length === 0 || code.trim() === ''}>
          Replace {counted(cells.length, 'drill')}
        </button>
        <p className="text-[0.95rem] text-faded">
          To pick drills by hand, choose the tool Pick and point at them or brush over them.
        </p>
        {last && (
          <button type="button" className="button" disabled={busy} onClick={() => undo(last.id)}>
            <Undo2 size={18} aria-hidden /> Undo: {counted(last.drills, 'drill')} of{' '}
            {ofLine(legend, last.from)?.code} became {ofLine(legend, last.special)?.code}
          </button>
        )}
      </form>
    </details>
  );
}
