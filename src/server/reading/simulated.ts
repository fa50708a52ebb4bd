import sharp from 'sharp';
import type { LegendLine } from '../../core/canvas/legend';
import type { CellRect, Chart } from '../../core/cells/chart';
import { CAMERA_LEVELS, type CameraLevelName, takePhoto } from '../../core/reading/camera';
import type { Corners } from '../../core/reading/homography';
import { listScene } from '../../core/reading/listScene';
import { printsOf } from './prints';

/** What stands before the simulated camera, and how it is taken. */
export interface SimulatedShot {
  legend: LegendLine[];
  /** Null for a photo of the printed list. */
  chart: Chart | null;
  rect: CellRect | null;
  level: CameraLevelName;
  seed: number;
  px: number;
}

export interface SimulatedPhoto {
  jpeg: Uint8Array;
  /** Corners of the squares; of a list, those of each column of swatches. */
  corners: Corners[];
}

/** Pixels of a swatch in photos of the list. */
const SWATCH_PX = 48;

/** A photo as a camera would take it, with all that spoils one; the same seed takes the same photo. */
export async function simulatedPhoto({
  legend,
  chart,
  rect,
  level,
  seed,
  px,
}: SimulatedShot): Promise<SimulatedPhoto> {
  const prints = await printsOf(legend);
  const usual = CAMERA_LEVELS[level];
  if (chart && rect) {
    const { photo, corners } = takePhoto(
      { chart, prints, lineWidth: 0.05 },
      { rect, cellPx: px, level: usual, seed },
    );
    return { jpeg: await asJpeg(photo, usual.jpeg), corners: [corners] };
  }
  const list = listScene(
    legend.map(({ line }) => line),
    prints,
  );
  const { photo, where } = takePhoto(list.scene, {
    rect: { x: 0, y: 0, width: list.columns, height: list.rows },
    cellPx: SWATCH_PX,
    // The list lies flat on the table, and nobody photographs it in a reflection.
    level: { ...usual, waves: 0, tilt: 2, glare: 0, motion: 0 },
    seed,
  });
  return {
    jpeg: await asJpeg(photo, usual.jpeg),
    corners: list.blocks.map(({ rect: { x, y, width, height } }) => [
      where(x, y),
      where(x + width, y),
      where(x + width, y + height),
      where(x, y + height),
    ]),
  };
}

async function asJpeg(
  { width, height, data }: { width: number; height: number; data: Uint8Array | Uint8ClampedArray },
  quality: number,
): Promise<Uint8Array> {
  const raw = { width, height, channels: 4 as const };
  return new Uint8Array(await sharp(data, { raw }).removeAlpha().jpeg({ quality }).toBuffer());
}
