/** Papers we print on, in millimetres: ISO 216 A4, and US Letter (8½ × 11 in). */
export const PAPERS = {
  a4: { widthMm: 210, heightMm: 297, name: 'A4' },
  letter: { widthMm: 215.9, heightMm: 279.4, name: 'US Letter' },
} as const;
export type PaperName = keyof typeof PAPERS;

/** A grid of labels on a sheet, in millimetres. */
export interface LabelSheet {
  paper: PaperName;
  columns: number;
  rows: number;
  labelWidthMm: number;
  labelHeightMm: number;
  gapMm: number;
  marginLeftMm: number;
  marginTopMm: number;
}

/** A label's place: page from 0, box from the paper's upper left corner. */
export interface LabelBox {
  page: number;
  xMm: number;
  yMm: number;
  widthMm: number;
  heightMm: number;
}

const POINTS_PER_MM = 72 / 25.4;

/** Millimetres to PDF points: 1 mm = 72 ÷ 25.4 pt. */
export function mmToPoints(mm: number): number {
  return mm * POINTS_PER_MM;
}

/** As many labels of this size as fit between margins of at least `marginMm`, centred on the paper. */
export function fillSheet(
  paper: PaperName,
  labelWidthMm: number,
  labelHeightMm: number,
  gapMm = 2,
  marginMm = 8,
): LabelSheet {
  const { widthMm, heightMm } = PAPERS[paper];
  const fitting = (length: number, label: number) =>
    Math.floor((length - 2 * marginMm + gapMm) / (label + gapMm));
  const columns = fitting(widthMm, labelWidthMm);
  const rows = fitting(heightMm, labelHeightMm);
  if (columns < 1 || rows < 1) throw new RangeError('The label is larger than the paper.');
  return {
    paper,
    columns,
    rows,
    labelWidthMm,
    labelHeightMm,
    gapMm,
    marginLeftMm: (widthMm - columns * labelWidthMm - (columns - 1) * gapMm) / 2,
    marginTopMm: (heightMm - rows * labelHeightMm - (rows - 1) * gapMm) / 2,
  };
}

/** Places `count` labels row by row, page after page. */
export function labelBoxes(sheet: LabelSheet, count: number): LabelBox[] {
  const perPage = sheet.columns * sheet.rows;
  return Array.from({ length: count }, (_, i) => {
    const onPage = i % perPage;
    const column = onPage % sheet.columns;
    const row = Math.floor(onPage / sheet.columns);
    return {
      page: Math.floor(i / perPage),
      xMm: sheet.marginLeftMm + column * (sheet.labelWidthMm + sheet.gapMm),
      yMm: sheet.marginTopMm + row * (sheet.labelHeightMm + sheet.gapMm),
      widthMm: sheet.labelWidthMm,
      heightMm: sheet.labelHeightMm,
    };
  });
}

/** The pot label: fits a lid of about 4 cm and an index card cut in six alike. */
export const POT_LABEL = { widthMm: 45, heightMm: 22 } as const;
