import { useEffect, useState } from 'react';
import type { Canvas } from '../../core/canvas/canvas';
import type { Bitmap } from '../../core/cells/bitmap';
import { type Chart, chartFromBytes, plainCloth } from '../../core/cells/chart';
import type { SectionPlan } from '../../core/sections/plan';
import type { SectionsPage } from '../../server/sections/contract';
import { getBitmap, getBytes, getJson, inWords } from '../writing/api';

export interface ClothData {
  chart: Chart;
  laid: Bitmap;
  /** Place in the ledger of the last mark in it. */
  position: number;
  /** How the canvas is cut, where the station asks for it. */
  cut: SectionPlan | null;
}

/**
 * Loads a canvas's chart and what is laid. Without a chart the cloth is plain and progress is kept by area.
 * @param cut how it is cut as the page has it; null where that is too long for a page, so that it is loaded as well;
 * undefined where the station needs none
 */
export function useClothData(
  canvas: Canvas,
  hasChart: boolean,
  cut?: SectionPlan | null,
): { data: ClothData | null; fault: string | null } {
  const [data, setData] = useState<ClothData | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    let left = false;
    const load = async () => {
      const [cells, bitmap, loaded] = await Promise.all([
        hasChart ? getBytes(`/api/canvases/${canvas.id}/chart`) : null,
        getBitmap(canvas.id),
        cut === null ? loadPlan(canvas.id) : (cut ?? null),
      ]);
      const chart = cells
        ? chartFromBytes(canvas.width, canvas.height, cells)
        : plainCloth(canvas.width, canvas.height);
      if (!left) setData({ chart, ...bitmap, cut: loaded });
    };
    load().catch((error: unknown) => !left && setFault(inWords(error)));
    return () => {
      left = true;
    };
  }, [canvas, hasChart, cut]);
  return { data, fault };
}

async function loadPlan(canvasId: string): Promise<SectionPlan> {
  return (await getJson<SectionsPage>(`/api/canvases/${canvasId}/section-plan`)).plan;
}
