import { useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { type Find, readFind } from '../../core/chart/find';
import { AS_TYPED } from '../../ui/asTyped';
import { Search } from '../../ui/icons';

/** Something that can be gone to. */
export type Found = Exclude<Find, { kind: 'fault' } | { kind: 'unit' }>;
type UnitOffer = Extract<Find, { kind: 'unit' }>['offers'][number];

const UNIT_WORDS: Record<string, string> = { cm: 'centimetres', in: 'inches', mm: 'millimetres' };

/** One field for a place, a section or a colour; Enter goes there, Enter again goes to the next of a colour. */
export function FindField({
  canvas,
  legend,
  onFind,
  ready = false,
  above = false,
}: {
  canvas: Canvas;
  legend: readonly LegendLine[];
  /** @returns a sentence where the thing found is nowhere */
  onFind: (find: Found) => string | null;
  /** The field is ready from the start. */
  ready?: boolean;
  /** What it says opens above it, where there is no room below. */
  above?: boolean;
}) {
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [units, setUnits] = useState<UnitOffer[]>([]);
  const where = above ? 'bottom-full mb-1' : 'top-full mt-1';
  const look = (text: string) => {
    const find = readFind(text, canvas, legend);
    setUnits(find.kind === 'unit' ? find.offers : []);
    if (find.kind === 'unit') setFault(null);
    else setFault(find.kind === 'fault' ? find.words : onFind(find));
  };
  return (
    <form
      className="relative flex min-w-52 grow gap-2 sm:max-w-md"
      onSubmit={(event) => {
        event.preventDefault();
        look(typed);
      }}
    >
      <input
        // biome-ignore lint/a11y/noAutofocus: a popped drill is looked up in eight keys
        autoFocus={ready}
        className="field number"
        aria-label="Find: column and row, distances, section, or colour"
        placeholder="120 85, 12 cm 8 cm, 412"
        value={typed}
        maxLength={40}
        {...AS_TYPED}
        onFocus={(event) => event.target.select()}
        onChange={(event) => {
          setTyped(event.target.value);
          setFault(null);
          setUnits([]);
        }}
      />
      <button type="submit" className="button !px-3" aria-label="Find">
        <Search size={20} aria-hidden />
      </button>
      {units.length > 0 && (
        <fieldset
          className={`slip absolute left-0 z-10 flex w-full flex-wrap items-center gap-2 !p-3 ${where}`}
        >
          <legend className="sr-only">The unit</legend>
          <span>Is that in</span>
          {units.map(({ unit, typed: whole }) => (
            <button
              key={unit}
              type="button"
              className="button"
              onClick={() => {
                setTyped(whole);
                look(whole);
              }}
            >
              {UNIT_WORDS[unit] ?? unit}
            </button>
          ))}
        </fieldset>
      )}
      {fault && (
        <p
          role="alert"
          className={`slip absolute left-0 z-10 w-full border-l-4 border-alarm !p-3 font-medium ${where}`}
        >
          {fault}
        </p>
      )}
    </form>
  );
}
