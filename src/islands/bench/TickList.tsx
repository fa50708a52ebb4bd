import { useEffect, useState } from 'react';
import type { Shape } from '../../core/canvas/canvas';
import type { Pot } from '../../core/codes/places';
import type { Section } from '../../core/sections/section';
import { counted } from '../../core/words/numbers';
import type { TicksView } from '../../server/sections/contract';
import { ColourTicks } from '../../ui/ColourTicks';
import { Notice } from '../../ui/Notice';
import { useAnswer } from '../writing/useAnswer';
import { useWrite } from '../writing/useWrite';

/** Without a chart: the colours of the list, each with its pot, ticked when it is done in the section in front. */
export function TickList({
  canvasId,
  section: { number: section, x, y, width, height },
  pots,
  shape,
}: {
  canvasId: string;
  section: Section;
  pots: readonly Pot[];
  shape: Shape;
}) {
  const url = `/api/canvases/${canvasId}/ticks`;
  const { answer, fault: lost, reload, overtaken } = useAnswer<TicksView>(url, ['other', 'sheet']);
  const { fault, enter } = useWrite(canvasId);
  const [view, setView] = useState<TicksView | null>(null);
  /** What was said here and is not acknowledged yet, by section and colour. */
  const [said, setSaid] = useState<ReadonlyMap<string, boolean>>(new Map());
  useEffect(() => {
    // What the server answers on a question holds: a tick that it refused is no tick.
    setView(answer);
    setSaid(new Map());
  }, [answer]);
  const keyOf = (line: number) => `${section} ${line}`;
  const isDone = (line: number) =>
    said.get(keyOf(line)) ??
    (view?.ticked.some((each) => each.section === section && each.line === line) || false);
  const tick = async (line: number, done: boolean) => {
    const key = keyOf(line);
    setSaid((before) => new Map(before).set(key, done));
    const acknowledged = await enter<TicksView>(
      url,
      { section, around: { x, y, width, height }, line, done },
      (next) => {
        setView(next);
        overtaken();
        setSaid((before) => new Map([...before].filter(([other, value]) => other !== key || value !== done)));
      },
      true,
    );
    if (!acknowledged) reload();
  };
  if (!answer) return lost ? <Notice kind="fault">{lost}</Notice> : <p>Loading…</p>;
  return (
    <section
      aria-label="Colours done in this section"
      className="flex min-h-[18.1rem] shrink-0 grow basis-0 flex-col"
    >
      <p className="mb-1" aria-live="polite">
        {pots.filter(({ line }) => isDone(line.line)).length} of {counted(pots.length, 'colour')} done in
        section {section}
      </p>
      {fault && <Notice kind="fault">{fault}</Notice>}
      <ColourTicks
        lines={pots.map((pot) => pot.line)}
        shape={shape}
        isTicked={({ line }) => isDone(line)}
        onTick={({ line }, ticked) => void tick(line, ticked)}
        beside={({ line }) => pots.find((pot) => pot.line.line === line)?.place}
      />
    </section>
  );
}
