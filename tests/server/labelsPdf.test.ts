import { decodePDFRawStream, PDFArray, PDFDict, PDFDocument, PDFName, PDFRawStream } from 'pdf-lib';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import { potsInCodeOrder } from '../../src/core/kitup/pots';
import { labelsPdf } from '../../src/server/labelsPdf';
import { line } from '../core/samples';

const MM = 25.4 / 72;
const legend = Array.from({ length: 50 }, (_, i) =>
  line(i + 1, {
    code: String(1000 + i),
    symbol: ['★', 'Ω', '⬢', 'a', '(', '⊕'][i % 6]!,
    finish: i === 3 ? 'metallic' : 'plain',
  }),
);

/** Rectangles of a page in millimetres from its upper left corner, read from its drawing operators by pdf-lib. */
function rectangles(document: PDFDocument, pageNumber: number) {
  const page = document.getPage(pageNumber);
  const contents = page.node.Contents();
  const stream = contents instanceof PDFArray ? contents.lookup(0, PDFRawStream) : (contents as PDFRawStream);
  const text = new TextDecoder('latin1').decode(decodePDFRawStream(stream).decode());
  const found: { x: number; y: number; width: number; height: number }[] = [];
  const stack: number[][] = [];
  let matrix = [1, 0, 0, 1, 0, 0];
  for (const operation of text.matchAll(/(?:([-\d. ]+) )?(cm|re|q|Q)\b/g)) {
    const numbers = (operation[1] ?? '').trim().split(/\s+/).map(Number);
    const [a, b, c, d, e, f] = matrix as [number, number, number, number, number, number];
    if (operation[2] === 'q') stack.push(matrix);
    else if (operation[2] === 'Q') matrix = stack.pop()!;
    else if (operation[2] === 'cm') {
      const [a2, b2, c2, d2, e2, f2] = numbers.slice(-6) as [number, number, number, number, number, number];
      matrix = [
        a2 * a + b2 * c,
        a2 * b + b2 * d,
        c2 * a + d2 * c,
        c2 * b + d2 * d,
        e2 * a + f2 * c + e,
        e2 * b + f2 * d + f,
      ];
    } else {
      const [x, y, width, height] = numbers.slice(-4) as [number, number, number, number];
      found.push({
        x: (a * x + e) * MM,
        y: (page.getHeight() - (d * y + f)) * MM,
        width: Math.abs(a * width) * MM,
        height: Math.abs(d * height) * MM,
      });
    }
  }
  return found;
}

describe('pot labels as PDF', () => {
  it.each([
    ['a4', 210, 297, 4, 11],
    ['letter', 215.9, 279.4, 4, 11],
  ] as const)('on %s are true to the tenth of a millimetre', async (paper, width, height, columns, rows) => {
    const document = await PDFDocument.load(
      await labelsPdf('Test', 'square', potsInCodeOrder(legend), paper),
    );
    expect(document.getPageCount()).toBe(2);
    expect(document.getPage(0).getWidth() * MM).toBeCloseTo(width, 3);
    expect(document.getPage(0).getHeight() * MM).toBeCloseTo(height, 3);
    const labels = rectangles(document, 0).filter((each) => Math.abs(each.width - 45) < 0.05);
    expect(labels).toHaveLength(columns * rows);
    for (const label of labels) expect(label.height).toBeCloseTo(22, 1);
    const left = Math.min(...labels.map((each) => each.x));
    const right = Math.max(...labels.map((each) => each.x + each.width));
    expect(left).toBeCloseTo(width - right, 1);
    const step = [...new Set(labels.map((each) => each.x.toFixed(2)))].map(Number).sort((a, b) => a - b);
    expect(step[1]! - step[0]!).toBeCloseTo(47, 1);
    expect(rectangles(document, 1).filter((each) => Math.abs(each.width - 45) < 0.05)).toHaveLength(
      50 - columns * rows,
    );
  });

  it('carry code, key number, pot number, finish and symbol, inside their own label', async () => {
    const bytes = await labelsPdf('Test', 'round', potsInCodeOrder(legend.slice(0, 4)), 'a4');
    const page = await (await getDocument({ data: bytes.slice(), verbosity: 0 }).promise).getPage(1);
    const { items } = await page.getTextContent();
    const words = items.flatMap((item) =>
      'str' in item && item.str.trim()
        ? [{ text: item.str, x: item.transform[4] * MM, y: 297 - item.transform[5] * MM }]
        : [],
    );
    for (const text of ['1000', '1003', 'Key 1', 'Key 4', 'Pot 1', 'Pot 4', 'metallic', '★', 'Ω', '⬢', 'a']) {
      expect(words.map((word) => word.text)).toContain(text);
    }
    const boxes = rectangles(await PDFDocument.load(bytes), 0).filter(
      (each) => Math.abs(each.width - 45) < 0.05,
    );
    for (const word of words) {
      expect(
        boxes.some(
          (box) =>
            word.x >= box.x && word.x <= box.x + box.width && word.y >= box.y && word.y <= box.y + box.height,
        ),
      ).toBe(true);
    }
  });

  it('embed every font they use', async () => {
    const document = await PDFDocument.load(await labelsPdf('Test', 'square', potsInCodeOrder(legend), 'a4'));
    const descriptors = document.context
      .enumerateIndirectObjects()
      .map(([, object]) => object)
      .filter(
        (object): object is PDFDict =>
          object instanceof PDFDict && object.get(PDFName.of('Type')) === PDFName.of('FontDescriptor'),
      );
    expect(descriptors.length).toBeGreaterThanOrEqual(3);
    for (const descriptor of descriptors) {
      expect(descriptor.has(PDFName.of('FontFile2')) || descriptor.has(PDFName.of('FontFile3'))).toBe(true);
    }
  });

  it('print the key number where no shipped font has the symbol', async () => {
    const bytes = await labelsPdf(
      'Test',
      'square',
      potsInCodeOrder([line(1, { symbol: '語', keyNumber: '77' })]),
      'a4',
    );
    const page = await (await getDocument({ data: bytes, verbosity: 0 }).promise).getPage(1);
    const words = (await page.getTextContent()).items.map((item) => ('str' in item ? item.str : ''));
    expect(words).toContain('77');
    expect(words).not.toContain('語');
  });
});
