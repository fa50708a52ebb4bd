import { PAPERS, type PaperName } from '../print/paper';

/** What is drawn on a label: a dot for a round lid, a label for a pot, a card, a strip for a bag, a row of a list. */
export const LABEL_FORMATS = ['dots', 'pots', 'cards', 'strips', 'list'] as const;
export type LabelFormat = (typeof LABEL_FORMATS)[number];

/** A grid of labels on a sheet, in millimetres from the paper's upper left corner. */
export interface LabelSheet {
  paper: PaperName;
  columns: number;
  rows: number;
  labelWidthMm: number;
  labelHeightMm: number;
  gapXMm: number;
  gapYMm: number;
  marginLeftMm: number;
  marginTopMm: number;
  /** How far the printer is off, as its test page shows; the drawing is moved back by as much. */
  printerOffXMm: number;
  printerOffYMm: number;
  cutMarks: boolean;
  qr: boolean;
}

/** A label's place: page from 0, box from the paper's upper left corner. */
export interface LabelBox {
  page: number;
  xMm: number;
  yMm: number;
  widthMm: number;
  heightMm: number;
}

/** As many labels of this size as fit between margins of at least `marginMm`, centred on the paper. */
function filledSheet(
  paper: PaperName,
  labelWidthMm: number,
  labelHeightMm: number,
  gapMm: number,
  marginMm: number,
  more: Partial<LabelSheet> = {},
): LabelSheet {
  const { widthMm, heightMm } = PAPERS[paper];
  const fitting = (length: number, label: number) =>
    Math.max(1, Math.floor((length - 2 * marginMm + gapMm + 1e-9) / (label + gapMm)));
  const columns = fitting(widthMm, labelWidthMm);
  const rows = fitting(heightMm, labelHeightMm);
  const rest = (length: number, count: number, label: number) =>
    tenth((length - count * label - (count - 1) * gapMm) / 2);
  return {
    paper,
    columns,
    rows,
    labelWidthMm,
    labelHeightMm,
    gapXMm: gapMm,
    gapYMm: gapMm,
    marginLeftMm: rest(widthMm, columns, labelWidthMm),
    marginTopMm: rest(heightMm, rows, labelHeightMm),
    printerOffXMm: 0,
    printerOffYMm: 0,
    cutMarks: true,
    qr: true,
    ...more,
  };
}

/** To the tenth of a millimetre, the step in which sheets are measured. */
function tenth(mm: number): number {
  return Math.round(mm * 10) / 10;
}

/** The sheet that a format starts from. Sizes are usual ones (common practice, no source). */
export function usualSheet(
  format: LabelFormat,
  paper: PaperName = format === 'cards' ? 'card' : 'a4',
): LabelSheet {
  const small = paper === 'card';
  switch (format) {
    case 'dots':
      return filledSheet(paper, 25, 25, 3, small ? 3 : 8, { qr: false });
    case 'pots':
      return filledSheet(paper, 62, 24, 2, small ? 0 : 8);
    case 'cards':
      // An index card cut into six: 127 ÷ 3 by 76.2 ÷ 2 mm, so that each stands upright in a small bag.
      return filledSheet(paper, small ? 127 / 3 : 42, small ? 38.1 : 38, 0, small ? 0 : 8);
    case 'strips':
      return filledSheet(paper, small ? 120 : 95, 16, 2, small ? 3 : 8);
    case 'list':
      return filledSheet(paper, PAPERS[paper].widthMm - 20, 9, 0, small ? 8 : 14, {
        qr: false,
        cutMarks: false,
      });
  }
}

/** Places `count` labels row by row, page after page. @param startAt first place that is still free, from 1 */
export function labelBoxes(sheet: LabelSheet, count: number, startAt = 1): LabelBox[] {
  const perPage = sheet.columns * sheet.rows;
  return Array.from({ length: count }, (_, i) => {
    const place = i + startAt - 1;
    const column = (place % perPage) % sheet.columns;
    const row = Math.floor((place % perPage) / sheet.columns);
    return {
      page: Math.floor(place / perPage),
      xMm: sheet.marginLeftMm + column * (sheet.labelWidthMm + sheet.gapXMm),
      yMm: sheet.marginTopMm + row * (sheet.labelHeightMm + sheet.gapYMm),
      widthMm: sheet.labelWidthMm,
      heightMm: sheet.labelHeightMm,
    };
  });
}

/** Sheets that a number of labels takes. @param startAt first free place of the first sheet, from 1 */
export function sheetsFor(sheet: LabelSheet, labels: number, startAt: number): number {
  return Math.max(1, Math.ceil((labels + startAt - 1) / (sheet.columns * sheet.rows)));
}

/** Why a sheet cannot be printed; null when every label lies on the paper. */
export function faultInSheet(sheet: LabelSheet): string | null {
  const { widthMm, heightMm, name } = PAPERS[sheet.paper];
  const over = (length: number, margin: number, count: number, label: number, gap: number) =>
    margin + count * label + (count - 1) * gap - length;
  const right = over(widthMm, sheet.marginLeftMm, sheet.columns, sheet.labelWidthMm, sheet.gapXMm);
  const bottom = over(heightMm, sheet.marginTopMm, sheet.rows, sheet.labelHeightMm, sheet.gapYMm);
  if (right > 0.05) return `The labels reach ${right.toFixed(1)} mm over the right edge of ${name}.`;
  if (bottom > 0.05) return `The labels reach ${bottom.toFixed(1)} mm over the lower edge of ${name}.`;
  return null;
}

/** Where the cross of the test page stands, from the left and upper edge. */
export const TEST_CROSS_MM = 20;

/** How far a printer is off, from where the cross of its test page really stands. */
export function printerOff(measuredMm: number): number {
  return tenth(measuredMm - TEST_CROSS_MM);
}
