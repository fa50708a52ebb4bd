import type { Canvas } from '../../core/canvas/canvas';
import { sizeInWords } from '../../core/canvas/canvas';
import type { DrawingFont } from '../../core/print/drawing';
import { mmToPoints, PAPERS, type PaperName } from '../../core/print/paper';
import { wrapped } from '../../core/print/wrapped';
import { type RequestLine, toAsk } from '../../core/requests/supplierRequest';
import { largest } from '../../core/words/numbers';
import { newPdf, type PdfText, setText, writtenPdf } from '../print/pdf';
import { typesetFor } from '../print/typeset';

const MARGIN_MM = 18;
const LINE_MM = 4.6;
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
  const asked = toAsk(lines);
  const texts = asked.flatMap(({ line }) => [line.code, line.keyNumber]);
  const typeset = await typesetFor([canvas.title, ...texts]);
  const document = newPdf(paper, `Missing drills: ${canvas.title}`, typeset);
  const mm = mmToPoints;
  const { widthMm, heightMm } = PAPERS[paper];
  document.addPage();
  const write = (text: string, x: number, baseline: number, size: number, style: Partial<PdfText> = {}) =>
    setText(document, typeset, {
      text,
      x: mm(x),
      y: mm(baseline),
      size,
      font: 'words',
      fill: '#17130f',
      anchor: 'start',
      ...style,
    });
  write('Drills missing from a kit', MARGIN_MM, 24, 18);
  const titleSize = Math.min(
    11,
    (11 * mm(widthMm - 2 * MARGIN_MM)) / typeset.widthOf(canvas.title, 'words', 11),
  );
  write(canvas.title, MARGIN_MM, 33.5, titleSize);
  write(
    `${canvas.width} × ${canvas.height} squares, ${sizeInWords(canvas)}, ${canvas.shape} drills`,
    MARGIN_MM,
    38.5,
    11,
  );
  write(date, MARGIN_MM, 43.5, 11);
  let y = 52;
  const row = (cells: readonly string[], codeFont: DrawingFont) => {
    const fontOf = (column: number) => (column === 0 ? codeFont : 'words');
    // What has no room beside the next column goes on below.
    const lines = cells.map((cell, i) =>
      wrapped(cell, (line) => typeset.widthOf(line, fontOf(i), 11) <= mm(COLUMNS[i]![1] - 2)),
    );
    const further = LINE_MM * (largest(lines.map(({ length }) => length)) - 1);
    if (y + further > heightMm - MARGIN_MM - 8) {
      document.addPage();
      y = MARGIN_MM;
    }
    let x = MARGIN_MM;
    for (const [i, [, width, align]] of COLUMNS.entries()) {
      const isRight = align === 'right';
      for (const [n, line] of lines[i]!.entries()) {
        write(line, isRight ? x + width - 2 : x, y + 3.6 + n * LINE_MM, 11, {
          font: fontOf(i),
          anchor: isRight ? 'end' : 'start',
        });
      }
      x += width;
    }
    y += further;
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
  for (const each of asked) {
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
