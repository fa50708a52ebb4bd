import jsQr from 'jsqr';
import { decodePDFRawStream, PDFArray, PDFDict, type PDFDocument, PDFName, PDFRawStream } from 'pdf-lib';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

export const MM = 25.4 / 72;

/** The box of one drawn path in millimetres from the page's upper left corner, and the boxes of its parts. */
export interface DrawnPath {
  x: number;
  y: number;
  width: number;
  height: number;
  parts: { x: number; y: number; width: number; height: number }[];
  /** `S` strokes, `f` fills, `B` does both. */
  paint: string;
}

type Matrix = [number, number, number, number, number, number];

/** Paths of a page, read from its drawing operators, independently of the program that wrote them. */
export function drawnPaths(document: PDFDocument, pageNumber: number): DrawnPath[] {
  const page = document.getPage(pageNumber);
  const contents = page.node.Contents();
  const stream = contents instanceof PDFArray ? contents.lookup(0, PDFRawStream) : (contents as PDFRawStream);
  const text = new TextDecoder('latin1').decode(decodePDFRawStream(stream).decode());
  const found: DrawnPath[] = [];
  const stack: Matrix[] = [];
  let matrix: Matrix = [1, 0, 0, 1, 0, 0];
  let parts: [number, number][][] = [];
  const put = (x: number, y: number) => {
    const [a, b, c, d, e, f] = matrix;
    parts.at(-1)?.push([(a * x + c * y + e) * MM, (page.getHeight() - (b * x + d * y + f)) * MM]);
  };
  const boxOf = (points: [number, number][]) => {
    const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
    const [x, y] = [Math.min(...xs), Math.min(...ys)];
    return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
  };
  for (const operation of text.matchAll(/(?:^|\s)((?:-?[\d.]+ )*)(cm|re|q|Q|m|l|c|h|S|f\*?|B\*?)(?=\s|$)/g)) {
    const n = operation[1]!.trim().split(/\s+/).map(Number);
    const operator = operation[2]!;
    if (operator === 'q') stack.push(matrix);
    else if (operator === 'Q') matrix = stack.pop()!;
    else if (operator === 'cm') {
      const [a, b, c, d, e, f] = matrix;
      const [a2, b2, c2, d2, e2, f2] = n as Matrix;
      matrix = [
        a2 * a + b2 * c,
        a2 * b + b2 * d,
        c2 * a + d2 * c,
        c2 * b + d2 * d,
        e2 * a + f2 * c + e,
        e2 * b + f2 * d + f,
      ];
    } else if (operator === 're') {
      parts.push([]);
      put(n[0]!, n[1]!);
      put(n[0]! + n[2]!, n[1]! + n[3]!);
    } else if (operator === 'm') {
      parts.push([]);
      put(n[0]!, n[1]!);
    } else if (operator === 'l') put(n[0]!, n[1]!);
    else if (operator === 'c') put(n[4]!, n[5]!);
    else if (operator !== 'h') {
      if (parts.length > 0) found.push({ ...boxOf(parts.flat()), parts: parts.map(boxOf), paint: operator });
      parts = [];
    }
  }
  return found;
}

/** Words of a page with their place in millimetres from its upper left corner, read by pdfjs-dist. */
export async function words(
  bytes: Uint8Array,
  pageNumber = 1,
): Promise<{ text: string; x: number; y: number; width: number }[]> {
  const page = await (await getDocument({ data: bytes.slice(), verbosity: 0 }).promise).getPage(pageNumber);
  const height = page.view[3]! * MM;
  const { items } = await page.getTextContent();
  return items.flatMap((item) =>
    'str' in item && item.str.trim()
      ? [
          {
            text: item.str,
            x: item.transform[4] * MM,
            y: height - item.transform[5] * MM,
            width: item.width * MM,
          },
        ]
      : [],
  );
}

/** Fonts of a document, and how many of them are embedded. */
export function fontsOf(document: PDFDocument): { fonts: number; embedded: number } {
  const descriptors = document.context
    .enumerateIndirectObjects()
    .map(([, object]) => object)
    .filter(
      (object): object is PDFDict =>
        object instanceof PDFDict && object.get(PDFName.of('Type')) === PDFName.of('FontDescriptor'),
    );
  const embedded = descriptors.filter(
    (each) => each.has(PDFName.of('FontFile2')) || each.has(PDFName.of('FontFile3')),
  );
  return { fonts: descriptors.length, embedded: embedded.length };
}

/** What the QR codes of a page say, drawn from their modules and decoded by the library jsQR. */
export function qrCodes(document: PDFDocument, pageNumber: number): string[] {
  return drawnPaths(document, pageNumber)
    .filter(({ parts }) => parts.length > 60)
    .flatMap((code) => {
      const module = Math.min(...code.parts.map(({ height }) => height));
      const side = Math.round(code.width / module) + 8;
      const scale = 5;
      const pixels = new Uint8ClampedArray(side * side * scale * scale * 4).fill(255);
      for (const part of code.parts) {
        const [px, py] = [part.x - code.x, part.y - code.y].map((mm) => Math.round(mm / module) + 4);
        for (let x = px! * scale; x < (px! + Math.round(part.width / module)) * scale; x++) {
          for (let y = py! * scale; y < (py! + 1) * scale; y++)
            pixels.set([0, 0, 0], (y * side * scale + x) * 4);
        }
      }
      return jsQr(pixels, side * scale, side * scale)?.data ?? [];
    });
}
