import { useState } from 'react';
import type { Shape } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { counted, many } from '../../core/words/numbers';
import { ColourTicks } from '../../ui/ColourTicks';
import { Undo2 } from '../../ui/icons';
import { ToggleButton } from '../../ui/ToggleButton';

/** What was laid before the canvas came here: whole sections, or colours over all of it. */
export function LaidBefore({
  sections,
  drills,
  colours,
  shape,
  area,
  onArea,
  onClear,
  onSections,
  onColours,
  done,
  onUndo,
}: {
  /** Sections that are chosen, and the drills left in them. */
  sections: number;
  drills: number;
  /** Colours with drills left; none without a chart. */
  colours: readonly { line: LegendLine; left: number }[];
  shape: Shape;
  area: boolean;
  onArea: (area: boolean) => void;
  onClear: () => void;
  onSections: () => void;
  onColours: (lines: number[]) => void;
  /** What was entered last; null before. */
  done: number | null;
  onUndo: (() => void) | null;
}) {
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const inTicked = colours.filter(({ line }) => ticked.has(line.line));
  const inTickedDrills = inTicked.reduce((sum, { left }) => sum + left, 0);
  const tick = (line: number, on: boolean) => {
    const next = new Set(ticked);
    if (on) next.add(line);
    else next.delete(line);
    setTicked(next);
  };
  return (
    <div className="flex min-h-0 grow flex-col gap-3" data-testid="laid-before">
      <div className="slip !py-3">
        <h2>What was laid before</h2>
        <p className="mt-1">
          Press the sections that were done before you kept this canvas here, or drag over them. For an area,
          hold Shift, or press “Choose an area” and then the section in its far corner. They count for the
          percent, not for a day.
        </p>
        <p className="big-number mt-2">{many(drills)}</p>
        <p aria-live="polite">
          {sections === 0 ? 'drills: no section is chosen yet' : `drills in ${counted(sections, 'section')}`}
        </p>
        <div className="mt-2 flex flex-wrap gap-2">
          <button
            type="button"
            className="button button-main grow"
            disabled={drills === 0}
            onClick={onSections}
          >
            {sections === 0 ? 'Enter them as laid' : `Enter ${counted(sections, 'section')} as laid`}
          </button>
          <ToggleButton on={area} onChange={onArea}>
            Choose an area
          </ToggleButton>
          <button type="button" className="button" disabled={sections === 0} onClick={onClear}>
            Choose none
          </button>
        </div>
      </div>
      {/* Its room is kept, so that the colours below do not move from under a hand when the answer comes. */}
      <p className="flex min-h-13 shrink-0 items-center gap-2" role="status">
        {done !== null && (
          <>
            <span className="grow">{counted(done, 'drill')} entered as laid before.</span>
            {onUndo && (
              <button type="button" className="button" onClick={onUndo}>
                <Undo2 size={20} aria-hidden /> Undo
              </button>
            )}
          </>
        )}
      </p>
      {colours.length > 0 && (
        <section aria-label="Whole colours" className="flex min-h-72 grow flex-col gap-2">
          <h2>Or whole colours, all over the canvas</h2>
          <ColourTicks
            lines={colours.map(({ line }) => line)}
            shape={shape}
            isTicked={({ line }) => ticked.has(line)}
            onTick={({ line }, on) => tick(line, on)}
            beside={(line) => `${many(colours.find((each) => each.line === line)?.left ?? 0)} left`}
          />
          <button
            type="button"
            className="button"
            disabled={inTicked.length === 0}
            onClick={() => {
              onColours(inTicked.map(({ line }) => line.line));
              setTicked(new Set());
            }}
          >
            {inTicked.length === 0
              ? 'Enter them as laid'
              : `Enter ${counted(inTicked.length, 'colour')} as laid, ${counted(inTickedDrills, 'drill')}`}
          </button>
        </section>
      )}
    </div>
  );
}
