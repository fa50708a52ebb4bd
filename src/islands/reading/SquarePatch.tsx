import { useEffect, useRef, useState } from 'react';
import type { CellRect } from '../../core/cells/chart';
import { STRAIGHT_PX } from '../../core/reading/straightPicture';

/** Pictures that were fetched, by their address. */
const pictures = new Map<string, Promise<HTMLImageElement>>();

function pictureAt(url: string): Promise<HTMLImageElement> {
  let known = pictures.get(url);
  if (!known) {
    known = new Promise((resolve, reject) => {
      const image = new Image();
      image.onload = () => resolve(image);
      image.onerror = () => {
        pictures.delete(url);
        reject(new Error('The picture cannot be fetched.'));
      };
      image.src = url;
    });
    pictures.set(url, known);
  }
  return known;
}

/** Squares cut out of the straightened picture of a photo. */
export function SquarePatch({
  url,
  rect,
  framed = null,
  cellPx,
  label,
}: {
  url: string;
  /** Squares of the photo, from its upper left one; what lies outside stays empty. */
  rect: CellRect;
  /** A square of the patch that is framed. */
  framed?: { x: number; y: number } | null;
  /** Pixels of a square on screen. */
  cellPx: number;
  label: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [fault, setFault] = useState(false);
  const { x, y, width, height } = rect;
  const [fx, fy] = [framed?.x ?? null, framed?.y ?? null];
  useEffect(() => {
    let left = false;
    pictureAt(url).then(
      (image) => {
        const context = canvas.current?.getContext('2d');
        if (left || !context) return;
        const [wide, tall] = [width * cellPx, height * cellPx];
        context.clearRect(0, 0, wide, tall);
        context.imageSmoothingEnabled = cellPx < STRAIGHT_PX;
        context.drawImage(
          image,
          x * STRAIGHT_PX,
          y * STRAIGHT_PX,
          width * STRAIGHT_PX,
          height * STRAIGHT_PX,
          0,
          0,
          wide,
          tall,
        );
        if (fx === null || fy === null) return;
        for (const [colour, line] of [
          ['#ffffff', 4],
          ['#6a2346', 2],
        ] as const) {
          context.strokeStyle = colour;
          context.lineWidth = line;
          context.strokeRect(fx * cellPx, fy * cellPx, cellPx, cellPx);
        }
      },
      () => !left && setFault(true),
    );
    return () => {
      left = true;
    };
  }, [url, x, y, width, height, fx, fy, cellPx]);
  return (
    <canvas
      ref={canvas}
      width={width * cellPx}
      height={height * cellPx}
      role="img"
      aria-label={fault ? `${label}; its picture cannot be fetched` : label}
      className="max-w-full shrink-0 self-start border border-edge bg-bench"
    />
  );
}
