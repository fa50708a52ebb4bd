import type { Shape } from '../core/canvas/canvas';
import { symbolOrKey } from '../core/canvas/legend';
import { inkOn } from '../core/colour/contrast';
import { hexToRgb, UNKNOWN_COLOUR } from '../core/colour/rgb';
import { fillSheet, labelBoxes, mmToPoints, type PaperName, POT_LABEL } from '../core/kitup/labelSheet';
import type { Pot } from '../core/kitup/pots';
import { newPdf, type Pdf, type PdfFonts, writtenPdf } from './pdf';

/**
 * Draws one label a pot: symbol, code, key number, pot number and a chip in the drill's colour and shape.
 * @returns a PDF with embedded fonts, true to size when printed at 100 %
 */
export async function labelsPdf(
  title: string,
  shape: Shape,
  pots: readonly Pot[],
  paper: PaperName,
): Promise<Uint8Array> {
  const { document, fonts } = await newPdf(paper, `Pot labels: ${title}`);
  const sheet = fillSheet(paper, POT_LABEL.widthMm, POT_LABEL.heightMm);
  const boxes = labelBoxes(sheet, pots.length);
  let page = -1;
  boxes.forEach((box, i) => {
    if (box.page !== page) {
      document.addPage();
      page = box.page;
    }
    document.save().translate(mmToPoints(box.xMm), mmToPoints(box.yMm));
    drawLabel(document, pots[i]!, shape, fonts);
    document.restore();
  });
  return writtenPdf(document);
}

function drawLabel(document: Pdf, { pot, line }: Pot, shape: Shape, fonts: PdfFonts): void {
  const mm = mmToPoints;
  const { widthMm, heightMm } = POT_LABEL;
  document.lineWidth(0.4).strokeColor('#8a8177').rect(0, 0, mm(widthMm), mm(heightMm)).stroke();

  const hex = line.hex ?? UNKNOWN_COLOUR;
  const chipMm = heightMm - 5;
  if (shape === 'round') document.circle(mm(2.5 + chipMm / 2), mm(heightMm / 2), mm(chipMm / 2));
  else document.rect(mm(2.5), mm(2.5), mm(chipMm), mm(chipMm));
  document.lineWidth(0.3).fillAndStroke(hex, '#5d554c');

  // A symbol that no shipped font has gives way to the key number, which is printed anyway.
  const wanted = symbolOrKey(line);
  const symbolFont = fonts.fontFor(wanted);
  const symbol = symbolFont ? wanted : line.keyNumber;
  const size = [...symbol].length > 2 ? 16 : [...symbol].length > 1 ? 22 : 32;
  document
    .font(symbolFont ?? 'codes')
    .fontSize(size)
    .fillColor(inkOn(hexToRgb(hex)));
  const symbolWidth = document.widthOfString(symbol);
  document.text(
    symbol,
    mm(2.5 + chipMm / 2) - symbolWidth / 2,
    mm(heightMm / 2) - capMiddle(document, size),
    {
      lineBreak: false,
    },
  );

  const left = mm(2.5 + chipMm + 2.5);
  const width = mm(widthMm) - left - mm(1.5);
  document.fillColor('#17130f').font(fonts.fontFor(line.code) ?? 'codes');
  fitText(document, line.code, left, mm(2.2), width, 17);
  document.font('words');
  fitText(document, `Key ${line.keyNumber}`, left, mm(9.6), width, 9.5);
  fitText(document, `Pot ${pot}`, left, mm(13.4), width, 9.5);
  if (line.finish !== 'plain') fitText(document, line.finish, left, mm(17.2), width, 8.5);
}

/** Height from the top of a text line to the middle of its capitals, in points. */
function capMiddle(document: Pdf, size: number): number {
  const ascender = (document as unknown as { _font: { ascender: number } })._font.ascender;
  return (ascender / 1000) * size - 0.34 * size;
}

function fitText(document: Pdf, text: string, x: number, y: number, width: number, size: number): void {
  document.fontSize(size);
  const natural = document.widthOfString(text);
  if (natural > width) document.fontSize((size * width) / natural);
  document.text(text, x, y, { lineBreak: false });
}
