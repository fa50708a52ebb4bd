import type { Canvas } from '../../core/canvas/canvas';
import { placesInCodeOrder } from '../../core/codes/places';
import type { LabelFacts } from '../../core/labels/art';
import { chosenLabels, inPrintOrder, type LabelChoice } from '../../core/labels/chosen';
import { colourAddress } from '../../core/labels/qr';
import { LABEL_FORMATS, type LabelFormat, type LabelSheet, usualSheet } from '../../core/labels/sheet';
import { lostInWords, printedTexts } from '../../core/labels/unprintable';
import { legendOf } from '../../data/canvas';
import type { Queries } from '../../data/engine/database';
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
  which: LabelChoice,
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
  }));
}

export async function labelsView(queries: Queries, canvas: Canvas): Promise<LabelsView> {
  const countOf = async (which: LabelChoice) => (await labelFacts(queries, canvas, which, null)).length;
  return {
    sheets: await sheetsOf(queries),
    counts: { all: await countOf('all'), pots: await countOf('pots'), bags: await countOf('bags') },
  };
}

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
  const labels = await labelFacts(queries, canvas, wish.which, address, wish.colours);
  if (labels.length === 0) {
    throw conflict(
      wish.which === 'all'
        ? 'Labels are printed from the colour list, and this canvas has none yet.'
        : `No colour of this canvas lives in a ${wish.which === 'pots' ? 'pot' : 'bag'}.`,
    );
  }
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
