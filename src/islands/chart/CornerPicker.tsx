import { useEffect, useState } from 'react';
import { type Corners, cornersOf } from '../../core/chart/files/picture/corners';
import { type BoardSpot, Lens, PointBoard } from '../../ui/PointBoard';
import { usePictureUrl } from './usePictureUrl';

/** The four corners of anything on a picture, clockwise. */
export const CORNER_NAMES = [
  'Upper left corner',
  'Upper right corner',
  'Lower right corner',
  'Lower left corner',
] as const;
/** Share of the picture by which the corners stand inside of it at first. */
const INSET = 0.04;

/** The picture with the four outer corners of the chart, to be set by hand; a lens shows the place pixel by pixel. */
export function CornerPicker({
  file,
  first,
  open,
  onUse,
}: {
  file: File;
  /** Where the corners were found; null where they were not. */
  first: Corners | null;
  open: boolean;
  onUse: (corners: Corners) => void;
}) {
  const url = usePictureUrl(file);
  const [image, setImage] = useState<HTMLImageElement | null>(null);
  const [corners, setCorners] = useState<Corners | null>(first);
  const [chosen, setChosen] = useState(0);
  useEffect(() => setCorners(first), [first]);
  const width = image?.naturalWidth ?? 0;
  const height = image?.naturalHeight ?? 0;
  const shown =
    corners ?? (image && cornersOf(width * INSET, height * INSET, width * (1 - INSET), height * (1 - INSET)));
  const move = (which: number, spot: BoardSpot) => {
    if (!shown) return;
    setChosen(which);
    setCorners(shown.map((each, i) => (i === which ? spot : each)) as unknown as Corners);
  };
  return (
    <details className="mt-4" open={open}>
      <summary className="min-h-11 py-2 font-semibold">Mark the corners of the chart on the picture</summary>
      <p className="mb-2">
        Set each ring on an outer corner of the chart: drag it, tap the place where the chosen one belongs, or
        use the arrow keys. The first square lies inside the upper left corner, the last inside the lower
        right.
      </p>
      <div className="mb-3 flex flex-wrap items-center gap-4">
        {image && shown && <Lens image={image} spot={shown[chosen]!} />}
        <div className="flex flex-col gap-2">
          <p aria-live="polite">
            {CORNER_NAMES[chosen]}
            {shown && (
              <>
                , at <span className="number">{shown[chosen]!.x.toFixed(0)}</span>,{' '}
                <span className="number">{shown[chosen]!.y.toFixed(0)}</span>
              </>
            )}
          </p>
          <button
            type="button"
            className="button button-main"
            disabled={!shown}
            onClick={() => shown && onUse(shown)}
          >
            Read between these corners
          </button>
        </div>
      </div>
      <PointBoard
        url={url}
        alt="The file, with the corners of the chart"
        spots={(shown ?? []).map((spot, i) => ({ ...spot, name: CORNER_NAMES[i]! }))}
        outlined
        chosen={chosen}
        onChoose={setChosen}
        onMove={move}
        onLoad={setImage}
      />
    </details>
  );
}
