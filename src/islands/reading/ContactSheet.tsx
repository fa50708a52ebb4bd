import { useMemo, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import { squaresOf } from '../../core/reading/review';
import { counted, many } from '../../core/words/numbers';
import { Chip } from '../../ui/Chip';
import { ColourChoice } from './ColourChoice';
import { SquarePatch } from './SquarePatch';
import type { ReadTogether } from './useReadChart';

const PATCH_PX = 40;
/** So many squares are shown at once. */
const PAGE = 180;

/** All squares of a colour, the oddest first; those that are something else are picked and corrected together. */
export function ContactSheet({
  canvas,
  legend,
  line,
  read,
  onLine,
  onAnswer,
}: {
  canvas: Canvas;
  legend: LegendLine[];
  line: number;
  read: ReadTogether;
  onLine: (line: number) => void;
  onAnswer: (squares: readonly number[], line: number) => void;
}) {
  const [shown, setShown] = useState(PAGE);
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const squares = useMemo(() => squaresOf(read.chart!, line), [read.chart, line]);
  const colour = ofLine(legend, line);
  const pick = (square: number) => {
    const next = new Set(picked);
    if (!next.delete(square)) next.add(square);
    setPicked(next);
  };
  return (
    <section aria-label="All of a colour" className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3">
        {colour && <Chip line={colour} shape={canvas.shape} size={44} />}
        <ColourChoice
          legend={legend}
          className="!w-72"
          label="Colour to look at"
          value={line}
          onChoose={(chosen) => onLine(chosen!)}
        />
        <p>
          {counted(squares.length, 'square')} read
          {colour ? `, ${many(colour.neededDrills)} on the colour list` : ''}. Those in doubt come first; pick
          what does not belong.
        </p>
      </div>
      {picked.size > 0 && (
        <div className="sticky top-0 z-10 flex max-w-xl flex-wrap items-center gap-3 bg-paper p-2">
          <span>{counted(picked.size, 'square')} picked; in truth</span>
          <ColourChoice
            legend={legend}
            label="In truth"
            className="!w-64"
            value=""
            before={[
              { value: '', words: 'choose a colour…' },
              { value: line, words: `${colour?.code}, as read` },
              { value: 0, words: 'no drill' },
            ]}
            onChoose={(chosen) => {
              if (chosen === null) return;
              onAnswer([...picked], chosen);
              setPicked(new Set());
            }}
          />
        </div>
      )}
      <ul className="flex flex-wrap gap-1">
        {squares.slice(0, shown).map((square) => {
          const place = read.pictureOfSquare(square);
          const [column, row] = [(square % canvas.width) + 1, Math.floor(square / canvas.width) + 1];
          return (
            <li key={square}>
              <button
                type="button"
                aria-pressed={picked.has(square)}
                aria-label={`Column ${column}, row ${row}`}
                className={`block p-0.5 ${picked.has(square) ? 'bg-accent' : read.chart!.open[square] ? 'bg-lamp' : ''}`}
                onClick={() => pick(square)}
              >
                {place ? (
                  <SquarePatch
                    url={place.url}
                    rect={{ x: place.x, y: place.y, width: 1, height: 1 }}
                    cellPx={PATCH_PX}
                    label=""
                  />
                ) : (
                  <span className="block size-10 border border-dashed border-edge" />
                )}
              </button>
            </li>
          );
        })}
      </ul>
      {squares.length > shown && (
        <button type="button" className="button self-start" onClick={() => setShown(shown + PAGE)}>
          Show {Math.min(PAGE, squares.length - shown)} more of {many(squares.length - shown)}
        </button>
      )}
    </section>
  );
}
