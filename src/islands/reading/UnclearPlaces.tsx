import { useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import type { CellRect } from '../../core/cells/chart';
import { overlapOf } from '../../core/cells/rect';
import type { PhotoPlace, Stitched } from '../../core/reading/stitch';
import type { ReadingPhoto } from '../../server/reading/contract';
import { PlaceFields } from './PlaceFields';
import { SquarePatch } from './SquarePatch';
import { squaresUrl } from './useReadChart';

const PATCH = { width: 10, height: 6 };
const PATCH_PX = 22;

/** Photos whose place what they show does not tell: asked, with both pictures side by side. */
export function UnclearPlaces({
  canvas,
  photos,
  numbers,
  stitched,
  onPlace,
}: {
  canvas: Canvas;
  photos: readonly ReadingPhoto[];
  /** By which people know the photos. */
  numbers: readonly number[];
  stitched: Stitched;
  onPlace: (photo: ReadingPhoto, at: PhotoPlace) => void;
}) {
  return (
    <>
      {stitched.unclear.map(({ photo, places }) => (
        <section
          key={photo}
          className="slip flex flex-col gap-3"
          aria-label={`Where photo ${numbers[photo]} lies`}
        >
          <h2 className="text-xl">Where does photo {numbers[photo]} lie?</h2>
          <p>
            {places.length === 0
              ? 'It overlaps none of the others enough. Say which column and row its upper left square is in.'
              : 'Both pictures of a pair show the same squares if it lies there. Which pair is alike?'}
          </p>
          <div className="flex flex-wrap gap-5">
            {places.map((place) => (
              <Pair
                key={`${place.column} ${place.row}`}
                canvas={canvas}
                photos={photos}
                numbers={numbers}
                stitched={stitched}
                photo={photo}
                place={place}
                onPlace={() => onPlace(photos[photo]!, place)}
              />
            ))}
          </div>
          <ByHand canvas={canvas} onPlace={(place) => onPlace(photos[photo]!, place)} />
        </section>
      ))}
    </>
  );
}

/** The same squares of the canvas in both photos, if the one lies at a place. */
function Pair({
  canvas,
  photos,
  numbers,
  stitched,
  photo,
  place,
  onPlace,
}: {
  canvas: Canvas;
  photos: readonly ReadingPhoto[];
  numbers: readonly number[];
  stitched: Stitched;
  photo: number;
  place: PhotoPlace;
  onPlace: () => void;
}) {
  const own = rectOf(photos[photo]!, place);
  const shared = photos
    .flatMap((other, k) => {
      const there = stitched.places[k];
      const both = there && k !== photo ? overlapOf(own, rectOf(other, there)) : null;
      return both ? [{ k, there: there!, both }] : [];
    })
    .sort((a, b) => b.both.width * b.both.height - a.both.width * a.both.height)[0];
  if (!shared) return null;
  const { both, there, k } = shared;
  const patch = {
    x: both.x + Math.max(0, Math.floor((both.width - PATCH.width) / 2)),
    y: both.y + Math.max(0, Math.floor((both.height - PATCH.height) / 2)),
    width: Math.min(PATCH.width, both.width),
    height: Math.min(PATCH.height, both.height),
  };
  const within = (at: PhotoPlace): CellRect => ({ ...patch, x: patch.x - at.column, y: patch.y - at.row });
  return (
    <div className="flex flex-col gap-2">
      <SquarePatch
        url={squaresUrl(canvas.id, photos[k]!)}
        rect={within(there)}
        cellPx={PATCH_PX}
        label={`Photo ${numbers[k]} there`}
      />
      <SquarePatch
        url={squaresUrl(canvas.id, photos[photo]!)}
        rect={within(place)}
        cellPx={PATCH_PX}
        label={`Photo ${numbers[photo]} there`}
      />
      <button type="button" className="button" onClick={onPlace}>
        Alike: from column {place.column + 1}, row {place.row + 1}
      </button>
    </div>
  );
}

function ByHand({ canvas, onPlace }: { canvas: Canvas; onPlace: (place: PhotoPlace) => void }) {
  const [place, setPlace] = useState<PhotoPlace>({ column: 0, row: 0 });
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        onPlace(place);
      }}
    >
      <PlaceFields canvas={canvas} first place={place} onChange={setPlace} />
      <button type="submit" className="button">
        It lies there
      </button>
    </form>
  );
}

function rectOf({ columns, rows }: ReadingPhoto, { column, row }: PhotoPlace): CellRect {
  return { x: column, y: row, width: columns ?? 0, height: rows ?? 0 };
}
