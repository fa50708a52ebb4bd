import type { Canvas } from '../../core/canvas/canvas';
import type { PhotoPlace } from '../../core/reading/stitch';
import { NumberField } from '../../ui/NumberField';

/** A square of the canvas by its column and row, which people count from 1. */
export function PlaceFields({
  canvas,
  first = false,
  place,
  onChange,
}: {
  canvas: Canvas;
  /** Whether it is the first square of something. */
  first?: boolean;
  place: PhotoPlace;
  onChange: (place: PhotoPlace) => void;
}) {
  return (
    <>
      <NumberField
        words={first ? 'First column' : 'Column'}
        value={place.column + 1}
        least={1}
        most={canvas.width}
        whole
        className="w-28"
        onChange={(column) => onChange({ ...place, column: column - 1 })}
      />
      <NumberField
        words={first ? 'First row' : 'Row'}
        value={place.row + 1}
        least={1}
        most={canvas.height}
        whole
        className="w-28"
        onChange={(row) => onChange({ ...place, row: row - 1 })}
      />
    </>
  );
}
