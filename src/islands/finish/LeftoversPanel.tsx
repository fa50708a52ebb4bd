import { useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import { leftInWords } from '../../core/finish/leftovers';
import { counted, many } from '../../core/words/numbers';
import type { FinishView } from '../../server/finish/contract';
import { Colour } from '../../ui/Chip';
import { Printer, Undo2 } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { ScrollRegion } from '../../ui/ScrollRegion';
import { useWrite } from '../writing/useWrite';

/** What is left over of each colour, in code order, and into the stash with it in one go. */
export function LeftoversPanel({
  canvas,
  legend,
  view,
  query,
  onView,
}: {
  canvas: Canvas;
  legend: LegendLine[];
  view: FinishView;
  query: string;
  onView: (view: FinishView) => void;
}) {
  const { fault, busy, write } = useWrite(canvas.id);
  /** What was counted or weighed, by line; the estimate stands for the rest. */
  const [counts, setCounts] = useState<ReadonlyMap<number, number>>(new Map());
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [done, setDone] = useState<number[] | null>(null);
  const url = `/api/canvases/${canvas.id}/leftovers${query}`;
  const open = view.leftovers.filter(({ putAway }) => putAway === null);
  const chosen = open.filter(({ line }) => !left.has(line));
  const drillsOf = (line: number, estimate: number) => counts.get(line) ?? estimate;
  const sum = chosen.reduce((all, each) => all + drillsOf(each.line, each.left), 0);
  const putAway = () => {
    const colours = chosen.map((each) => ({ line: each.line, drills: drillsOf(each.line, each.left) }));
    void write<FinishView>('POST', url, { id: crypto.randomUUID(), colours }, (next) => {
      setDone(colours.map(({ line }) => line));
      onView(next);
    });
  };
  const away = view.leftovers.filter(({ putAway }) => putAway !== null).map(({ line }) => line);
  // Another screen may have undone it meanwhile.
  const stands = done?.every((line) => away.includes(line)) ?? false;
  const takeBack = (lines: number[]) =>
    void write<FinishView>('PUT', url, { id: crypto.randomUUID(), lines }, (next) => {
      setDone(null);
      onView(next);
    });
  if (view.leftovers.length === 0) return <p>The colour list is empty, so nothing is known of leftovers.</p>;
  return (
    <form
      aria-label="Leftovers"
      className="flex min-w-0 flex-col gap-3"
      // Enter in one of the numbers puts nothing away.
      onSubmit={(event) => event.preventDefault()}
    >
      {done && stands && (
        <p role="status" className="slip flex flex-wrap items-center gap-3 border-l-4 border-well !py-3">
          <span className="grow">
            {counted(done.length, 'colour')} put into the stash; their pots are free.
          </span>
          <button type="button" className="button" disabled={busy} onClick={() => takeBack(done)}>
            <Undo2 size={20} aria-hidden /> Undo
          </button>
        </p>
      )}
      {away.length > 0 && (
        <p className="flex flex-wrap gap-3">
          {view.leftovers.some(({ putAway }) => putAway) && (
            <a className="button" href={`/canvas/${canvas.id}/kitup/labels?which=leftovers`}>
              <Printer size={20} aria-hidden /> Print labels for the bags
            </a>
          )}
          {!stands && (
            <button type="button" className="button" disabled={busy} onClick={() => takeBack(away)}>
              <Undo2 size={20} aria-hidden /> Undo all {counted(away.length, 'colour')}
            </button>
          )}
        </p>
      )}
      {fault && <Notice kind="fault">{fault}</Notice>}
      {open.length > 0 && (
        <div className="flex flex-wrap items-center justify-between gap-3">
          <p>
            <span className="big-number">{many(sum)}</span> drills of {counted(chosen.length, 'colour')} go
            into the stash, as bags in the order of their codes.
          </p>
          <button
            type="button"
            className="button button-main"
            disabled={busy || chosen.length === 0}
            onClick={(event) => event.currentTarget.form!.reportValidity() && putAway()}
          >
            Put {counted(chosen.length, 'colour')} into the stash
          </button>
        </div>
      )}
      {open.length > 0 && (
        <p className="text-[0.95rem] text-faded">
          Received, less laid, less bad drills; four times in five it lies within the range. Type over it what
          you counted or weighed.
        </p>
      )}
      <ScrollRegion label="Leftovers by colour" className="max-h-[34rem]">
        <table className="table-plain">
          <caption className="sr-only">Leftovers by colour</caption>
          <thead>
            <tr>
              <th>Goes</th>
              <th>Colour</th>
              <th className="!text-right">Received</th>
              <th className="!text-right">Laid</th>
              <th className="!text-right">Bad</th>
              <th>Left over</th>
              <th>Counted</th>
            </tr>
          </thead>
          <tbody>
            {view.leftovers.map((each) => {
              const line = ofLine(legend, each.line);
              if (!line) return null;
              const isAway = each.putAway !== null;
              return (
                <tr key={each.line}>
                  <td>
                    {isAway ? (
                      'done ✓'
                    ) : (
                      <label className="flex min-h-11 min-w-11 items-center">
                        <input
                          type="checkbox"
                          className="size-6 accent-accent"
                          aria-label={`${line.code} goes into the stash`}
                          checked={!left.has(each.line)}
                          onChange={(event) => {
                            const next = new Set(left);
                            if (event.target.checked) next.delete(each.line);
                            else next.add(each.line);
                            setLeft(next);
                          }}
                        />
                      </label>
                    )}
                  </td>
                  <td>
                    <Colour line={line} shape={canvas.shape} size={32} />
                  </td>
                  <td className="number text-right">{many(each.received)}</td>
                  <td className="number text-right">{many(each.laid)}</td>
                  <td className="number text-right">{many(each.bad)}</td>
                  <td>{isAway ? `${many(each.putAway!)} in the stash` : leftInWords(each)}</td>
                  <td>
                    {isAway ? (
                      <button
                        type="button"
                        className="button"
                        disabled={busy}
                        aria-label={`Undo: ${line.code} comes back out of the stash`}
                        onClick={() => takeBack([each.line])}
                      >
                        Undo
                      </button>
                    ) : (
                      <NumberField
                        words={`Leftover of ${line.code}`}
                        hidden
                        className="[&_input]:!w-28"
                        value={drillsOf(each.line, each.left)}
                        least={0}
                        most={1_000_000}
                        whole
                        onChange={(drills) => setCounts(new Map(counts).set(each.line, drills))}
                      />
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </ScrollRegion>
    </form>
  );
}
