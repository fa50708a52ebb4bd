import type { Shape } from '../../core/canvas/canvas';
import { type LabelFacts, labelTexts } from '../../core/labels/art';
import { labelPages } from '../../core/labels/pages';
import type { LabelFormat, LabelSheet } from '../../core/labels/sheet';
import type { Drawing } from '../../core/print/drawing';
import { notFound } from '../http/problem';
import { drawingPdf } from '../print/drawingPdf';
import { drawingSvg } from '../print/drawingSvg';
import { typesetFor } from '../print/typeset';

/** Labels of a canvas, ready to be drawn. */
export interface LabelPrint {
  format: LabelFormat;
  sheet: LabelSheet;
  labels: readonly LabelFacts[];
  kit: { shape: Shape; title: string };
  /** First label of the first sheet that is still there, from 1. */
  start: number;
}

/** The sheets of labels. */
export async function labelDrawings({ format, sheet, labels, kit, start }: LabelPrint): Promise<Drawing[]> {
  const fonts = await typesetFor([kit.title, ...labelTexts(labels)]);
  return labelPages(format, sheet, labels, kit, fonts, start);
}

export async function labelsPdf(print: LabelPrint): Promise<Uint8Array> {
  return drawingPdf({ title: `Labels: ${print.kit.title}`, pages: await labelDrawings(print) });
}

/** One sheet. @param page from 1 @throws Problem 404 when there are fewer */
export async function labelsSvg({ print, page }: { print: LabelPrint; page: number }): Promise<string> {
  const drawing = (await labelDrawings(print))[page - 1];
  if (!drawing) throw notFound('such page of labels');
  return drawingSvg(drawing);
}
