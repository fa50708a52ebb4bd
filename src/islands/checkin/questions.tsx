import { type RefObject, useEffect, useRef, useState } from 'react';
import type { BagsCarry, Shape } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import { looseCode } from '../../core/codes/codes';
import { counted, many } from '../../core/words/numbers';
import { Chip } from '../../ui/Chip';
import { keptInTab } from '../../ui/kept';
import { DOUBLE_CLICK_MS } from '../../ui/movedClicks';
import { TOO_SOON_MS, useTooSoon } from '../../ui/useTooSoon';

/** A bag that was typed and fits more than one colour. It is not counted before it is answered. */
export interface OpenQuestion {
  key: string;
  word: string;
  /** Numbers of the colours that it may be, the likeliest first. */
  lines: number[];
  bags: number;
  /** Null for the usual number, which was `size` then. */
  drills: number | null;
  size: number;
}

const storeKey = (canvasId: string) => `oculent-questions-${canvasId}`;

/** Bags that wait for an answer, kept over reloads; the next codes are taken meanwhile. */
export function useQuestions(canvasId: string): {
  questions: OpenQuestion[];
  ask(question: Omit<OpenQuestion, 'key'>): void;
  answered(question: OpenQuestion): void;
} {
  const [questions, setQuestions] = useState<OpenQuestion[]>(() => stored(canvasId));
  useEffect(() => {
    keptInTab.set(storeKey(canvasId), JSON.stringify(questions));
  }, [canvasId, questions]);
  return {
    questions,
    ask: (question) => setQuestions((all) => [...all, { key: crypto.randomUUID(), ...question }]),
    answered: ({ key }) => setQuestions((all) => all.filter((each) => each.key !== key)),
  };
}

function stored(canvasId: string): OpenQuestion[] {
  const kept = keptInTab.json(storeKey(canvasId));
  return Array.isArray(kept) ? (kept as OpenQuestion[]) : [];
}

/**
 * The oldest bag that waits for an answer. While the field is empty, Enter takes the first colour and the arrow down
 * the second.
 */
export function QuestionSlip({
  questions,
  legend,
  shape,
  field,
  onAnswer,
  onDrop,
  onCarry,
}: {
  questions: OpenQuestion[];
  legend: LegendLine[];
  shape: Shape;
  field: RefObject<HTMLInputElement | null>;
  onAnswer: (question: OpenQuestion, line: LegendLine | null) => void;
  onDrop: (question: OpenQuestion) => void;
  onCarry: (carry: BagsCarry) => void;
}) {
  const question = questions[0];
  const key = question?.key;
  const shownAt = useRef({ key: '', at: 0 });
  if (key !== undefined && shownAt.current.key !== key) shownAt.current = { key, at: performance.now() };
  const options = question?.lines.flatMap((line) => ofLine(legend, line) ?? []) ?? [];
  const act = useRef<(which: number) => void>(() => {});
  act.current = (which) => {
    const line = options[which];
    if (question && line) onAnswer(question, line);
  };
  useEffect(() => {
    const input = field.current;
    if (key === undefined || !input) return;
    let lastTyped = Number.NEGATIVE_INFINITY;
    const onKey = (event: KeyboardEvent) => {
      const which = event.key === 'Enter' ? 0 : event.key === 'ArrowDown' ? 1 : -1;
      if (which < 0 || input.value.trim() !== '') {
        lastTyped = performance.now();
        return;
      }
      event.preventDefault();
      // A scanner ends a code with two line ends, and a tired hand presses twice: that answers nothing.
      const since = performance.now() - Math.max(shownAt.current.at, lastTyped);
      if (event.repeat || since < TOO_SOON_MS) return;
      act.current(which);
    };
    input.addEventListener('keydown', onKey);
    return () => input.removeEventListener('keydown', onKey);
  }, [key, field]);
  const tooSoon = useTooSoon(DOUBLE_CLICK_MS);
  if (!question) return null;
  // The second click of a double click would answer the question that comes forward.
  const clicked = (answer: () => void) => () => void (tooSoon() || answer());
  const asCode = options.find(({ code }) => looseCode(code) === looseCode(question.word));
  const asKey = options.find(({ keyNumber }) => keyNumber === question.word);
  return (
    <fieldset
      className="slip mt-2 flex flex-col gap-2 !py-3"
      aria-label={`Which colour is ${question.word}?`}
    >
      <p className="font-semibold">
        Which colour is <span className="number">{question.word}</span>? Not counted yet
        {questions.length > 1 && `, and ${counted(questions.length - 1, 'more bag')} to ask about`}.
      </p>
      {options.map((line, i) => (
        <button
          key={line.line}
          type="button"
          className="button !justify-start text-left"
          onClick={clicked(() => onAnswer(question, line))}
        >
          <Chip line={line} shape={shape} />
          <span className="grow">
            <span translate="no" className="number font-semibold">
              {line.code}
            </span>
            , key {line.keyNumber}
            {line.finish !== 'plain' && `, ${line.finish}`}
          </span>
          {i < 2 && <kbd className="number text-[0.95rem] text-faded">{i === 0 ? 'Enter' : '↓'}</kbd>}
        </button>
      ))}
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button" onClick={clicked(() => onAnswer(question, null))}>
          None of these
        </button>
        <button type="button" className="button" onClick={clicked(() => onDrop(question))}>
          Do not count it
        </button>
      </div>
      {asCode && asKey && asCode !== asKey && (
        <div className="flex flex-wrap items-center gap-2 border-t border-line pt-2">
          <span className="text-[0.95rem]">All bags of this kit carry</span>
          {(['codes', 'key numbers'] as const).map((carry) => (
            <button
              key={carry}
              type="button"
              className="button"
              onClick={clicked(() => {
                onCarry(carry);
                onAnswer(question, carry === 'codes' ? asCode : asKey);
              })}
            >
              {carry}
            </button>
          ))}
        </div>
      )}
      {question.bags > 1 || question.drills !== null ? (
        <p className="text-[0.95rem] text-faded">
          {counted(question.bags, 'bag')} of {many(question.drills ?? question.size)}
        </p>
      ) : null}
    </fieldset>
  );
}
