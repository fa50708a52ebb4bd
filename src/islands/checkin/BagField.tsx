import { type RefObject, useMemo, useRef, useState } from 'react';
import type { BagsCarry, Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { packetSizes } from '../../core/checkin/supply';
import { readTypedBag } from '../../core/checkin/typedBag';
import { codeSigns } from '../../core/codes/codeSigns';
import { many } from '../../core/words/numbers';
import { AS_TYPED } from '../../ui/asTyped';
import { CodePad, KeypadToggle } from '../../ui/CodePad';
import { Camera, Scale, Volume2, VolumeX } from '../../ui/icons';
import { keptHere } from '../../ui/kept';
import { Notice } from '../../ui/Notice';
import { useKeypad } from '../../ui/useKeypad';
import { ScanButton } from '../scanning/ScanButton';
import { type OpenQuestion, QuestionSlip, useQuestions } from './questions';

/** How the number of drills in a bag is known when it is typed. */
export type TypedAs = 'counted' | 'nominal';
const TYPED_AS_KEY = 'oculent-typed-as';

/** Bags to be counted for one colour. */
export interface BagsToCount {
  line: LegendLine | null;
  label: string;
  bags: number;
  drills: number;
  how: TypedAs;
}

/** The one field at the heap: code, Enter, next bag. It takes the next code at once, whatever is still under way. */
export function BagField({
  canvas,
  legend,
  bagsCarry,
  field,
  typed,
  onType,
  speaks,
  onSpeaks,
  onCount,
  onCarry,
  onWeigh,
  onTray,
}: {
  canvas: Canvas;
  legend: LegendLine[];
  bagsCarry: BagsCarry | null;
  field: RefObject<HTMLInputElement | null>;
  typed: string;
  onType: (typed: string) => void;
  speaks: boolean;
  onSpeaks: (speaks: boolean) => void;
  onCount: (bags: BagsToCount) => void;
  /** Says what all bags of this kit carry. */
  onCarry: (carry: BagsCarry) => void;
  onWeigh: (line: LegendLine | null) => void;
  onTray: (line: LegendLine | null) => void;
}) {
  const sizes = packetSizes(canvas.packetDrills);
  const [size, setSize] = useState(canvas.packetDrills);
  const [typedAs, setTypedAs] = useState<TypedAs>(() =>
    keptHere.get(TYPED_AS_KEY) === 'nominal' ? 'nominal' : 'counted',
  );
  const [fault, setFault] = useState<string | null>(null);
  const { questions, ask, answered } = useQuestions(canvas.id);
  // What the field holds is read from the field itself: a scanner types faster than a page is drawn.
  const input = useRef<HTMLInputElement>(null);

  const count = (
    line: LegendLine | null,
    label: string,
    { bags, drills, size: usual }: Pick<OpenQuestion, 'bags' | 'drills' | 'size'>,
  ) => {
    onCount({ line, label, bags, drills: drills ?? usual, how: drills === null ? 'nominal' : typedAs });
  };
  const answer = (question: OpenQuestion, line: LegendLine | null) => {
    answered(question);
    count(line, line?.code ?? question.word, question);
    field.current?.focus();
  };
  const submit = () => {
    const text = input.current?.value ?? typed;
    const entry = readTypedBag(text, legend, bagsCarry);
    setFault(entry.kind === 'fault' ? entry.sentence : null);
    if (entry.kind === 'nothing' || entry.kind === 'fault') return;
    const amount = { bags: entry.bags, drills: entry.drills, size };
    onType('');
    setSize(canvas.packetDrills);
    if (entry.kind === 'ask')
      ask({ word: entry.word, lines: entry.lines.map(({ line }) => line), ...amount });
    else if (entry.kind === 'known') count(entry.line, entry.line.code, amount);
    else count(null, entry.label, amount);
  };
  const entry = readTypedBag(typed, legend, bagsCarry);
  const [keypad, setKeypad] = useKeypad();
  const letters = useMemo(() => codeSigns(legend), [legend]);
  const type = (next: string) => {
    onType(next.slice(0, 40));
    setFault(null);
  };

  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <label htmlFor="bag" className="mb-1.5 block font-semibold">
        Code on this bag
      </label>
      <div className="flex gap-2">
        <input
          id="bag"
          ref={(element) => {
            input.current = element;
            field.current = element;
          }}
          // biome-ignore lint/a11y/noAutofocus: both hands hold bags; the field must be ready
          autoFocus
          className="field number !min-h-14 !text-2xl"
          value={typed}
          maxLength={40}
          {...AS_TYPED}
          inputMode={keypad ? 'none' : 'text'}
          aria-describedby="bag-help"
          onChange={(event) => type(event.target.value)}
          onKeyDown={(event) => {
            // By the key's place: with Alt some keyboards make other signs.
            const next = event.altKey
              ? sizes[Number(/^(?:Digit|Numpad)(\d)$/.exec(event.code)?.[1]) - 1]
              : undefined;
            if (next !== undefined) {
              event.preventDefault();
              setSize(next);
            }
          }}
        />
        <button type="submit" className="button button-main !min-h-14">
          Count
        </button>
      </div>
      {keypad && (
        <div className="mt-2 max-w-md">
          <CodePad letters={letters} typed={typed} enter="Count" onType={type} onEnter={submit} />
        </div>
      )}
      <fieldset className="mt-2 flex flex-wrap gap-1.5" aria-label="Drills in this bag">
        {sizes.map((each, i) => (
          <button
            key={each}
            type="button"
            className={`button number !px-2.5 ${each === size ? 'button-on bg-wash' : ''}`}
            aria-pressed={each === size}
            title={`Alt+${i + 1}`}
            onClick={() => {
              setSize(each);
              field.current?.focus();
            }}
          >
            {many(each)}
          </button>
        ))}
        <button
          type="button"
          className="button !px-2.5"
          onClick={() => onWeigh(entry.kind === 'known' ? entry.line : null)}
        >
          <Scale size={20} aria-hidden /> Weigh
        </button>
        <button
          type="button"
          className="button !px-2.5"
          aria-label="Count loose drills on a photo"
          title="Count loose drills on a photo"
          onClick={() => onTray(entry.kind === 'known' ? entry.line : null)}
        >
          <Camera size={20} aria-hidden />
        </button>
        <ScanButton
          canvas={canvas}
          legend={legend}
          bagsCarry={bagsCarry}
          act="Count one bag"
          stays
          onColour={(line) => count(line, line.code, { bags: 1, drills: null, size })}
          onText={type}
        />
        <KeypadToggle on={keypad} onChange={setKeypad} />
        <button
          type="button"
          className={`button !px-2.5 ${speaks ? 'button-on' : ''}`}
          aria-pressed={speaks}
          aria-label="Say it aloud"
          title="Say it aloud"
          onClick={() => onSpeaks(!speaks)}
        >
          {speaks ? <Volume2 size={20} aria-hidden /> : <VolumeX size={20} aria-hidden />}
        </button>
      </fieldset>
      <p id="bag-help" className="mt-1.5 text-[0.95rem] text-faded">
        Code, key number or symbol. <span className="number">412 x5</span> counts five bags,{' '}
        <span className="number">412 x 140</span> one bag of 140.
      </p>
      {entry.kind !== 'nothing' && 'drills' in entry && entry.drills !== null && (
        <fieldset className="mt-1.5 flex flex-wrap items-center gap-x-4">
          <legend className="sr-only">Where the number comes from</legend>
          <span className="text-[0.95rem]">{many(entry.drills)} is</span>
          {(
            [
              ['counted', 'counted by hand'],
              ['nominal', 'printed on the bag'],
            ] as const
          ).map(([as, words]) => (
            <label key={as} className="flex min-h-11 items-center gap-1.5">
              <input
                type="radio"
                name="typed-as"
                checked={typedAs === as}
                onChange={() => {
                  keptHere.set(TYPED_AS_KEY, as);
                  setTypedAs(as);
                }}
              />
              {words}
            </label>
          ))}
        </fieldset>
      )}
      {fault && (
        <div className="mt-2">
          <Notice kind="fault">{fault}</Notice>
        </div>
      )}
      <QuestionSlip
        questions={questions}
        legend={legend}
        shape={canvas.shape}
        field={field}
        onAnswer={answer}
        onDrop={(question) => {
          answered(question);
          field.current?.focus();
        }}
        onCarry={onCarry}
      />
    </form>
  );
}
