import { type Drawing, type Mark, OUTLINE_MM } from '../../core/print/drawing';
import { mmToPoints } from '../../core/print/paper';
import type { TellProgress } from '../jobs/progress';
import { newPdf, type Pdf, setText, writtenPdf } from './pdf';
import { type Typeset, typesetFor } from './typeset';

/**
 * Pages of drawings as a PDF with embedded fonts, true to size when printed at 100 %.
 * @param typeset fonts for all that the pages say; null has the pages read for it first
 */
export async function drawingPdf(
  { title, pages }: { title: string; pages: Iterable<Drawing> },
  report: TellProgress = () => {},
  typeset: Typeset | null = null,
): Promise<Uint8Array> {
  const all = typeset ? pages : [...pages];
  const fonts = typeset ?? (await typesetFor(textsOf(all)));
  const document = newPdf('a4', title, fonts);
  let done = 0;
  for (const page of all) {
    report(++done, 0);
    document.addPage({ size: [mmToPoints(page.widthMm), mmToPoints(page.heightMm)], margin: 0 });
    gathered(document, () => {
      for (const mark of page.marks) draw(document, mark, fonts);
    });
  }
  return writtenPdf(document);
}

/**
 * Hands the operators of a page to the document in one piece. One by one, it copies all that the page holds so far each
 * time, which takes most of the time for a page of thousands of marks. `addContent` is not part of pdfkit's documented
 * interface: its version is pinned, and the tests that read the PDF back would see it change.
 */
function gathered(document: Pdf, work: () => void): void {
  const parts: string[] = [];
  const add = document.addContent;
  document.addContent = (content: string) => {
    parts.push(content);
    return document;
  };
  work();
  document.addContent = add;
  if (parts.length > 0) document.addContent(parts.join('\n'));
}

/** Every text of some pages. */
function* textsOf(pages: Iterable<Drawing>): Generator<string> {
  for (const { marks } of pages) for (const mark of marks) if (mark.kind === 'text') yield mark.text;
}

function draw(document: Pdf, mark: Mark, fonts: Typeset): void {
  const mm = mmToPoints;
  switch (mark.kind) {
    case 'rect':
      document.rect(mm(mark.x), mm(mark.y), mm(mark.width), mm(mark.height));
      paint(document, mark);
      return;
    case 'circle':
      document.circle(mm(mark.x), mm(mark.y), mm(mark.radius));
      paint(document, mark);
      return;
    case 'line':
      document.lineWidth(mm(mark.width)).moveTo(mm(mark.x1), mm(mark.y1)).lineTo(mm(mark.x2), mm(mark.y2));
      document.stroke(mark.stroke);
      return;
    case 'path':
      document.save().translate(mm(mark.x), mm(mark.y)).scale(mm(mark.scale));
      document.path(mark.d).fill(mark.fill, 'even-odd');
      document.restore();
      return;
    case 'text':
      setText(document, fonts, { ...mark, x: mm(mark.x), y: mm(mark.y), size: mm(mark.size) });
  }
}

function paint(document: Pdf, { fill, stroke }: { fill?: string; stroke?: string }): void {
  document.lineWidth(mmToPoints(OUTLINE_MM));
  if (fill !== undefined && stroke !== undefined) document.fillAndStroke(fill, stroke);
  else if (fill !== undefined) document.fill(fill);
  else if (stroke !== undefined) document.stroke(stroke);
}
