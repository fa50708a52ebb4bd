import { useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { runsFromCells } from '../../core/chart/cellRuns';
import type { Chart } from '../../core/chart/chart';
import { type SprinkleRule, sprinkled } from '../../core/chart/edit';
import { FINISHES, type Finish } from '../../core/colour/finish';
import { counted } from '../../core/words/numbers';
import { inWords, sendJson } from '../../ui/api';
import { Notice } from '../../ui/Notice';

const RULES: [string, string, SprinkleRule][] = [
  ['all', 'all of them', { kind: 'all' }],
  ['alone', 'those that stand alone', { kind: 'alone' }],
  ['every2', 'every second', { kind: 'every', n: 2 }],
  ['every5', 'every fifth', { kind: 'every', n: 5 }],
  ['every10', 'every tenth', { kind: 'every', n: 10 }],
];

/** Drills of the chosen colour are replaced by another finish, wholly or here and there; the counts move with them. */
export function FinishSlip({
  chart,
  legend,
  line,
  base,
  onDone,
}: {
  chart: Chart;
  legend: LegendLine[];
  line: LegendLine | null;
  base: string;
  onDone: () => void;
}) {
  const [rule, setRule] = useState('all');
  const [finish, setFinish] = useState<Finish>('iridescent');
  const [code, setCode] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const cells = line ? sprinkled(chart, line.line, RULES.find(([key]) => key === rule)![2]) : [];
  const known = legend.find((each) => each.code === code.trim() && each.finish === finish);
  const replace = async () => {
    if (!line) return;
    setFault(null);
    try {
      const wish = {
        id: crypto.randomUUID(),
        line: line.line,
        finish,
        code: code.trim(),
        runs: runsFromCells(cells),
      };
      await sendJson('POST', `${base}/finishes`, wish);
      onDone();
    } catch (error) {
      setFault(inWords(error));
    }
  };
  return (
    <details className="slip">
      <summary className="min-h-11 py-1.5 font-semibold">Replace by another finish</summary>
      <form
        className="flex flex-col gap-2.5"
        onSubmit={(event) => {
          event.preventDefault();
          void replace();
        }}
      >
        <p>{line ? `Of ${line.code} ${line.name}:` : 'Choose a colour above first.'}</p>
        <select
          className="field"
          aria-label="Which drills"
          value={rule}
          onChange={(event) => setRule(event.target.value)}
        >
          {RULES.map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
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
            onChange={(event) => setCode(event.target.value)}
          />
        </label>
        {known && <p>They join line {known.line}.</p>}
        {fault && <Notice kind="fault">{fault}</Notice>}
        <button type="submit" className="button" disabled={cells.length === 0 || code.trim() === ''}>
          Replace {counted(cells.length, 'drill')}
        </button>
        <p className="text-[0.95rem] text-faded">
          Single drills are set by hand: replace one, then brush the others with the new colour. To take it
          back, brush or replace them by {line?.code ?? 'the old colour'} again.
        </p>
      </form>
    </details>
  );
}
