import PDFDocument from 'pdfkit';
import type { DrawingFont } from '../../core/print/drawing';
import { mmToPoints, PAPERS, type PaperName } from '../../core/print/paper';
import type { TextRun, Typeset } from './typeset';
import { inVisualOrder } from './visualOrder';

export type Pdf = InstanceType<typeof PDFDocument>;

/** A document without pages, fonts registered under their names and embedded where they are used. */
export function newPdf(paper: PaperName, title: string, typeset: Typeset): Pdf {
  const { widthMm, heightMm } = PAPERS[paper];
  const document = new PDFDocument({
    size: [mmToPoints(widthMm), mmToPoints(heightMm)],
    margin: 0,
    autoFirstPage: false,
    info: { Title: title, Creator: 'Oculent' },
  });
  for (const [name, font] of typeset.fonts) document.registerFont(name, font.bytes);
  return document;
}

/** A line of text in points: `x` is its start, middle or end, `y` its baseline. */
export interface PdfText {
  text: string;
  font: DrawingFont;
  x: number;
  y: number;
  size: number;
  fill: string;
  anchor: 'start' | 'middle' | 'end';
}

/**
 * Sets a line of text run by run. What is shaped, or read from right to left, keeps its letters in the order of reading
 * beside its glyphs (ISO 32000-1, 14.9.4), so that it can be searched and copied.
 */
export function setText(document: Pdf, typeset: Typeset, line: PdfText): void {
  const runs = typeset.runsOf(line.text, line.font);
  const width = typeset.widthOf(line.text, line.font, line.size);
  let x = line.x - (line.anchor === 'middle' ? width / 2 : line.anchor === 'end' ? width : 0);
  const isShaped = runs.some(isFurther);
  if (isShaped) document.markContent('Span', { actual: line.text });
  const left = new Map<TextRun, number>();
  for (const run of inVisualOrder(runs)) {
    left.set(run, x);
    x += typeset.widthOfRun(run) * line.size;
  }
  // Written in the order of reading, whatever the order from left to right.
  for (const run of runs) {
    document.font(run.font).fontSize(line.size).fillColor(line.fill);
    document.text(run.text, left.get(run)!, line.y, {
      lineBreak: false,
      baseline: 'alphabetic',
      // Naming features, even none, has the run shaped as one; else each of its words is set by itself.
      ...(isFurther(run) ? { features: [] } : {}),
    });
  }
  if (isShaped) document.endMarkedContent();
}

function isFurther({ font, level }: TextRun): boolean {
  return level > 0 || font.includes(' ');
}

/** Ends a document and gives its bytes. */
export function writtenPdf(document: Pdf): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    document.on('data', (part: Buffer) => parts.push(part));
    document.on('end', () => resolve(new Uint8Array(Buffer.concat(parts))));
    document.on('error', reject);
    document.end();
  });
}
