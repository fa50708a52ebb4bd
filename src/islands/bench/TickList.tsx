import type { Shape } from '../../core/canvas/canvas';
import type { Pot } from '../../core/codes/places';
import { counted } from '../../core/words/numbers';
import type { TicksView } from '../../server/sections/contract';
import { ColourTicks } from '../../ui/ColourTicks';
import { Notice } from '../../ui/Notice';
import { useAnswer } from '../writing/useAnswer';
import { useWrite } from '../writing/useWrite';

/** Without a chart: the colours of the list, each with its pot, ticked when it is done in the section in front. */
export function TickList({
  canvasId,
  section,
  pots,
  shape,
}: {
  canvasId: string;
  section: number;
  pots: readonly Pot[];
  shape: Shape;
}) {
  const url = `/api/canvases/${canvasId}/ticks`;
  const { answer, fault: lost, reload } = useAnswer<TicksView>(url);
  const { fault, enter } = useWrite(canvasId);
  const done = new Set(answer?.ticked.filter((each) => each.section === section).map(({ line }) => line));
  if (!answer) return lost ? <Notice kind="fault">{lost}</Notice> : <p>Loading…</p>;
  return (
    <section
      aria-label="Colours done in this section"
      className="flex min-h-[18.1rem] shrink-0 grow basis-0 flex-col"
    >
      <p className="mb-1" aria-live="polite">
        {done.size} of {counted(pots.length, 'colour')} done in section {section}
      </p>
      {fault && <Notice kind="fault">{fault}</Notice>}
      <ColourTicks
        lines={pots.map((pot) => pot.line)}
        shape={shape}
        isTicked={({ line }) => done.has(line)}
        onTick={({ line }, ticked) =>
          void enter<TicksView>(url, { section, line, done: ticked }, reload, true)
        }
        beside={({ line }) => pots.find((pot) => pot.line.line === line)?.place}
      />
    </section>
  );
}
