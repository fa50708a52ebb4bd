import { useEffect, useRef, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import type { ReviewGroup } from '../../core/reading/review';
import { counted } from '../../core/words/numbers';
import type { ReadingSample } from '../../server/reading/contract';
import { Chip, ColourName } from '../../ui/Chip';
import { keyMeant } from '../../ui/keyMeant';
import { isForThePicture } from '../../ui/keysOutside';
import { DOUBLE_CLICK_MS } from '../../ui/movedClicks';
import { TOO_SOON_MS, useTooSoon } from '../../ui/useTooSoon';
import { ColourChoice } from './ColourChoice';
import { SampleGlyph } from './SampleGlyph';
import { SquarePatch } from './SquarePatch';
import type { ReadTogether } from './useReadChart';

/** Squares to each side that are shown with the one in question, and how large. */
const AROUND = 2;
const LARGE_PX = 56;
const SMALL_PX = 40;
/** Of a group, so many are shown at once; only what is shown is answered at once. */
const SHOWN = 120;

/** Squares in doubt, group by group: one key says which of two colours each is. */
export function DoubtfulSquares({
  canvas,
  legend,
  samples,
  groups,
  read,
  onAnswer,
  onUndo,
}: {
  canvas: Canvas;
  legend: LegendLine[];
  samples: readonly ReadingSample[];
  groups: readonly ReviewGroup[];
  read: ReadTogether;
  onAnswer: (squares: readonly number[], line: number) => void;
  onUndo: (() => void) | null;
}) {
  /** Squares that were put off; they come again when nothing else is left. */
  const [later, setLater] = useState<ReadonlySet<number>>(new Set());
  const [inHand, setInHand] = useState<string | null>(null);
  /** Squares of the group that are not like the others. */
  const [different, setDifferent] = useState<ReadonlySet<number>>(new Set());
  const named = (group: ReviewGroup) => group.lines.join(' ');
  const fresh = groups.filter(({ cells }) => cells.some((cell) => !later.has(cell)));
  const group = fresh.find((each) => named(each) === inHand) ?? fresh[0] ?? groups[0] ?? null;
  const cells = group
    ? [...group.cells.filter((cell) => !later.has(cell)), ...group.cells.filter((cell) => later.has(cell))]
    : [];
  const square = cells[0] ?? null;
  const lines = group ? group.lines.filter((line) => line !== 0) : [];
  const together = cells.slice(0, SHOWN);
  const alike = together.filter((cell) => !different.has(cell));

  // One answer after the other comes fast here. But where another screen settled the square in front, or read its photo
  // anew, what is pressed at that moment was meant for it and not for the next one.
  const settledHere = useRef(new Set<number>());
  const front = useRef({ square, taken: Number.NEGATIVE_INFINITY });
  useEffect(() => {
    const { square: before } = front.current;
    if (before === square) return;
    const taken = before !== null && !settledHere.current.has(before);
    front.current = { square, taken: taken ? performance.now() : front.current.taken };
  }, [square]);
  const isTaken = () => performance.now() - front.current.taken < TOO_SOON_MS;
  const say = (line: number) => {
    if (square === null || isTaken()) return;
    settledHere.current.add(square);
    onAnswer([square], line);
  };
  const tooSoon = useTooSoon(DOUBLE_CLICK_MS);
  const clicked = (act: () => void) => !tooSoon() && act();
  const skip = () => {
    if (square === null || isTaken()) return;
    settledHere.current.add(square);
    setLater(new Set([...later, square]));
  };
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const key = keyMeant(event);
      if ((event.ctrlKey || event.metaKey) && key.toLowerCase() === 'z') {
        if (!onUndo) return;
        event.preventDefault();
        return onUndo();
      }
      if (!isForThePicture(event) || event.repeat) return;
      const which = Number(key) - 1;
      if (lines[which] !== undefined) say(lines[which]);
      else if (key === '0') say(0);
      else if (key === ' ') skip();
      else return;
      event.preventDefault();
    };
    addEventListener('keydown', pressed);
    return () => removeEventListener('keydown', pressed);
  });
  if (!group || square === null)
    return (
      <p className="text-lg">
        No square is in doubt. A look at the counts and at single colours does no harm.
      </p>
    );
  const at = read.pictureOfSquare(square);
  const [column, row] = [square % canvas.width, Math.floor(square / canvas.width)];
  return (
    <section aria-label="In doubt" className="grid gap-5 lg:grid-cols-[auto_1fr]">
      <div className="flex flex-col gap-2">
        {at && (
          <SquarePatch
            url={at.url}
            rect={{ x: at.x - AROUND, y: at.y - AROUND, width: 2 * AROUND + 1, height: 2 * AROUND + 1 }}
            framed={{ x: AROUND, y: AROUND }}
            cellPx={LARGE_PX}
            label={`The square in column ${column + 1}, row ${row + 1}, with those around it`}
          />
        )}
        <p aria-live="polite">
          Column <span className="number">{column + 1}</span>, row <span className="number">{row + 1}</span>,
          photo <span className="number">{at?.number}</span>
        </p>
      </div>
      <div className="flex min-w-0 flex-col gap-3">
        <h2 className="text-xl">What is the framed square?</h2>
        <div className="flex flex-wrap gap-3">
          {lines.map((line, i) => {
            const colour = ofLine(legend, line);
            const sample = samples.find((each) => each.line === line);
            if (!colour) return null;
            return (
              <button
                key={line}
                type="button"
                className="button flex h-auto min-h-16 items-center gap-3 py-2 text-left"
                onClick={() => clicked(() => say(line))}
              >
                <kbd className="number text-xl">{i + 1}</kbd>
                {sample && <SampleGlyph sample={sample} size={56} />}
                <Chip line={colour} shape={canvas.shape} />
                <ColourName line={colour} />
              </button>
            );
          })}
        </div>
        <div className="flex flex-wrap items-center gap-3">
          <ColourChoice
            legend={legend}
            className="!w-64"
            label="Another colour"
            value=""
            before={[{ value: '', words: 'Another colour…' }]}
            onChoose={(line) => line !== null && say(line)}
          />
          <button type="button" className="button" onClick={() => clicked(() => say(0))}>
            <kbd className="number">0</kbd> No drill here
          </button>
          <button type="button" className="button" onClick={() => clicked(skip)}>
            <kbd>Space</kbd> Later
          </button>
        </div>
        {cells.length > 1 && (
          <>
            <p>
              {counted(cells.length, 'square')} in doubt between the same{' '}
              {lines.length > 1 ? 'two colours' : 'colour and none'}. Tap those that are different, then
              answer the others at once.
            </p>
            <div className="flex flex-wrap gap-2">
              {lines.map((line) => (
                <button
                  key={line}
                  type="button"
                  className="button"
                  disabled={alike.length === 0}
                  onClick={() =>
                    clicked(() => {
                      for (const cell of alike) settledHere.current.add(cell);
                      onAnswer(alike, line);
                      setDifferent(new Set());
                    })
                  }
                >
                  These {alike.length} are {ofLine(legend, line)?.code}
                </button>
              ))}
            </div>
            <div className="flex max-h-80 flex-wrap gap-1 overflow-y-auto">
              {together.map((cell) => {
                const place = read.pictureOfSquare(cell);
                return (
                  place && (
                    <button
                      key={cell}
                      type="button"
                      aria-pressed={different.has(cell)}
                      aria-label={`Column ${(cell % canvas.width) + 1}, row ${Math.floor(cell / canvas.width) + 1} is different`}
                      className={`relative block p-0.5 ${different.has(cell) ? 'bg-accent opacity-60' : ''}`}
                      onClick={() => {
                        const next = new Set(different);
                        if (!next.delete(cell)) next.add(cell);
                        setDifferent(next);
                      }}
                    >
                      <SquarePatch
                        url={place.url}
                        rect={{ x: place.x, y: place.y, width: 1, height: 1 }}
                        cellPx={SMALL_PX}
                        label=""
                      />
                    </button>
                  )
                );
              })}
            </div>
          </>
        )}
        {groups.length > 1 && (
          <label className="max-w-md">
            <span className="mb-1 block">{counted(groups.length, 'group')}; the largest comes first</span>
            <select className="field" value={named(group)} onChange={({ target }) => setInHand(target.value)}>
              {groups.map((each) => (
                <option key={named(each)} value={named(each)}>
                  {each.lines
                    .filter((line) => line !== 0)
                    .map((line) => ofLine(legend, line)?.code)
                    .join(' or ')}
                  : {each.cells.length}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
    </section>
  );
}
