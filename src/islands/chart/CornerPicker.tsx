import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import { type Corners, cornersOf, type Spot } from '../../core/chart/files/picture/corners';
import { usePictureUrl } from './usePictureUrl';

const NAMES = ['Upper left corner', 'Upper right corner', 'Lower right corner', 'Lower left corner'] as const;
/** Share of the picture by which the corners stand inside of it at first. */
const INSET = 0.04;
const LENS_PX = 168;
const LENS_ZOOM = 6;
/** Pixels of the picture that an arrow key moves a corner; with shift, ten times as many. */
const KEY_STEP = 1;

/**
 * The picture with the four outer corners of the chart, to be set by hand: dragged, tapped where the chosen corner belongs,
 * or moved by the arrow keys; a lens shows the place pixel by pixel.
 */
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
  const move = (which: number, { x, y }: Spot) => {
    if (!shown) return;
    const spot = { x: Math.min(width, Math.max(0, x)), y: Math.min(height, Math.max(0, y)) };
    setChosen(which);
    setCorners(shown.map((each, i) => (i === which ? spot : each)) as unknown as Corners);
  };
  const placeOf = (event: PointerEvent): Spot => {
    const box = image!.getBoundingClientRect();
    return {
      x: ((event.clientX - box.left) / box.width) * width,
      y: ((event.clientY - box.top) / box.height) * height,
    };
  };
  const nudge = (event: KeyboardEvent, which: number) => {
    const step = KEY_STEP * (event.shiftKey ? 10 : 1);
    const by = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    }[event.key];
    if (!by || !shown) return;
    event.preventDefault();
    move(which, { x: shown[which]!.x + by[0]!, y: shown[which]!.y + by[1]! });
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
            {NAMES[chosen]}
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
      <div className="relative w-full touch-none border border-edge select-none">
        {url && (
          <img
            src={url}
            alt="The file, with the corners of the chart"
            className="block w-full"
            draggable={false}
            onLoad={(event) => setImage(event.currentTarget)}
            onPointerDown={(event) => move(chosen, placeOf(event))}
          />
        )}
        {image && shown && width > 0 && (
          <>
            <svg
              className="pointer-events-none absolute inset-0 size-full"
              viewBox={`0 0 ${width} ${height}`}
              preserveAspectRatio="none"
              aria-hidden
            >
              {(['#ffffff', '#6a2346'] as const).map((stroke, i) => (
                <polygon
                  key={stroke}
                  points={shown.map(({ x, y }) => `${x},${y}`).join(' ')}
                  fill="none"
                  stroke={stroke}
                  strokeWidth={i === 0 ? 5 : 2}
                  vectorEffect="non-scaling-stroke"
                />
              ))}
            </svg>
            {shown.map(({ x, y }, i) => (
              <button
                key={NAMES[i]}
                type="button"
                aria-label={`${NAMES[i]}, at ${x.toFixed(0)}, ${y.toFixed(0)}`}
                className={`absolute size-11 -translate-x-1/2 -translate-y-1/2 cursor-move rounded-full border-[3px] bg-transparent ${
                  i === chosen
                    ? 'border-accent outline-2 outline-white'
                    : 'border-white outline-2 outline-accent'
                }`}
                style={{ left: `${(x / width) * 100}%`, top: `${(y / height) * 100}%` }}
                onFocus={() => setChosen(i)}
                onKeyDown={(event) => nudge(event, i)}
                onPointerDown={(event) => {
                  event.currentTarget.setPointerCapture(event.pointerId);
                  setChosen(i);
                }}
                onPointerMove={(event) => {
                  if (event.currentTarget.hasPointerCapture(event.pointerId)) move(i, placeOf(event));
                }}
              />
            ))}
          </>
        )}
      </div>
    </details>
  );
}

/** What lies under a corner, each pixel large enough to be seen. */
function Lens({ image, spot }: { image: HTMLImageElement; spot: Spot }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const side = LENS_PX / LENS_ZOOM;
    context.imageSmoothingEnabled = false;
    context.fillStyle = '#808080';
    context.fillRect(0, 0, LENS_PX, LENS_PX);
    context.drawImage(image, spot.x - side / 2, spot.y - side / 2, side, side, 0, 0, LENS_PX, LENS_PX);
    for (const [colour, width] of [
      ['#ffffff', 3],
      ['#6a2346', 1],
    ] as const) {
      context.strokeStyle = colour;
      context.lineWidth = width;
      context.beginPath();
      context.moveTo(LENS_PX / 2, 0);
      context.lineTo(LENS_PX / 2, LENS_PX);
      context.moveTo(0, LENS_PX / 2);
      context.lineTo(LENS_PX, LENS_PX / 2);
      context.stroke();
    }
  }, [image, spot]);
  return (
    <canvas
      ref={canvas}
      width={LENS_PX}
      height={LENS_PX}
      className="rounded-full border-2 border-edge"
      aria-hidden
    />
  );
}
