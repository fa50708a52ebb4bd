import type { Canvas } from '../../core/canvas/canvas';
import { sizeInWords } from '../../core/canvas/canvas';
import { mmToPoints, PAPERS, type PaperName } from '../../core/print/paper';
import { type RequestLine, toAsk } from '../../core/requests/supplierRequest';
import { newPdf, writtenPdf } from '../print/pdf';

const MARGIN_MM = 18;
const COLUMNS = [
  ['Code', 30, 'left'],
  ['Key', 14, 'left'],
  ['Finish', 30, 'left'],
  ['Needed', 24, 'right'],
  ['Received', 24, 'right'],
  ['To send', 22, 'right'],
  ['Bags missing', 30, 'right'],
] as const;

/** What a request to the seller holds. */
export interface PrintedRequest {
  canvas: Canvas;
  lines: readonly RequestLine[];
  /** JPEG. */
  photos: readonly Uint8Array[];
  /** As it stands in the request. */
  date: string;
  paper: PaperName;
}

/** The request to the seller on paper, photos of the sheet behind it. */
export async function requestPdf({
  canvas,
  lines,
  photos,
  date,
  paper,
}: PrintedRequest): Promise<Uint8Array> {
  const { document, fonts } = await newPdf(paper, `Missing drills: ${canvas.title}`);
  const mm = mmToPoints;
  const { widthMm, heightMm } = PAPERS[paper];
  document.addPage();
  document
    .fillColor('#17130f')
    .font('words')
    .fontSize(18)
    .text('Drills missing from a kit', mm(MARGIN_MM), mm(MARGIN_MM));
  document
    .fontSize(11)
    .text(canvas.title, mm(MARGIN_MM), mm(30))
    .text(`${canvas.width} × ${canvas.height} cells, ${sizeInWords(canvas)}, ${canvas.shape} drills`)
    .text(date);
  let y = 52;
  const row = (cells: readonly string[], font: string) => {
    if (y > heightMm - MARGIN_MM - 8) {
      document.addPage();
      y = MARGIN_MM;
    }
    let x = MARGIN_MM;
    cells.forEach((cell, i) => {
      const [, width, align] = COLUMNS[i]!;
      document.font(i === 0 && font === 'codes' ? (fonts.fontFor(cell) ?? 'codes') : 'words').fontSize(11);
      document.text(cell, mm(x), mm(y), { width: mm(width - 2), align, lineBreak: false });
      x += width;
    });
    document
      .lineWidth(0.4)
      .strokeColor('#b5aa9a')
      .moveTo(mm(MARGIN_MM), mm(y + 6))
      .lineTo(mm(widthMm - MARGIN_MM), mm(y + 6))
      .stroke();
    y += 8;
  };
  row(
    COLUMNS.map(([name]) => name),
    'words',
  );
  for (const each of toAsk(lines)) {
    const numbers = [each.neededDrills, each.receivedDrills, each.shortDrills, each.bagsMissing];
    row(
      [each.line.code, each.line.keyNumber, each.line.finish, ...numbers.map((n) => n.toLocaleString('en'))],
      'codes',
    );
  }
  for (const photo of photos) {
    document.addPage();
    document.image(Buffer.from(photo), mm(MARGIN_MM), mm(MARGIN_MM), {
      fit: [mm(widthMm - 2 * MARGIN_MM), mm(heightMm - 2 * MARGIN_MM)],
    });
  }
  return writtenPdf(document);
}
