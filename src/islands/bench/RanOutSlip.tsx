import { useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { knownWanting } from '../../core/requests/ranOut';
import { counted, many } from '../../core/words/numbers';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { useWrite } from '../writing/useWrite';

/** For a colour that runs out while it is laid: what is left goes on record, and the letter asks for the rest. */
export function RanOutSlip({ canvasId, line }: { canvasId: string; line: LegendLine }) {
  const [left, setLeft] = useState(0);
  const [wanting, setWanting] = useState<number | null>(null);
  const { busy, fault, enter } = useWrite(canvasId);
  const report = () =>
    void enter<{ toLay: number }>(
      `/api/canvases/${canvasId}/requests/ran-out`,
      { line: line.line, left },
      ({ toLay }) => setWanting(knownWanting({ happenedAt: '', leftDrills: left, toLay }, [])),
    );
  return (
    <details className="slip !py-2">
      <summary className="min-h-11 py-2 font-semibold">{line.code} runs out</summary>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          report();
        }}
      >
        <NumberField
          words="Drills of it that are left"
          className="[&_input]:!w-28"
          value={left}
          least={0}
          most={100_000}
          whole
          onChange={setLeft}
        />
        <button type="submit" className="button" disabled={busy}>
          Report it
        </button>
      </form>
      {fault && <Notice kind="fault">{fault}</Notice>}
      {wanting !== null && (
        <p role="status" className="mt-2">
          {wanting === 0
            ? `What is left is enough for the rest of ${line.code}.`
            : `${many(wanting)} more are needed for the rest of ${line.code}. `}
          {wanting > 0 && (
            <a className="underline" href={`/canvas/${canvasId}/checkin/request`}>
              Ask the seller, or take {counted(wanting, 'drill')} from the stash
            </a>
          )}
        </p>
      )}
    </details>
  );
}
