import type { ReactNode } from 'react';
import { type LegendLine, ofLine } from '../../core/canvas/legend';
import { isLaid } from '../../core/cells/bitmap';
import { panelPlace, panelPlaceInWords } from '../../core/cells/position';
import { type CellPlace, cellIndex } from '../../core/cells/rect';
import { squareInWords } from '../../core/cells/squareInWords';
import type { SectionPlan } from '../../core/sections/plan';
import { type Section, sectionAt } from '../../core/sections/section';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Cloth, type ClothProps } from '../../ui/cloth/Cloth';
import { Notice } from '../../ui/Notice';
import { type ClothData, useClothData } from './useClothData';

/** Loads the chart of a station and what is laid, says so meanwhile, and hands them on. */
export function WithCloth({
  entry,
  cut,
  children,
}: {
  entry: ShelfEntry;
  /** How it is cut; null where the page leaves that to be loaded. Left out by stations without sections. */
  cut?: SectionPlan | null;
  children: (data: ClothData) => ReactNode;
}) {
  const { data, fault } = useClothData(entry.canvas, entry.hasChart, cut);
  if (fault) return <Notice kind="fault">{fault}</Notice>;
  // What stands below the canvas is not to be seen first and pushed away then.
  if (!data)
    return (
      <p aria-live="polite" className="max-lg:min-h-dvh">
        Loading…
      </p>
    );
  return children(data);
}

/** The canvas of a station, from what every station has at hand; it says what stands at the square in hand. */
export function StationCloth({
  entry,
  legend,
  data,
  sections,
  ...rest
}: {
  entry: ShelfEntry;
  legend: readonly LegendLine[];
  data: ClothData;
  /** Named with each square, where the station has them. */
  sections?: readonly Section[];
} & Omit<ClothProps, 'chart' | 'hasChart' | 'legend' | 'shape' | 'say'>) {
  const { chart, laid } = data;
  const say = (place: CellPlace) => {
    const cell = cellIndex(place, chart.width);
    const line = chart.cells[cell]!;
    const what = line === 0 ? undefined : entry.hasChart ? ofLine(legend, line) : null;
    const section = sections ? (sectionAt(sections, place.x, place.y)?.number ?? null) : null;
    const panel = panelPlace(entry.canvas, place);
    const onPanel = panel && panelPlaceInWords(panel);
    return squareInWords(place, what, rest.wish.laid ? isLaid(laid, cell) : null, section, onPanel);
  };
  return (
    <Cloth
      chart={chart}
      hasChart={entry.hasChart}
      legend={legend}
      shape={entry.canvas.shape}
      say={say}
      {...rest}
    />
  );
}
