import type { Canvas } from '../../core/canvas/canvas';
import { placesInCodeOrder } from '../../core/codes/places';
import type { LabelFacts } from '../../core/labels/art';
import { chosenLabels, inPrintOrder, type LabelChoice, leftoverLabels } from '../../core/labels/chosen';
import { colourAddress } from '../../core/labels/qr';
import { LABEL_FORMATS, type LabelFormat, type LabelSheet, usualSheet } from '../../core/labels/sheet';
import { lostInWords, printedTexts } from '../../core/labels/unprintable';
import { legendOf } from '../../data/canvas';
import type { Queries } from '../../data/engine/database';
import { putAwayOf } from '../../data/kitup';
import { labelSheets } from '../../data/labels';
import { lidMarks } from '../../data/symbols';
import { conflict } from '../http/problem';
import { inWorker } from '../jobs/pool';
import { potPlaces } from '../kitup/pots';
import type { LabelsView, UnprintableView } from './contract';
import type { LabelPrint } from './print';

async function sheetsOf(queries: Queries): Promise<Record<LabelFormat, LabelSheet>> {
  const measured = await labelSheets(queries);
  return Object.fromEntries(
    LABEL_FORMATS.map((format) => [format, measured.get(format) ?? usualSheet(format)]),
  ) as Record<LabelFormat, LabelSheet>;
}

/** Labels of a canvas in the order of their places, so that they lie side by side as the pots do. */
async function labelFacts(
  queries: Queries,
  canvas: Canvas,
  which: Exclude<LabelChoice, 'leftovers'>,
  origin: string | null,
  colours = '',
): Promise<LabelFacts[]> {
  const legend = await legendOf(queries, canvas.id);
  const places = await potPlaces(queries, canvas.id, legend);
  const marks = await lidMarks(queries, canvas.id);
  const all = inPrintOrder(placesInCodeOrder(legend, places), which);
  const labels = colours === '' ? all : chosenLabels(colours, all);
  return labels.map(({ line, place }) => ({
    line,
    place,
    warnsOf: legend.find((other) => other.line === marks.get(line.line)) ?? null,
    address: origin === null ? null : colourAddress(origin, canvas.id, line.line),
    leftover: null,
  }));
}

/** Labels of the bags in which the leftovers of a canvas lie in the stash. */
async function leftoverFacts(queries: Queries, canvas: Canvas, colours = ''): Promise<LabelFacts[]> {
  const away = await leftoversInStash(queries, canvas);
  const all = leftoverLabels(await legendOf(queries, canvas.id), [...away.keys()]);
  const labels = colours === '' ? all : chosenLabels(colours, all);
  return labels.map(({ line, place }) => ({
    line,
    place,
    warnsOf: null,
    address: null,
    leftover: away.get(line.line)!,
  }));
}

/** Drills by line, where there are any. */
async function leftoversInStash(queries: Queries, canvas: Canvas): Promise<Map<number, number>> {
  return new Map([...(await putAwayOf(queries, canvas.id))].filter(([, drills]) => drills > 0));
}

export async function labelsView(queries: Queries, canvas: Canvas): Promise<LabelsView> {
  const countOf = async (which: Exclude<LabelChoice, 'leftovers'>) =>
    (await labelFacts(queries, canvas, which, null)).length;
  const leftovers = [...(await leftoversInStash(queries, canvas)).keys()];
  return {
    sheets: await sheetsOf(queries),
    counts: {
      all: await countOf('all'),
      pots: await countOf('pots'),
      bags: await countOf('bags'),
      leftovers: leftovers.length,
    },
    leftovers,
  };
}

const NOTHING_TO_LABEL: Record<LabelChoice, string> = {
  all: 'Labels are printed from the colour list, and this canvas has none yet.',
  pots: 'No colour of this canvas lives in a pot.',
  bags: 'No colour of this canvas lives in a bag.',
  leftovers: 'No leftovers of this canvas lie in the stash yet.',
};

/**
 * The labels to print.
 * @param origin address of this Oculent, for the QR codes
 * @throws Problem when there is nothing to label
 */
export async function labelsToPrint(
  queries: Queries,
  canvas: Canvas,
  wish: { format: LabelFormat; which: LabelChoice; start: number; colours?: string; address?: string },
  origin: string,
): Promise<LabelPrint> {
  const sheet = (await sheetsOf(queries))[wish.format];
  const address = sheet.qr ? wish.address || origin : null;
  const labels =
    wish.which === 'leftovers'
      ? await leftoverFacts(queries, canvas, wish.colours)
      : await labelFacts(queries, canvas, wish.which, address, wish.colours);
  if (labels.length === 0) throw conflict(NOTHING_TO_LABEL[wish.which]);
  const start = Math.min(wish.start, sheet.columns * sheet.rows);
  const kit = { shape: canvas.shape, title: canvas.title };
  return { format: wish.format, sheet, labels, kit, start };
}

/** What of a canvas no font here has, so that it is known before it is printed. */
export async function unprintableView(queries: Queries, canvas: Canvas): Promise<UnprintableView> {
  const texts = printedTexts(canvas.title, await legendOf(queries, canvas.id));
  const lost = new Set(
    await inWorker(
      'unprintable',
      texts.map(({ text }) => text),
    ),
  );
  const parts = texts.filter(({ text }) => lost.has(text)).map(({ what }) => what);
  return { parts, sentence: lostInWords(parts) };
}
