import { useEffect, useRef, useState } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import { ofLine } from '../../core/canvas/legend';
import { squareToQuad } from '../../core/chart/files/picture/corners';
import type { ReadPicture } from '../../core/chart/files/picture/readPicture';
import type { DoubtfulCell } from '../../core/chart/files/picture/sureness';
import { many } from '../../core/words/numbers';
import { usePictureUrl } from './usePictureUrl';

/** How sure the reading of a picture is, and the squares that it is least sure of, as they look on the picture. */
export function LeastSure({
  file,
  picture,
  legend,
}: {
  file: File;
  picture: ReadPicture;
  legend: LegendLine[];
}) {
  const url = usePictureUrl(file);
  const image = useImage(url);
  const { cells, unsure, least } = picture.sure;
  if (unsure === 0) return <p data-testid="sure">Sure of every square.</p>;
  return (
    <section aria-label="Least sure" className="bg-paper p-4">
      <p className="text-lg font-semibold" data-testid="sure">
        Sure of {many(cells - unsure)} of {many(cells)} squares.
      </p>
      <p className="mb-2 text-faded">
        {unsure > least.length ? `The ${least.length} least sure` : 'The others'}, as the picture shows them.
        What is wrong can be corrected under Repair once the chart is saved.
      </p>
      <ul className="grid gap-3 [grid-template-columns:repeat(auto-fill,minmax(13rem,1fr))]">
        {least.map((cell) => (
          <li key={`${cell.x} ${cell.y}`} className="flex items-center gap-3">
            {image ? (
              <Patch image={image} picture={picture} cell={cell} />
            ) : (
              <span className="swatch size-16 border border-edge" style={{ background: cell.hex }} />
            )}
            <span>
              <span className="block">
                Column <span className="number">{cell.x + 1}</span>, row{' '}
                <span className="number">{cell.y + 1}</span>
              </span>
              <span className="block text-[0.95rem]">{takenFor(cell, legend)}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function takenFor({ line, other }: DoubtfulCell, legend: LegendLine[]): string {
  const code = (of: number) => ofLine(legend, of)?.code ?? '';
  const taken = line === 0 ? 'no colour of the list' : `taken as ${code(line)}`;
  return other === null ? taken : `${taken}, perhaps ${code(other)}`;
}

/** A picture once it is loaded; null where the browser does not show its kind. */
function useImage(url: string | null): HTMLImageElement | null {
  const [image, setImage] = useState<HTMLImageElement | null>(null);
  useEffect(() => {
    if (url === null) return;
    const loading = new Image();
    loading.onload = () => setImage(loading);
    loading.src = url;
    return () => {
      loading.onload = null;
    };
  }, [url]);
  return image;
}

/** Squares around the one in question that are shown with it, to either side. */
const AROUND = 1;
const PATCH_PX = 64;

/** The square with its neighbours, cut out of the picture; the square itself is framed. */
function Patch({
  image,
  picture,
  cell,
}: {
  image: HTMLImageElement;
  picture: ReadPicture;
  cell: DoubtfulCell;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { corners, columns, rows } = picture;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const placeOf = squareToQuad(corners);
    const middle = placeOf((cell.x + 0.5) / columns, (cell.y + 0.5) / rows);
    const beside = placeOf((cell.x + 1.5) / columns, (cell.y + 0.5) / rows);
    const side = (2 * AROUND + 1) * Math.hypot(beside.x - middle.x, beside.y - middle.y);
    context.imageSmoothingEnabled = false;
    context.drawImage(image, middle.x - side / 2, middle.y - side / 2, side, side, 0, 0, PATCH_PX, PATCH_PX);
    const own = PATCH_PX / (2 * AROUND + 1);
    context.strokeStyle = '#ffffff';
    context.lineWidth = 3;
    context.strokeRect(own, own, own, own);
    context.strokeStyle = '#000000';
    context.lineWidth = 1;
    context.strokeRect(own, own, own, own);
  }, [image, corners, columns, rows, cell]);
  return (
    <canvas ref={canvas} width={PATCH_PX} height={PATCH_PX} className="border border-edge" aria-hidden />
  );
}
