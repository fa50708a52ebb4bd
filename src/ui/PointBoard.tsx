import { type KeyboardEvent, type PointerEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { isPressed } from './pressed';

/** A place on a picture, in its pixels. */
export interface BoardSpot {
  x: number;
  y: number;
}

const LENS_PX = 168;
/** Pixels of the picture that an arrow key moves a place; with shift, ten times as many. */
const KEY_STEP = 1;
/** A tap moves no farther than this. */
const STILL_PX = 10;

/**
 * A picture with places on it that are set by hand: dragged, tapped where the chosen one belongs, or moved by the arrow
 * keys.
 */
export function PointBoard({
  url,
  alt,
  spots,
  outlined = false,
  chosen,
  zoom = 1,
  onChoose,
  onMove,
  onLoad,
  onTap,
  children,
}: {
  url: string | null;
  alt: string;
  spots: readonly (BoardSpot & { name: string })[];
  /** Draws the line through all of them. */
  outlined?: boolean;
  chosen: number;
  /** How much wider than its frame the picture is; more than 1 scrolls. */
  zoom?: number;
  onChoose(which: number): void;
  onMove(which: number, to: BoardSpot): void;
  onLoad(image: HTMLImageElement): void;
  /** What a tap on the picture does; without it, the chosen place moves there. */
  onTap?: (at: BoardSpot) => void;
  /** Drawn over the picture, in its pixels. */
  children?: ReactNode;
}) {
  const [image, setImage] = useState<HTMLImageElement | null>(null);
  const pressed = useRef<BoardSpot | null>(null);
  const width = image?.naturalWidth ?? 0;
  const height = image?.naturalHeight ?? 0;
  const inside = ({ x, y }: BoardSpot): BoardSpot => ({
    x: Math.min(width, Math.max(0, x)),
    y: Math.min(height, Math.max(0, y)),
  });
  const placeOf = (event: PointerEvent): BoardSpot => {
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
    if (!by) return;
    event.preventDefault();
    onMove(which, inside({ x: spots[which]!.x + by[0]!, y: spots[which]!.y + by[1]! }));
  };
  return (
    <div className={zoom > 1 ? 'max-h-[75vh] overflow-auto' : ''}>
      <div
        className={`relative border border-edge select-none ${zoom > 1 ? '' : 'touch-none'}`}
        // All of it is in view at once; nearer, it scrolls in its frame.
        style={{
          width:
            zoom > 1
              ? `${zoom * 100}%`
              : `min(100%, max(20rem, ${(0.72 * width) / Math.max(1, height)} * 100vh))`,
        }}
      >
        {url && (
          <img
            src={url}
            alt={alt}
            className="block w-full"
            draggable={false}
            onLoad={(event) => {
              setImage(event.currentTarget);
              onLoad(event.currentTarget);
            }}
            onPointerDown={({ clientX, clientY }) => {
              pressed.current = { x: clientX, y: clientY };
            }}
            onPointerUp={(event) => {
              const from = pressed.current;
              pressed.current = null;
              // A finger that moved has scrolled the picture.
              if (!from || Math.hypot(event.clientX - from.x, event.clientY - from.y) > STILL_PX) return;
              const at = placeOf(event);
              if (onTap) onTap(at);
              else if (spots.length > 0) onMove(chosen, inside(at));
            }}
          />
        )}
        {image && width > 0 && (
          <>
            <svg
              className="pointer-events-none absolute inset-0 size-full"
              viewBox={`0 0 ${width} ${height}`}
              preserveAspectRatio="none"
              aria-hidden
            >
              {children}
              {outlined &&
                (['#ffffff', '#6a2346'] as const).map((stroke, i) => (
                  <polygon
                    key={stroke}
                    points={spots.map(({ x, y }) => `${x},${y}`).join(' ')}
                    fill="none"
                    stroke={stroke}
                    strokeWidth={i === 0 ? 5 : 2}
                    vectorEffect="non-scaling-stroke"
                  />
                ))}
            </svg>
            {spots.map(({ name, x, y }, i) => (
              <button
                key={name}
                type="button"
                aria-label={`${name}, at ${x.toFixed(0)}, ${y.toFixed(0)}`}
                className={`absolute size-11 -translate-x-1/2 -translate-y-1/2 cursor-move touch-none rounded-full border-[3px] bg-transparent ${
                  i === chosen
                    ? 'border-accent outline-2 outline-white'
                    : 'border-white outline-2 outline-accent'
                }`}
                style={{ left: `${(x / width) * 100}%`, top: `${(y / height) * 100}%` }}
                onFocus={() => onChoose(i)}
                onKeyDown={(event) => nudge(event, i)}
                onPointerDown={(event) => {
                  event.currentTarget.setPointerCapture(event.pointerId);
                  onChoose(i);
                }}
                onPointerMove={(event) => {
                  if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
                  if (isPressed(event)) onMove(i, inside(placeOf(event)));
                  else event.currentTarget.releasePointerCapture(event.pointerId);
                }}
              />
            ))}
          </>
        )}
      </div>
    </div>
  );
}

/** What lies under a place of a picture, each pixel large enough to be seen. */
export function Lens({
  image,
  spot,
  zoom = 6,
}: {
  image: CanvasImageSource;
  spot: BoardSpot;
  zoom?: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const side = LENS_PX / zoom;
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
  }, [image, spot, zoom]);
  return (
    <canvas
      ref={canvas}
      width={LENS_PX}
      height={LENS_PX}
      className="shrink-0 self-start rounded-full border-2 border-edge"
      aria-hidden
    />
  );
}
