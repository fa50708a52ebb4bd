import { useMemo, useRef, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { minutesInWords } from '../../core/pace/timeInWords';
import { nextInOrder } from '../../core/sections/next';
import type { SectionTally } from '../../core/sections/section';
import { sectionInWords } from '../../core/sections/sectionsInWords';
import { many } from '../../core/words/numbers';
import type { SectionsView } from '../../server/sections/contract';
import { Dialog } from '../../ui/Dialog';
import { Map as MapIcon } from '../../ui/icons';
import { NumberField } from '../../ui/NumberField';
import { Pager } from '../../ui/Pager';
import { useAnswer } from '../writing/useAnswer';
import { SectionMap } from './SectionMap';

interface ChooserProps {
  canvas: Canvas;
  hasChart: boolean;
  count: number;
  /** How all sections stand now; asked when the map is opened. */
  tally: () => readonly SectionTally[];
  number: number;
  onChange: (number: number) => void;
}

/** Which section is in front, with the one before and the one after, and a map of all. */
export function SectionChooser(props: ChooserProps) {
  const { count, number, onChange } = props;
  const dialog = useRef<HTMLDialogElement>(null);
  const [open, setOpen] = useState(false);
  return (
    <>
      <Pager what="Section" number={number} count={count} onChange={onChange}>
        <button
          type="button"
          className="button"
          aria-haspopup="dialog"
          onClick={() => {
            setOpen(true);
            dialog.current?.showModal();
          }}
        >
          <MapIcon size={20} aria-hidden />
          <span>
            Section <span className="number font-semibold">{many(number)}</span> of {many(count)}
          </span>
          <span className="sr-only">, choose another</span>
        </button>
      </Pager>
      <Dialog title="Choose a section" width={44} handle={dialog} onClose={() => setOpen(false)}>
        {open && (
          <Choice
            {...props}
            onChange={(next) => {
              onChange(next);
              dialog.current?.close();
            }}
          />
        )}
      </Dialog>
    </>
  );
}

function Choice({ canvas, hasChart, tally, number, onChange }: ChooserProps) {
  const [sections] = useState(tally);
  const [at, setAt] = useState(number);
  const next = nextInOrder(sections, number);
  // Minutes, hand and cover come a moment later; the map is of use without them.
  const { answer: view } = useAnswer<SectionsView>(`/api/canvases/${canvas.id}/sections`);
  const judged = view?.sections.length === sections.length ? view.sections : null;
  const here = judged?.[at - 1];
  const conflicts = useMemo(
    () =>
      judged
        ? new Set(
            judged
              .filter((each) => each.conflict !== null && each.laid < each.drills)
              .map((each) => each.number),
          )
        : undefined,
    [judged],
  );
  return (
    <div className="flex flex-col gap-3">
      <SectionMap
        canvas={canvas}
        hasChart={hasChart}
        sections={sections}
        at={at}
        onAt={setAt}
        onChoose={onChange}
        {...(conflicts ? { conflicts } : {})}
        focused
      />
      <p aria-live="polite" className="min-h-14">
        {sectionInWords(sections[at - 1]!)}
        {here && here.laid < here.drills && `, ${minutesInWords(here.minutes)}; turn ${many(here.order)}.`}{' '}
        {here && here.laid < here.drills && here.conflict}
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <NumberField
          words="Section"
          className="[&_input]:!w-28"
          value={at}
          least={1}
          most={sections.length}
          whole
          onChange={setAt}
        />
        <button type="button" className="button button-main" onClick={() => onChange(at)}>
          Go to section {many(at)}
        </button>
        <button
          type="button"
          className="button"
          disabled={next === null}
          onClick={() => next !== null && onChange(next)}
        >
          {next === null ? 'No other is left' : `Next in order: ${many(next)}`}
        </button>
      </div>
    </div>
  );
}
