import { asCanvas, type Canvas, type CanvasFacts } from '../src/core/canvas/canvas';
import type { LegendLine } from '../src/core/canvas/legend';
import { type Chart, countPerLine, makeChart } from '../src/core/cells/chart';
import { relativeLuminance } from '../src/core/colour/contrast';
import type { Finish } from '../src/core/colour/finish';
import { inventLegend, LIKE_PAIRS } from './legend';
import { drawInColours, type FewColours } from './quantise';
import { type Random, seeded } from './random';
import { theGlasshouse } from './scenes/glasshouse';
import { kingfisherAtTheSluice } from './scenes/kingfisher';
import { lanternHarbour } from './scenes/lanternHarbour';

/** An invented kit: the canvas, its sheet and its chart. */
export interface Kit {
  canvas: Canvas;
  legend: LegendLine[];
  chart: Chart;
}

type Plan = Omit<CanvasFacts, 'id' | 'shape' | 'pitchMm' | 'bagsCarry'> & {
  id: string;
  colours: number;
  seed: number;
  draw: (random: Random) => string;
  finishes?: (picture: FewColours) => Map<number, Finish>;
  firstGlyphs?: readonly string[];
};

export async function kingfisherKit(): Promise<Kit> {
  return makeKit({
    id: '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f01',
    title: 'Kingfisher at the Sluice',
    width: 120,
    height: 160,
    panels: 1,
    symbolsPrinted: true,
    packetDrills: 200,
    colours: 32,
    seed: 11,
    draw: kingfisherAtTheSluice,
  });
}

export async function lanternKit(): Promise<Kit> {
  return makeKit({
    id: '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f02',
    title: 'Lantern Harbour',
    width: 160,
    height: 200,
    panels: 1,
    symbolsPrinted: true,
    packetDrills: 200,
    colours: 48,
    seed: 23,
    draw: lanternHarbour,
    finishes: shineOnTheWater,
    firstGlyphs: LIKE_PAIRS,
  });
}

export async function glasshouseKit(): Promise<Kit> {
  return makeKit({
    id: '6f1d2a8e-3c47-4b59-9d10-5a7e2b9c4f03',
    title: 'The Glasshouse',
    width: 840,
    height: 500,
    panels: 3,
    symbolsPrinted: false,
    packetDrills: 1000,
    colours: 76,
    seed: 37,
    draw: theGlasshouse,
  });
}

async function makeKit(plan: Plan): Promise<Kit> {
  const { colours, seed, draw, finishes, firstGlyphs, ...canvas } = plan;
  const random = seeded(seed);
  const picture = await drawInColours(draw(random), plan.width, plan.height, colours, random);
  const chart = makeChart(
    plan.width,
    plan.height,
    picture.cells.map((cell) => cell + 1),
  );
  const legend = inventLegend(
    {
      palette: picture.palette,
      counts: countPerLine(chart, colours).subarray(1),
      packetDrills: plan.packetDrills,
      finishes: finishes?.(picture) ?? new Map(),
      firstGlyphs: firstGlyphs ?? [],
    },
    random,
  );
  return { canvas: asCanvas({ ...canvas, shape: 'square', pitchMm: 2.5, bagsCarry: null }), legend, chart };
}

/** The four lightest colours shimmer; two warm ones of middle lightness are metallic. */
function shineOnTheWater({ palette }: FewColours): Map<number, Finish> {
  const byLight = palette.map((rgb, i) => ({ i, light: relativeLuminance(rgb), warm: rgb[0] - rgb[2] }));
  const lightest = [...byLight].sort((a, b) => b.light - a.light).slice(0, 4);
  const golden = byLight
    .filter((entry) => entry.light > 0.2 && entry.light < 0.5 && !lightest.includes(entry))
    .sort((a, b) => b.warm - a.warm)
    .slice(0, 2);
  return new Map<number, Finish>([
    ...lightest.map((entry): [number, Finish] => [entry.i, 'iridescent']),
    ...golden.map((entry): [number, Finish] => [entry.i, 'metallic']),
  ]);
}
