import { useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { changedFinish, type FinishChange } from '../../core/finish/record';
import { dayIn } from '../../core/words/calendar';
import { counted, many } from '../../core/words/numbers';
import type { FinishView } from '../../server/finish/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Notice } from '../../ui/Notice';
import { ToggleButton } from '../../ui/ToggleButton';
import { withLegend } from '../../ui/withLegend';
import { useAnswer } from '../writing/useAnswer';
import { useNewest } from '../writing/useNewest';
import { useTypedText } from '../writing/useTypedText';
import { useWrite } from '../writing/useWrite';
import { FramePanel } from './FramePanel';
import { LeftoversPanel } from './LeftoversPanel';
import { LogPanel } from './LogPanel';
import { WalkPanel } from './WalkPanel';

const PANELS = {
  walk: 'Last walk',
  frame: 'Seal and frame',
  log: 'Log page',
  leftovers: 'Leftovers',
} as const;
type Panel = keyof typeof PANELS;

/** The end of a canvas: a last walk over it, sealing and frame, its page in the log, and its leftovers. */
export const FinishStation = withLegend(FinishStationWithList);

function FinishStationWithList({ entry, legend }: { entry: ShelfEntry; legend: LegendLine[] }) {
  const { canvas } = entry;
  const [zone] = useState(() => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC');
  const query = `?zone=${encodeURIComponent(zone)}`;
  const url = `/api/canvases/${canvas.id}/finish${query}`;
  const {
    answer,
    fault: lost,
    reload,
    overtaken,
  } = useAnswer<FinishView>(url, ['marks', 'sittings', 'bags', 'pots', 'trash', 'repairs', 'other']);
  const [told, setTold] = useState<FinishView | null>(null);
  const [panel, setPanel] = useState<Panel>('walk');
  const { fault, busy, write } = useWrite(canvas.id);
  const newest = useNewest();
  // What was answered last holds, but for what is told here and still on its way.
  const [seen, setSeen] = useState<FinishView | null>(null);
  if (answer !== seen) {
    setSeen(answer);
    setTold(answer && busy && told ? { ...answer, record: told.record } : answer);
  }
  const send = (part: FinishChange & { notesBefore?: string }, refused?: () => void) => {
    const shown = newest((view: FinishView) => {
      setTold(view);
      overtaken();
    });
    void write('PATCH', url, { id: crypto.randomUUID(), ...part }, shown, true, refused);
  };
  const notes = useTypedText(told?.record.notes ?? '', (text, from, refused) =>
    send({ notes: text, notesBefore: from }, () => {
      refused();
      // What another screen wrote is shown beside it.
      reload();
    }),
  );
  if (lost) return <Notice kind="fault">{lost}</Notice>;
  if (!told) return <p aria-live="polite">Loading…</p>;
  const change = (part: FinishChange) => {
    setTold({ ...told, record: changedFinish(told.record, part) });
    send(part);
  };
  const { walk, facts } = told;
  const open = walk.bare.drills + walk.popped.drills + walk.doubtful.drills;
  return (
    <div className="flex min-w-0 flex-col gap-4">
      <div aria-live="polite">
        {facts.laid === 0 ? (
          <p className="text-[1.3rem] font-semibold">Nothing is laid yet.</p>
        ) : open === 0 ? (
          <p className="text-[1.3rem] font-semibold">
            Every square is laid{facts.finishedOn ? ' and nothing is in doubt' : ''}.
          </p>
        ) : (
          <p>
            <span className="big-number">{many(open)}</span> {open === 1 ? 'square wants' : 'squares want'} a
            look:{' '}
            {[
              walk.bare.drills > 0 && `${many(walk.bare.drills)} bare`,
              walk.popped.drills > 0 && `${many(walk.popped.drills)} popped`,
              walk.doubtful.drills > 0 && `${many(walk.doubtful.drills)} doubtful`,
            ]
              .filter(Boolean)
              .join(', ')}
          </p>
        )}
        <p className="text-faded">
          {counted(told.record.checked.length, 'step')} of the last walk done
          {told.leftovers.length > 0 &&
            `, ${many(told.leftovers.filter(({ putAway }) => putAway !== null).length)} of ${counted(told.leftovers.length, 'colour')} put away`}
        </p>
      </div>
      {fault && <Notice kind="fault">{fault}</Notice>}
      <fieldset className="flex flex-wrap gap-1" aria-label="What to do">
        {(Object.keys(PANELS) as Panel[]).map((key) => (
          <ToggleButton key={key} on={panel === key} onChange={() => setPanel(key)}>
            {PANELS[key]}
          </ToggleButton>
        ))}
      </fieldset>
      {panel === 'walk' && <WalkPanel entry={entry} legend={legend} view={told} onChange={change} />}
      {panel === 'frame' && <FramePanel canvas={canvas} view={told} onChange={change} />}
      {panel === 'log' && (
        <LogPanel
          entry={entry}
          legend={legend}
          view={told}
          query={query}
          today={dayIn(zone, new Date())}
          busy={busy}
          onChange={change}
          notes={notes}
        />
      )}
      {panel === 'leftovers' && (
        <LeftoversPanel
          canvas={canvas}
          legend={legend}
          view={told}
          query={query}
          onView={(view) => {
            setTold(view);
            overtaken();
          }}
        />
      )}
    </div>
  );
}
