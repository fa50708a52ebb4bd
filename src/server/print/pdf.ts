import PDFDocument from 'pdfkit';
import { mmToPoints, PAPERS, type PaperName } from '../../core/print/paper';
import { type FontName, fontFor, shippedFonts } from './fonts';

export type Pdf = InstanceType<typeof PDFDocument>;

/** The fonts of a document by what they hold. */
export interface PdfFonts {
  /** The first shipped font that has every glyph of the text; null when none has. */
  fontFor(text: string): FontName | null;
}

/** A document without pages, fonts registered under their names and embedded where they are used. */
export async function newPdf(paper: PaperName, title: string): Promise<{ document: Pdf; fonts: PdfFonts }> {
  const fonts = await shippedFonts();
  const { widthMm, heightMm } = PAPERS[paper];
  const document = new PDFDocument({
    size: [mmToPoints(widthMm), mmToPoints(heightMm)],
    margin: 0,
    autoFirstPage: false,
    info: { Title: title, Creator: 'Oculent' },
  });
  for (const [name, font] of fonts) document.registerFont(name, font.bytes);
  return { document, fonts: { fontFor: (text) => fontFor(text, fonts) } };
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
