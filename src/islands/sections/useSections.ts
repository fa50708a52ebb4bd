import { useMemo } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import {
  type BlockSize,
  cutIntoBlocks,
  type SectionTally,
  tallySections,
} from '../../core/sections/blockGrid';
import type { ClothData } from '../cloth/useClothData';

/**
 * The sections of a canvas with what is in them: not in the page, which thousands of them would make too long.
 * @param version changes when the bitmap did that is changed in place, where the station shows that
 */
export function useSections(
  canvas: Canvas,
  { chart, laid }: ClothData,
  block: BlockSize,
  lines: number,
  version = 0,
): SectionTally[] {
  // biome-ignore lint/correctness/useExhaustiveDependencies: see `version`
  return useMemo(
    () => tallySections(chart, laid, cutIntoBlocks(canvas, canvas.panels, block), Math.max(1, lines)),
    [canvas, chart, laid, block, lines, version],
  );
}
