import { useMemo } from 'react';
import type { Comfort } from '../../core/bench/comfort';
import { type CellPlace, rectBetween } from '../../core/cells/rect';
import type { Section } from '../../core/sections/section';
import { coverLayer, type Layer } from '../../ui/cloth/layers';
import { barsLayer } from '../placing/barsLayer';
import { areaLayer, countingLayer, crossHairLayer, poppedLayer, rowGuideLayer } from './benchLayers';
import type { Guide } from './useGuide';

/** What lies over the squares at the bench: the cover, what is next, and what helps the eyes. */
export function useBenchLayers({
  section,
  guide: { placements, inHand, row, rect, rows },
  comfort: { guide, counting, crossHair },
  popped,
  cursor,
  ends,
  hand,
  columns,
}: {
  section: Section;
  guide: Guide;
  comfort: Comfort;
  popped: readonly number[];
  cursor: CellPlace | null;
  /** Corners of the area that is being drawn; null for none. */
  ends: readonly [CellPlace, CellPlace] | null;
  hand: 'right' | 'left';
  /** Of the canvas. */
  columns: number;
}): Layer[] {
  // biome-ignore lint/correctness/useExhaustiveDependencies: rectangle and corners are told by their numbers
  return useMemo(() => {
    const ground = getComputedStyle(document.documentElement).getPropertyValue('--c-bench');
    return [
      coverLayer(section, ground),
      ...(guide === 'placements' && inHand && !counting ? [barsLayer(placements, inHand, hand, true)] : []),
      ...(row && rect ? [rowGuideLayer(rect)] : []),
      ...(counting ? [countingLayer(rows)] : []),
      ...(popped.length > 0 ? [poppedLayer(popped, columns)] : []),
      ...(crossHair && cursor ? [crossHairLayer(cursor)] : []),
      ...(ends ? [areaLayer(rectBetween(...ends))] : []),
    ];
  }, [
    section,
    guide,
    counting,
    crossHair,
    placements,
    inHand,
    row,
    rows,
    popped,
    cursor,
    hand,
    columns,
    ends?.[0].x,
    ends?.[0].y,
    ends?.[1].x,
    ends?.[1].y,
  ]);
}
