import { useMemo } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import {
  type BlockSize,
  cutIntoBlocks,
  type SectionTally,
  tallySections,
} from '../../core/sections/blockGrid';
import type { ClothData } from '../cloth/useClothData';

/** The sections of a canvas with what is in them when the page opens; a page of thousands of them would be too long. */
export function useSections(
  canvas: Canvas,
  { chart, laid }: ClothData,
  block: BlockSize,
  lines: number,
): SectionTally[] {
  return useMemo(
    () => tallySections(chart, laid, cutIntoBlocks(canvas, canvas.panels, block), Math.max(1, lines)),
    [canvas, chart, laid, block, lines],
  );
}
