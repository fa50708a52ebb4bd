import { useMemo, useRef, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { codeSigns } from '../../core/codes/codeSigns';
import { findLine } from '../../core/codes/findLine';
import { placeInWords, placesInWords, potsInCodeOrder } from '../../core/codes/places';
import { potInWords } from '../../core/kitup/potInWords';
import { nextPot } from '../../core/kitup/walk';
import { counted, many } from '../../core/words/numbers';
import type { KitupView, SlotView } from '../../server/kitup/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { AS_TYPED } from '../../ui/asTyped';
import { Chip } from '../../ui/Chip';
import { CodePad, KeypadToggle } from '../../ui/CodePad';
import { Notice } from '../../ui/Notice';
import { TermWord } from '../../ui/TermWord';
import { ToggleButton } from '../../ui/ToggleButton';
import { useKeypad } from '../../ui/useKeypad';
import { TOO_SOON_MS, useTooSoon } from '../../ui/useTooSoon';
import { withLegend } from '../../ui/withLegend';
import { ScanButton } from '../scanning/ScanButton';
import { UndoButtons } from '../writing/UndoButtons';
import { CaseDrawing } from './CaseDrawing';
import { KitupNav } from './KitupNav';
import { NoSheet } from './NoSheet';
import { PutAway } from './PutAway';
import { SortingSlip } from './SortingSlip';
import { useKitup } from './useKitup';

/** How you work: bags as they come out of the heap, pot after pot, or pots emptied when the canvas is done. */
type Way = 'heap' | 'pots' | 'away';
const WAYS: [Way, string][] = [
  ['heap', 'As they come to hand'],
  ['pots', 'Pot after pot'],
  ['away', 'Put away'],
];

interface WalkProps {
  entry: ShelfEntry;
  legend: LegendLine[];
  first: KitupView;
}

/** Bag in hand, slot under the lamp, next. */
export const WalkPage = withLegend(WalkPageWithList);

function WalkPageWithList(props: WalkProps) {
  return (
    <>
      <KitupNav canvasId={props.entry.canvas.id} here="/walk" />
      {props.legend.length === 0 ? <NoSheet canvasId={props.entry.canvas.id} /> : <Walk {...props} />}
    </>
  );
}

function Walk({ entry, legend, first }: WalkProps) {
  const { canvas } = entry;
  const { view, fault, note, undo, redo, busy } = useKitup(canvas.id, first);
  const [way, setWay] = useState<Way>('heap');
  const [line, setLine] = useState<number | null>(null);
  const [typed, setTyped] = useState('');
  const [unknown, setUnknown] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const filled = new Set(view.filled);
  const away = new Set(Object.keys(view.putAway).map(Number));
  const pots = potsInCodeOrder(legend, view.places);
  const slots = view.cases.flatMap((each) => each.slots);
  const lit = way === 'pots' ? nextPot(slots, filled) : line;
  const shown = lit === null ? undefined : ofLine(legend, lit);
  const bag = view.bags.find((each) => each.line === lit);
  const left = legend.length - filled.size - away.size;
  const [keypad, setKeypad] = useKeypad();
  const letters = useMemo(() => codeSigns(legend), [legend]);
  const tooSoon = useTooSoon(TOO_SOON_MS, lit);
  const fill = async () => {
    if (tooSoon() || lit === null) return;
    // Enter once more says nothing new of a pot that was filled before.
    if (!filled.has(lit) && !(await note({ line: lit, kind: 'fill' }))) return;
    // Where the answer was late, the next bag is in hand already: what was typed or found of it stays.
    setLine((now) => (now === lit ? null : now));
    field.current?.focus();
  };
  const enter = () => {
    const word = typed.trim();
    setUnknown(null);
    if (word === '') return void fill();
    // The key that ended the code does not say that its bag is in.
    tooSoon();
    const found = findLine(word, legend, entry.canvas.bagsCarry);
    setTyped('');
    if (found.kind === 'one') setLine(found.line.line);
    else
      setUnknown(
        found.kind === 'none'
          ? `${word} is not in the colour list.`
          : `${word} fits more than one colour; type its code.`,
      );
  };

  return (
    <div className="grid items-start gap-6 lg:grid-cols-[23rem_1fr]">
      <section className="flex flex-col gap-3" aria-label="This bag">
        <fieldset className="flex flex-wrap gap-2" aria-label="How you work">
          {WAYS.map(([each, words]) => (
            <ToggleButton key={each} on={way === each} onChange={() => setWay(each)}>
              {words}
            </ToggleButton>
          ))}
        </fieldset>
        {fault && <Notice kind="fault">{fault}</Notice>}
        <UndoButtons
          history={view.history}
          words={(event) => potInWords(event, legend)}
          busy={busy}
          onUndo={undo}
          onRedo={redo}
        />
        {way === 'away' ? (
          <PutAway
            view={view}
            legend={legend}
            shape={canvas.shape}
            busy={busy}
            onNote={note}
            onLight={setLine}
          />
        ) : (
          <>
            {way === 'heap' && (
              <form
                onSubmit={(event) => {
                  event.preventDefault();
                  enter();
                }}
              >
                <label htmlFor="bag" className="mb-1.5 block font-semibold">
                  Code on this bag
                </label>
                <div className="flex gap-2">
                  <input
                    id="bag"
                    ref={field}
                    // biome-ignore lint/a11y/noAutofocus: both hands hold bags; the field must be ready
                    autoFocus
                    className="field number !min-h-14 !text-2xl"
                    value={typed}
                    maxLength={40}
                    {...AS_TYPED}
                    inputMode={keypad ? 'none' : 'text'}
                    onChange={(event) => setTyped(event.target.value)}
                  />
                  <ScanButton
                    canvas={canvas}
                    legend={legend}
                    bagsCarry={canvas.bagsCarry}
                    act="Light its slot"
                    onColour={(found) => setLine(found.line)}
                  />
                  <KeypadToggle on={keypad} onChange={setKeypad} />
                </div>
                {keypad && (
                  <div className="mt-2 max-w-md">
                    <CodePad
                      letters={letters}
                      typed={typed}
                      enter={typed === '' ? 'It is in, next bag' : 'Find the slot'}
                      onType={setTyped}
                      onEnter={enter}
                    />
                  </div>
                )}
                <p className="mt-1.5 text-[0.95rem] text-faded">
                  Code, <TermWord term="key number">key number</TermWord> or symbol, then Enter; Enter again
                  when it is in its <TermWord term="pot">pot</TermWord>.
                </p>
              </form>
            )}
            {unknown && <Notice kind="fault">{unknown}</Notice>}
            <div aria-live="polite">
              {shown ? (
                <div className="slip flex flex-col gap-2">
                  <p className="big-number !text-[3.4rem]">
                    {placeInWords(placesInWords(view.places[shown.line] ?? []))}
                  </p>
                  <div className="flex items-center gap-3">
                    <Chip line={shown} shape={canvas.shape} size={60} />
                    <div>
                      <p translate="no" className="number text-xl font-semibold">
                        {shown.code}
                      </p>
                      <p className="text-faded">
                        {shown.name}, key {shown.keyNumber}
                      </p>
                    </div>
                  </div>
                  <p>
                    {counted(view.amounts[shown.line] ?? 0, 'drill')} in all.
                    {sharedOut(slots, shown.line)}
                    {bag &&
                      !bag.whole &&
                      ` The pot does not take the last ${many(bag.drills)}: they go into bag ${bag.bag}.`}
                    {bag?.whole && ' It stays in its bag; write the symbol on it.'}
                  </p>
                  {view.stash[shown.line] && <Notice kind="hint">{view.stash[shown.line]}</Notice>}
                  {filled.has(shown.line) ? (
                    <button
                      type="button"
                      className="button"
                      disabled={busy}
                      onClick={() => void note({ line: shown.line, kind: 'take back' })}
                    >
                      Undo “filled”
                    </button>
                  ) : (
                    <button
                      type="button"
                      className="button button-main"
                      disabled={busy}
                      onClick={() => void fill()}
                    >
                      {bag?.whole ? 'Marked, next bag' : 'It is in, next bag'}
                    </button>
                  )}
                </div>
              ) : (
                <div className="slip">
                  <p className="big-number">{left === 0 ? 'All in' : counted(left, 'colour')}</p>
                  <p>{left === 0 ? 'Every colour is in its place.' : 'still to be put in their places.'}</p>
                </div>
              )}
            </div>
            {way === 'heap' && <SortingSlip help={view.sorting} />}
          </>
        )}
      </section>
      <section className="flex min-w-0 flex-col gap-5" aria-label="The cases">
        {view.cases.map(({ storage, slots: own }) => (
          <CaseDrawing
            key={storage.id}
            storage={storage}
            slots={own}
            legend={legend}
            shape={canvas.shape}
            filled={filled}
            lit={lit}
            onChoose={(slot) => slot.line !== null && setLine(slot.line)}
          />
        ))}
        {view.cases.length === 0 && (
          <p className="slip max-w-xl">
            No case is planned yet, so the {counted(pots.length, 'pot')} go by code.{' '}
            <a className="underline" href={`/canvas/${canvas.id}/kitup`}>
              Plan the pots
            </a>
          </p>
        )}
      </section>
    </div>
  );
}

/** How a colour with several pots is shared out among them. */
function sharedOut(slots: readonly SlotView[], line: number): string {
  const own = slots.filter((slot) => slot.line === line);
  if (own.length < 2) return '';
  return ` ${own.map(({ place, drills }) => `${placeInWords(place)} takes ${many(drills)}`).join(', ')}.`;
}
