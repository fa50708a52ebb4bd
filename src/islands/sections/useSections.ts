import { useMemo } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import { type SectionPlan, sectionsOfPlan } from '../../core/sections/plan';
import { type SectionTally, tallySections } from '../../core/sections/section';
import type { ClothData } from '../cloth/useClothData';

/**
 * The sections of a canvas with what is in them: not in the page, which thousands of them would make too long.
 * @param version changes when the bitmap did that is changed in place, where the station shows that
 */
export function useSections(
  canvas: Canvas,
  { chart, laid }: ClothData,
  cut: SectionPlan,
  lines: number,
  version = 0,
): SectionTally[] {
  const sections = useMemo(() => sectionsOfPlan(canvas, cut), [canvas, cut]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: see `version`
  return useMemo(
    () => tallySections(chart, laid, sections, Math.max(1, lines)),
    [chart, laid, sections, lines, version],
  );
}
