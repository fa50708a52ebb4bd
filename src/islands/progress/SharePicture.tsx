import { useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import type { ShelfEntry } from '../../server/shelf/contract';
import { ImageDown } from '../../ui/icons';
import { Notice } from '../../ui/Notice';
import type { ClothData } from '../cloth/useClothData';
import { useWrite } from '../writing/useWrite';
import { offer, pictureColours, pictureWithWords } from './pastPicture';

/** A figure that may stand beneath the picture. */
export interface ShareFigure {
  key: string;
  words: string;
}

/** A picture to show around: the canvas as it lies, without its symbols, with the figures that are chosen. */
export function SharePicture({
  entry,
  legend,
  data,
  figures,
}: {
  entry: ShelfEntry;
  legend: LegendLine[];
  data: ClothData;
  figures: readonly ShareFigure[];
}) {
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const chosen = figures.filter(({ key }) => !left.has(key));
  const { fault, act } = useWrite(entry.canvas.id);
  const save = async () => {
    const colours = pictureColours(legend, entry.hasChart);
    const { title } = entry.canvas;
    offer(
      await pictureWithWords(
        title,
        chosen.map(({ words }) => words),
        data,
        colours,
      ),
      `${title}.png`,
    );
  };
  return (
    <fieldset className="flex flex-col">
      <legend className="font-semibold">A picture to show around</legend>
      <p className="text-[0.95rem] text-faded">The canvas as it lies, without the symbols of its chart.</p>
      {figures.map(({ key, words }) => (
        <label key={key} className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-6 shrink-0 accent-accent"
            checked={!left.has(key)}
            onChange={(event) => {
              const next = new Set(left);
              if (event.target.checked) next.delete(key);
              else next.add(key);
              setLeft(next);
            }}
          />
          <span>{words}</span>
        </label>
      ))}
      <button type="button" className="button mt-1 self-start" onClick={() => void act(save)}>
        <ImageDown size={20} aria-hidden /> Download the picture
      </button>
      {fault && <Notice kind="fault">{fault}</Notice>}
    </fieldset>
  );
}
