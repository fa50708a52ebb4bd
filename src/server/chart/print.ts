import { type ChartPrint, chartPages, pageRects } from '../../core/chart/files/chartPages';
import { type LabelFacts, labelTexts } from '../../core/labels/art';
import { labelPages } from '../../core/labels/pages';
import { usualSheet } from '../../core/labels/sheet';
import type { Drawing } from '../../core/print/drawing';
import type { TellProgress } from '../jobs/progress';
import { drawingPdf } from '../print/drawingPdf';
import { typesetFor } from '../print/typeset';
import type { ChartParts } from './chartFiles';

/** The chart to work from on paper, with its legend on the last pages. */
export async function chartPdf(
  { chart, legend, print, labels }: ChartParts & { print: ChartPrint; labels: LabelFacts[] },
  report: TellProgress,
): Promise<Uint8Array> {
  const fonts = await typesetFor([print.title, ...labelTexts(labels)]);
  function* all(): Generator<Drawing> {
    yield* chartPages(chart, legend, print, fonts);
    const kit = { shape: print.shape, title: print.title };
    yield* labelPages('list', usualSheet('list', print.paper), labels, kit, fonts);
  }
  const pages = pageRects(print).rects.length;
  return drawingPdf(
    { title: print.title, pages: all() },
    (done) => report(Math.min(done, pages), pages),
    fonts,
  );
}
