import type { LegendLine } from '../../core/canvas/legend';
import { byLine } from '../../core/canvas/legend';
import type { Bitmap } from '../../core/cells/bitmap';
import type { Chart } from '../../core/cells/chart';
import { hexToRgb, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { type ClothColours, clothColours, paintCloth } from '../../core/view/paint';

/** The cloth itself, in any light: a picture that goes out is seen by others. */
const CLOTH = '#f3eee5';
/** The longer side of a picture that goes out, px. */
const LONGER_PX = 1080;

export function pictureColours(legend: readonly LegendLine[], hasChart: boolean): ClothColours {
  const unknown = hexToRgb(UNKNOWN_COLOUR);
  const drills = hasChart
    ? byLine(legend, ({ hex }) => hexToRgb(hex ?? UNKNOWN_COLOUR), unknown).slice(1)
    : [unknown];
  return clothColours(drills, hexToRgb(CLOTH));
}

/** Draws the canvas as it lay at some moment, a pixel a square, into a picture of that size. */
export function drawPicture(
  into: HTMLCanvasElement,
  chart: Chart,
  colours: ClothColours,
  laid: Bitmap,
): void {
  into.width = chart.width;
  into.height = chart.height;
  const context = into.getContext('2d')!;
  const pixels = new ImageData(chart.width, chart.height);
  paintCloth(chart, colours, { laid, focus: null }, pixels.data);
  context.putImageData(pixels, 0, 0);
}

/** Size of a picture to take along, as large as it may be with whole pixels a square where that is possible. */
export function outSize({ width, height }: Pick<Chart, 'width' | 'height'>): {
  width: number;
  height: number;
} {
  const most = LONGER_PX / Math.max(width, height);
  const scale = most >= 1 ? Math.floor(most) : most;
  // Films want even sides.
  const even = (side: number) => Math.max(2, Math.round((side * scale) / 2) * 2);
  return { width: even(width), height: even(height) };
}

const MARGIN = 36;
const LINE_PX = 44;
const WORDS_FONT = "28px 'Atkinson Hyperlegible Next Variable'";

/**
 * The canvas as it lies, with a title, lines of words and photos beneath, as a PNG.
 * @param photos addresses of photos, at most three are drawn
 */
export async function pictureWithWords(
  title: string,
  lines: readonly string[],
  { chart, laid }: { chart: Chart; laid: Bitmap },
  colours: ClothColours,
  photos: readonly string[] = [],
): Promise<Blob> {
  await document.fonts.load(`600 ${WORDS_FONT}`);
  const drawn = (await Promise.all(photos.slice(0, 3).map(loaded))).filter((photo) => photo !== null);
  const small = document.createElement('canvas');
  drawPicture(small, chart, colours, laid);
  const size = outSize(chart);
  const measure = small.getContext('2d')!;
  measure.font = `400 ${WORDS_FONT}`;
  const words = lines.flatMap((line) => broken(measure, line, size.width));
  const photoSide = drawn.length > 0 ? (size.width - 16 * (drawn.length - 1)) / Math.max(2, drawn.length) : 0;
  const whole = document.createElement('canvas');
  whole.width = size.width + 2 * MARGIN;
  whole.height = Math.ceil(
    size.height + 2 * MARGIN + LINE_PX * (words.length + 1) + 16 + (photoSide > 0 ? photoSide + 16 : 0),
  );
  const context = whole.getContext('2d')!;
  context.fillStyle = '#e9e2d6';
  context.fillRect(0, 0, whole.width, whole.height);
  context.imageSmoothingEnabled = size.width < chart.width;
  context.drawImage(small, MARGIN, MARGIN, size.width, size.height);
  context.imageSmoothingEnabled = true;
  context.fillStyle = '#251f18';
  let y = size.height + MARGIN + LINE_PX + 12;
  context.font = "650 34px 'Atkinson Hyperlegible Next Variable'";
  context.fillText(title, MARGIN, y, size.width);
  context.font = `400 ${WORDS_FONT}`;
  for (const line of words) {
    y += LINE_PX;
    context.fillText(line, MARGIN, y, size.width);
  }
  drawn.forEach((photo, i) => {
    const scale = Math.min(photoSide / photo.naturalWidth, photoSide / photo.naturalHeight);
    const at = MARGIN + i * (photoSide + 16);
    context.drawImage(photo, at, y + 20, photo.naturalWidth * scale, photo.naturalHeight * scale);
  });
  const blob = await new Promise<Blob | null>((resolve) => whole.toBlob(resolve, 'image/png'));
  if (!blob) throw new Error('The browser could not make the picture.');
  return blob;
}

/** A photo that does not come is left out. */
function loaded(url: string): Promise<HTMLImageElement | null> {
  return new Promise((resolve) => {
    const photo = new Image();
    photo.onload = () => resolve(photo);
    photo.onerror = () => resolve(null);
    photo.src = url;
  });
}

/** A line in as many as fit a width, broken between words. */
function broken(context: CanvasRenderingContext2D, line: string, width: number): string[] {
  const lines: string[] = [];
  for (const word of line.split(' ')) {
    const longer = lines.length === 0 ? word : `${lines.at(-1)} ${word}`;
    if (lines.length > 0 && context.measureText(longer).width > width) lines.push(word);
    else lines[Math.max(0, lines.length - 1)] = longer;
  }
  return lines;
}

/** Offers a file to be kept. */
export function offer(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
