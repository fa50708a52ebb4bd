import { Search } from 'lucide-react';
import { useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import type { LegendLine } from '../../core/canvas/legend';
import { type Find, readFind } from '../../core/chart/find';

/** One field for a place, a section or a colour; Enter goes there, Enter again goes to the next of a colour. */
export function FindField({
  canvas,
  legend,
  onFind,
}: {
  canvas: Canvas;
  legend: readonly LegendLine[];
  /** @returns a sentence where the thing found is nowhere */
  onFind: (find: Exclude<Find, { kind: 'fault' }>) => string | null;
}) {
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  return (
    <form
      className="relative flex min-w-52 grow gap-2 sm:max-w-md"
      onSubmit={(event) => {
        event.preventDefault();
        const find = readFind(typed, canvas, legend);
        setFault(find.kind === 'fault' ? find.words : onFind(find));
      }}
    >
      <input
        // biome-ignore lint/a11y/noAutofocus: a popped drill is looked up in eight keys
        autoFocus
        className="field number"
        aria-label="Find: column and row, distances, section, or colour"
        placeholder="120 85, 12 cm 8 cm, s12, 412"
        value={typed}
        maxLength={40}
        autoComplete="off"
        onFocus={(event) => event.target.select()}
        onChange={(event) => {
          setTyped(event.target.value);
          setFault(null);
        }}
      />
      <button type="submit" className="button !px-3" aria-label="Find">
        <Search size={20} aria-hidden />
      </button>
      {fault && (
        <p
          role="alert"
          className="slip absolute top-full left-0 z-10 mt-1 w-full border-l-4 border-alarm !p-3 font-medium"
        >
          {fault}
        </p>
      )}
    </form>
  );
}
