import { type Canvas, cellsToCm } from '../canvas/canvas';

/** What may be wrong with a canvas out of its box, and what is usually done about it. */
export interface InspectionKind {
  key: string;
  name: string;
  remedy: string;
  caution: string;
}

/** Common practice, no source. */
export const INSPECTION_KINDS = [
  {
    key: 'print',
    name: 'Print missing, faint or crooked',
    remedy:
      'Photograph the place with a ruler beside it and write to the seller; a chart on screen can stand in for the print.',
    caution: '',
  },
  {
    key: 'air',
    name: 'Air channels under the adhesive',
    remedy:
      'Slit the bubble along its length with a fine blade and press the adhesive flat from one end to the other.',
    caution: 'Blades are sharp: cut away from your fingers, on a firm base, and keep them from children.',
  },
  {
    key: 'edges',
    name: 'Frayed edges',
    remedy: 'Brush loose threads off and seal the cut edge with thinned clear glue; let it dry lying flat.',
    caution: 'Follow the label of the glue and air the room. Keep it off the adhesive area.',
  },
  {
    key: 'size',
    name: 'The size is wrong',
    remedy: 'Measure the printed area, not the whole canvas, and tell the seller both sizes.',
    caution: '',
  },
  {
    key: 'odour',
    name: 'Strong odour',
    remedy: 'Hang it up with its cover on in an airy, shaded place for a few days.',
    caution: 'If your eyes or head ache, stop and air the room; ask a doctor if it goes on.',
  },
  {
    key: 'creases',
    name: 'Creases, or it will not lie flat',
    remedy:
      'Roll it the other way, or lift the cover and lay it again to let the air out. Leave it under flat weights over night.',
    caution: 'Heat can spoil the adhesive; if you warm it, test a corner of the margin first.',
  },
  {
    key: 'sheet',
    name: 'Photo of the inventory sheet',
    remedy: 'It goes with a request to the seller.',
    caution: '',
  },
  {
    key: 'other',
    name: 'Something else',
    remedy: 'Write it down with the date, and photograph it.',
    caution: '',
  },
] as const satisfies readonly InspectionKind[];
export type InspectionKey = (typeof INSPECTION_KINDS)[number]['key'];

export function inspectionKind(key: InspectionKey): InspectionKind {
  return INSPECTION_KINDS.find((kind) => kind.key === key)!;
}

/** Cloth stretches and rulers slip: a difference up to 1 % or 3 mm is no fault (common practice, no source). */
const SIZE_SHARE = 0.01;
const SIZE_CM = 0.3;

/** A measured size against the size that follows from the cells, as a sentence. */
export function sizeInWordsAgainst(
  measured: { widthCm: number; heightCm: number },
  canvas: Pick<Canvas, 'width' | 'height' | 'pitchMm'>,
): string {
  const sold = {
    widthCm: cellsToCm(canvas.width, canvas.pitchMm),
    heightCm: cellsToCm(canvas.height, canvas.pitchMm),
  };
  const parts = (['widthCm', 'heightCm'] as const).flatMap((side) => {
    const off = measured[side] - sold[side];
    if (Math.abs(off) <= Math.max(SIZE_CM, sold[side] * SIZE_SHARE)) return [];
    const name = side === 'widthCm' ? 'width' : 'height';
    return [`${name} is ${Math.abs(off).toFixed(1)} cm ${off < 0 ? 'too small' : 'too large'}`];
  });
  const should = `${canvas.width} × ${canvas.height} squares should measure ${cm(sold.widthCm)} × ${cm(sold.heightCm)} cm`;
  return parts.length === 0
    ? `${should}; ${cm(measured.widthCm)} × ${cm(measured.heightCm)} cm is well within what a ruler can tell.`
    : `${should}; its ${parts.join(' and its ')}.`;
}

function cm(length: number): string {
  return length.toFixed(1).replace(/\.0$/, '');
}
