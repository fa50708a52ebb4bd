import { useEffect, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import type { Bitmap } from '../../core/cells/bitmap';
import { type Chart, chartFromBytes, plainCloth } from '../../core/cells/chart';
import { getBytes, inWords } from '../writing/api';

export interface ClothData {
  chart: Chart;
  laid: Bitmap;
}

/** Loads a canvas's chart and what is laid. Without a chart the cloth is plain and progress is kept by area. */
export function useClothData(
  canvas: Canvas,
  hasChart: boolean,
): { data: ClothData | null; fault: string | null } {
  const [data, setData] = useState<ClothData | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    let left = false;
    const load = async () => {
      const [cells, laid] = await Promise.all([
        hasChart ? getBytes(`/api/canvases/${canvas.id}/chart`) : null,
        getBytes(`/api/canvases/${canvas.id}/bitmap`),
      ]);
      const chart = cells
        ? chartFromBytes(canvas.width, canvas.height, cells)
        : plainCloth(canvas.width, canvas.height);
      if (!left) setData({ chart, laid });
    };
    load().catch((error: unknown) => !left && setFault(inWords(error)));
    return () => {
      left = true;
    };
  }, [canvas, hasChart]);
  return { data, fault };
}
