/** Papers we print on, in millimetres: ISO 216 A4, US Letter (8½ × 11 in) and the index card (5 × 3 in). */
export const PAPERS = {
  a4: { widthMm: 210, heightMm: 297, name: 'A4' },
  letter: { widthMm: 215.9, heightMm: 279.4, name: 'US Letter' },
  card: { widthMm: 127, heightMm: 76.2, name: 'index card' },
} as const;
/** Papers by name. */
export type PaperName = keyof typeof PAPERS;

const POINTS_PER_MM = 72 / 25.4;

/** Millimetres to PDF points: 1 mm = 72 ÷ 25.4 pt. */
export function mmToPoints(mm: number): number {
  return mm * POINTS_PER_MM;
}

export const PAPER_NAMES = Object.keys(PAPERS) as PaperName[];
