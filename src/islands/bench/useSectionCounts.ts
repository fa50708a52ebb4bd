import { useMemo } from 'react';
import { colourInFront } from '../../core/bench/colours';
import { highestLine, type LegendLine } from '../../core/canvas/legend';
import { countInPart } from '../../core/cells/rect';
import { coloursInOrder, type School } from '../../core/placing/schools';
import type { Section } from '../../core/sections/section';
import type { ClothData } from '../cloth/useClothData';

/** What there is of each colour in the section in front, and what is left of it to lay; drills by line of the list. */
export interface SectionCounts {
  left: Uint32Array;
  all: Uint32Array;
  /** Colours of the section in the order in which they are laid; none without a chart. */
  colours: LegendLine[];
  colour: LegendLine | null;
  /** Drills of the colour in front; without a chart, of all. */
  leftHere: number;
  allHere: number;
  leftInSection: number;
  allInSection: number;
}

const sumOf = (perLine: Uint32Array) => perLine.subarray(1).reduce((sum, drills) => sum + drills, 0);

/**
 * Counts the section in front.
 * @param version of the marks: the bitmap is changed in place, so it tells when to count again
 * @param wanted line that was asked for; null for the first that has something left
 */
export function useSectionCounts(
  { chart, laid }: ClothData,
  version: number,
  section: Section,
  legend: LegendLine[],
  { hasChart, school, ownOrder }: { hasChart: boolean; school: School; ownOrder: readonly number[] },
  wanted: number | null,
): SectionCounts {
  const lines = Math.max(1, highestLine(legend));
  // biome-ignore lint/correctness/useExhaustiveDependencies: see `version`
  const left = useMemo(
    () => countInPart(chart, section, lines, laid),
    [chart, section, laid, lines, version],
  );
  const all = useMemo(() => countInPart(chart, section, lines, null), [chart, section, lines]);
  const colours = useMemo(
    () => (hasChart ? coloursInOrder(legend, all, school, ownOrder) : []),
    [hasChart, legend, all, school, ownOrder],
  );
  const colour = colourInFront(colours, left, wanted);
  const line = colour?.line ?? 1;
  return {
    ...{ left, all, colours, colour },
    ...{ leftHere: left[line]!, allHere: all[line]! },
    ...{ leftInSection: sumOf(left), allInSection: sumOf(all) },
  };
}
