import type { ReactNode } from 'react';
import type { LegendLine } from '../../core/canvas/legend';
import type { ShelfEntry } from '../../server/shelf/contract';
import { Cloth, type ClothProps } from '../../ui/cloth/Cloth';
import { Notice } from '../../ui/Notice';
import { type ClothData, useClothData } from './useClothData';

/** Loads the chart of a station and what is laid, says so meanwhile, and hands them on. */
export function WithCloth({
  entry,
  children,
}: {
  entry: ShelfEntry;
  children: (data: ClothData) => ReactNode;
}) {
  const { data, fault } = useClothData(entry.canvas, entry.hasChart);
  if (fault) return <Notice kind="fault">{fault}</Notice>;
  if (!data) return <p aria-live="polite">Loading…</p>;
  return children(data);
}

/** The canvas of a station, from what every station has at hand. */
export function StationCloth({
  entry,
  legend,
  data,
  ...rest
}: { entry: ShelfEntry; legend: readonly LegendLine[]; data: ClothData } & Omit<
  ClothProps,
  'chart' | 'hasChart' | 'legend' | 'shape'
>) {
  return (
    <Cloth
      chart={data.chart}
      hasChart={entry.hasChart}
      legend={legend}
      shape={entry.canvas.shape}
      {...rest}
    />
  );
}
