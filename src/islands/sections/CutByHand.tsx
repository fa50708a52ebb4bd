import { type ReactNode, useMemo, useRef, useState } from 'react';
import { wholeRect } from '../../core/cells/rect';
import { Refusal } from '../../core/refusal';
import {
  asSections,
  joined,
  movedSide,
  numberedInOrder,
  piecesOf,
  renamed,
  renumbered,
  type Side,
  split,
} from '../../core/sections/editCut';
import { sectionByKey } from '../../core/sections/next';
import { inOrder } from '../../core/sections/order';
import { type Piece, piecesToText } from '../../core/sections/plan';
import { planFigures } from '../../core/sections/planInWords';
import { sectionAt } from '../../core/sections/section';
import { counted, many } from '../../core/words/numbers';
import { panelsLayer } from '../../ui/cloth/layers';
import { endsEntry } from '../../ui/composing';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { ToggleButton } from '../../ui/ToggleButton';
import { useAsksBeforeLeaving } from '../../ui/useAsksBeforeLeaving';
import { StationCloth } from '../cloth/StationCloth';
import type { ClothData } from '../cloth/useClothData';
import { CutFigures } from './CutFigures';
import { cutsLayer, pickedLayer } from './cutsLayer';
import { usePickedSections } from './usePickedSections';
import type { SectionProps, SectionStation } from './useSectionStation';
import { useSectionWork } from './useSectionWork';

const SIDES: Side[] = ['left', 'right', 'top', 'bottom'];

/** Changes the cut by hand, step by step; nothing is kept before “Keep this cut”. */
export function CutByHand({
  entry,
  legend,
  data,
  station,
  choice,
  kept,
}: SectionProps & { data: ClothData; station: SectionStation; choice: ReactNode; kept: ReactNode }) {
  const { canvas, hasChart } = entry;
  const { plan, wish, ground, judged } = station;
  const present = useMemo(() => piecesOf(station.tallies.map(({ section }) => section)), [station.tallies]);
  /** Every step since the present cut, the last one in front. */
  const [steps, setSteps] = useState<readonly (readonly Piece[])[]>([]);
  /** The cut that the first step began from. */
  const [begunFrom, setBegunFrom] = useState(plan);
  const isOther = steps.length > 0 && begunFrom !== plan && !station.busy;
  const pieces = steps.at(-1) ?? present;
  useAsksBeforeLeaving(steps.length > 0);
  const sections = useMemo(
    () => inOrder(asSections(pieces), plan.order, canvas),
    [pieces, plan.order, canvas],
  );
  const [at, setAt] = useState(1);
  const here = sections[Math.min(at, sections.length) - 1]!;
  const [choosing, setChoosing] = useState(false);
  const shift = useRef(false);
  const hand = usePickedSections(sections, here.number, setAt, () => shift.current);
  const [squares, setSquares] = useState(1);
  const [side, setSide] = useState<Side>('right');
  const [after, setAfter] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const task = useMemo(
    () =>
      steps.length > 0
        ? {
            what: 'judge' as const,
            ground,
            plan: { block: null, pieces: piecesToText(pieces), order: plan.order },
            wish,
          }
        : null,
    [steps.length, pieces, ground, plan.order, wish],
  );
  const work = useSectionWork(task);
  const draft = task && work.result && 'judged' in work.result ? work.result.judged : null;
  /** @returns whether it could be done */
  const step = (change: () => Piece[]): boolean => {
    setFault(null);
    try {
      const next = change();
      if (steps.length === 0) setBegunFrom(plan);
      setSteps([...steps, next]);
      setAfter(null);
      return true;
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      setFault(error.message);
      return false;
    }
  };
  const layers = useMemo(
    () => [
      cutsLayer(sections, choosing ? null : here.number, new Set()),
      ...(choosing ? [pickedLayer(sections, hand.picked)] : []),
      panelsLayer(canvas.panelRects),
    ],
    [sections, here.number, canvas, choosing, hand.picked],
  );
  const view = useMemo(() => ({ laid: data.laid, focus: null }), [data]);
  const frame = useMemo(() => wholeRect(canvas), [canvas]);
  const keep = async () => {
    if (await station.keep({ pieces: piecesToText(pieces), order: plan.order })) setSteps([]);
  };
  const half = (length: number) => Math.max(1, Math.floor(length / 2));

  return (
    <div className="station lg:h-[calc(100dvh-12.4rem)] lg:grid-cols-[1fr_23rem]">
      <section
        className="flex min-h-[30rem] min-w-0 flex-col md:min-h-[36rem] lg:min-h-0"
        aria-label="The cut, changed by hand"
        onPointerDownCapture={({ shiftKey }) => {
          shift.current = shiftKey;
        }}
      >
        <StationCloth
          label={`${canvas.title}, cut into ${many(sections.length)} sections; arrow keys move from section to section${choosing ? ', Space chooses' : ''}`}
          entry={entry}
          legend={legend}
          data={data}
          wish={view}
          layers={layers}
          frame={frame}
          cursor={null}
          {...(choosing ? { marking: hand.marking } : {})}
          onCursor={(place) => {
            if (choosing) return;
            const section = sectionAt(sections, place.x, place.y);
            if (section) {
              setAt(section.number);
              setAfter(null);
            }
          }}
          onKey={({ key, shiftKey }) => {
            if (choosing) return hand.onKey({ key, shiftKey });
            const next = sectionByKey(sections, here.number, key);
            if (next === null) return false;
            setAt(next);
            setAfter(null);
            return true;
          }}
        />
      </section>
      <section className="flex min-h-0 min-w-0 flex-col gap-3 overflow-y-auto" aria-label="By hand">
        {choice}
        {steps.length > 0 && (
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="button button-main grow"
              disabled={station.busy}
              onClick={() => void keep()}
            >
              Keep this cut
            </button>
            <button type="button" className="button" onClick={() => setSteps(steps.slice(0, -1))}>
              One step back
            </button>
          </div>
        )}
        {(fault ?? work.fault) && <Notice kind="fault">{fault ?? work.fault}</Notice>}
        {isOther && (
          <Notice kind="hint">
            This canvas was cut on another screen since you began. Keeping yours takes its place, which can be
            undone.
          </Notice>
        )}
        <div className="slip flex flex-col gap-3 !py-3">
          <p className="text-lg font-semibold" aria-live="polite">
            Section {many(here.number)}
            {here.name !== null && `, ${here.name}`}: {here.width} × {here.height} squares
          </p>
          <div className="grid grid-cols-[1fr_auto] items-end gap-2">
            <label className="block">
              <span className="mb-0.5 block text-[0.95rem] leading-tight">Name</span>
              <input
                key={`${here.number} ${here.name}`}
                className="field"
                defaultValue={here.name ?? ''}
                maxLength={60}
                onBlur={({ target }) =>
                  target.value.trim() !== (here.name ?? '') &&
                  step(() => renamed(sections, here.number, target.value))
                }
                onKeyDown={(event) => endsEntry(event) && event.currentTarget.blur()}
              />
            </label>
            <NumberField
              words="Number"
              className="[&_input]:!w-24"
              value={here.number}
              least={1}
              most={sections.length}
              whole
              late
              onChange={(to) => {
                step(() => renumbered(sections, here.number, to));
                setAt(to);
              }}
            />
          </div>
          <fieldset className="flex flex-wrap items-end gap-2">
            <legend className="text-[0.95rem]">Move a side</legend>
            <select
              className="field !w-auto"
              aria-label="Which side"
              value={side}
              onChange={(event) => setSide(event.target.value as Side)}
            >
              {SIDES.map((each) => (
                <option key={each} value={each}>
                  {each}
                </option>
              ))}
            </select>
            <NumberField
              words="by squares"
              hidden
              className="[&_input]:!w-20"
              value={squares}
              least={1}
              most={500}
              whole
              onChange={setSquares}
            />
            <button
              type="button"
              className="button"
              onClick={() => step(() => movedSide(sections, here.number, side, squares, canvas))}
            >
              Outwards
            </button>
            <button
              type="button"
              className="button"
              onClick={() => step(() => movedSide(sections, here.number, side, -squares, canvas))}
            >
              Inwards
            </button>
          </fieldset>
          <fieldset className="flex flex-wrap items-end gap-2">
            <legend className="text-[0.95rem]">Split it after so many squares</legend>
            <NumberField
              words="Split after"
              hidden
              className="[&_input]:!w-20"
              value={after ?? half(Math.max(here.width, here.height))}
              least={1}
              most={4000}
              whole
              onChange={setAfter}
            />
            <button
              type="button"
              className="button"
              onClick={() => step(() => split(sections, here.number, true, after ?? half(here.width)))}
            >
              Left and right
            </button>
            <button
              type="button"
              className="button"
              onClick={() => step(() => split(sections, here.number, false, after ?? half(here.height)))}
            >
              Above and below
            </button>
          </fieldset>
          <div className="flex flex-wrap gap-2">
            <ToggleButton
              on={choosing}
              onChange={(on) => {
                setChoosing(on);
                hand.clear();
              }}
            >
              Choose several to join
            </ToggleButton>
            {choosing && (
              <button
                type="button"
                className="button"
                disabled={hand.picked.size < 2}
                onClick={() => {
                  // What cannot be joined stays picked, to be mended.
                  if (!step(() => joined(sections, [...hand.picked], canvas))) return;
                  // The first of them is what they are joined into.
                  setAt(sections.find(({ number }) => hand.picked.has(number))!.number);
                  hand.clear();
                  setChoosing(false);
                }}
              >
                Join {counted(hand.picked.size, 'section')}
              </button>
            )}
            <button type="button" className="button" onClick={() => step(() => numberedInOrder(sections))}>
              Number in the order of the work
            </button>
          </div>
        </div>
        <CutFigures
          now={judged && planFigures(judged)}
          next={draft && planFigures(draft.sections)}
          hasChart={hasChart}
          minutes={null}
        />
        {kept}
      </section>
    </div>
  );
}
