import { useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import { Colour } from '../../ui/Chip';
import { PlaceFields } from './PlaceFields';
import { SquarePatch } from './SquarePatch';
import type { ReadTogether } from './useReadChart';

const AROUND = 3;

/** A square by its place: what it was read as, from which photo, and how sure that is. */
export function WhereFrom({
  canvas,
  legend,
  read,
}: {
  canvas: Canvas;
  legend: LegendLine[];
  read: ReadTogether;
}) {
  const [place, setPlace] = useState({ column: 0, row: 0 });
  const [column, row] = [place.column + 1, place.row + 1];
  const square = place.row * canvas.width + place.column;
  const at = read.pictureOfSquare(square);
  const line = ofLine(legend, read.chart!.cells[square] ?? 0);
  const doubt = read.chart!.doubt[square] ?? 0;
  return (
    <section aria-label="Where a square is from" className="flex flex-wrap items-start gap-5">
      <div className="flex gap-3">
        <PlaceFields canvas={canvas} place={place} onChange={setPlace} />
      </div>
      {at ? (
        <>
          <SquarePatch
            url={at.url}
            rect={{ x: at.x - AROUND, y: at.y - AROUND, width: 2 * AROUND + 1, height: 2 * AROUND + 1 }}
            framed={{ x: AROUND, y: AROUND }}
            cellPx={32}
            label={`Column ${column}, row ${row}, with the squares around it`}
          />
          <div className="flex flex-col gap-2">
            {line ? <Colour line={line} shape={canvas.shape} /> : <p>No drill here.</p>}
            <p>
              Photo {at.number}, {at.photo.name}
            </p>
            <p>
              {doubt === 0
                ? 'Said by hand, or beyond doubt.'
                : `Wrong with a chance of about ${(doubt * 100).toFixed(doubt < 0.01 ? 3 : 1)} %.`}
            </p>
          </div>
        </>
      ) : (
        <p>No photo shows this square.</p>
      )}
    </section>
  );
}
