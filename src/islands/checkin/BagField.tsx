import { Scale, Volume2, VolumeX } from 'lucide-react';
import { type RefObject, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { packetSizes } from '../../core/checkin/supply';
import { findLine, readTypedBag } from '../../core/codes/findLine';
import { many } from '../../core/words/numbers';
import { Chip } from '../../ui/Chip';

/** The one field at the heap: code, Enter, next bag. */
export function BagField({
  canvas,
  legend,
  field,
  typed,
  onType,
  speaks,
  onSpeaks,
  onCount,
  onWeigh,
}: {
  canvas: Canvas;
  legend: LegendLine[];
  field: RefObject<HTMLInputElement | null>;
  typed: string;
  onType: (typed: string) => void;
  speaks: boolean;
  onSpeaks: (speaks: boolean) => void;
  /** @param counted whether the number was typed, and so is no nominal one */
  onCount: (line: LegendLine | null, label: string, drills: number, counted: boolean) => void;
  onWeigh: (line: LegendLine | null) => void;
}) {
  const sizes = packetSizes(canvas.packetDrills);
  const [size, setSize] = useState(canvas.packetDrills);
  const [choice, setChoice] = useState<LegendLine[] | null>(null);

  const count = (line: LegendLine | null, label: string) => {
    const { drills } = readTypedBag(typed);
    setChoice(null);
    setSize(canvas.packetDrills);
    onCount(line, label, drills ?? size, drills !== null);
  };
  const submit = () => {
    const { word } = readTypedBag(typed);
    if (word === '') return;
    const found = findLine(word, legend);
    if (found.kind === 'several') setChoice(found.lines);
    else if (found.kind === 'one') count(found.line, found.line.code);
    else count(null, word);
  };
  const found = findLine(readTypedBag(typed).word, legend);

  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <label htmlFor="bag" className="mb-1.5 block font-semibold">
        Code on the bag in hand
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
          autoComplete="off"
          aria-describedby="bag-help"
          onChange={(event) => {
            onType(event.target.value);
            setChoice(null);
          }}
          onKeyDown={(event) => {
            const next = event.altKey ? sizes[Number(event.key) - 1] : undefined;
            if (next === undefined) return;
            event.preventDefault();
            setSize(next);
          }}
        />
        <button type="submit" className="button button-main !min-h-14">
          Count
        </button>
      </div>
      <fieldset className="mt-2 flex flex-wrap gap-1.5" aria-label="Drills in this packet">
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
          onClick={() => onWeigh(found.kind === 'one' ? found.line : null)}
        >
          <Scale size={20} aria-hidden /> Weigh
        </button>
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
        Code, key number or symbol; <span className="number">412 x 140</span> for a counted bag.
      </p>
      {choice && (
        <fieldset className="mt-2 flex flex-col gap-2">
          <legend className="font-semibold">This fits more than one line. Which is it?</legend>
          {choice.map((line) => (
            <button
              key={line.line}
              type="button"
              className="button !justify-start text-left"
              onClick={() => count(line, line.code)}
            >
              <Chip line={line} shape={canvas.shape} /> {line.code}, key {line.keyNumber}, {line.finish}
            </button>
          ))}
        </fieldset>
      )}
    </form>
  );
}
