import type { BagsCarry } from '../canvas/canvas';
import type { LegendLine } from '../canvas/legend';
import { findLine } from './findLine';

/** What a code that a camera has read stands for. */
export type Scanned =
  /** `label` where it was read from a label of ours, which says it for sure. */
  | { kind: 'colour'; line: LegendLine; label: boolean }
  | { kind: 'other canvas' }
  | { kind: 'several'; text: string; lines: LegendLine[] }
  | { kind: 'unknown'; text: string };

/**
 * Reads what a camera read off a bag or a label.
 * @param text as it stands in the QR code or the barcode
 * @param canvasId of the canvas in hand
 */
export function readScanned(
  text: string,
  canvasId: string,
  legend: readonly LegendLine[],
  bagsCarry: BagsCarry | null,
): Scanned {
  const plain = text.trim();
  const [, canvas, number] = /\/Q\/([0-9A-F]{8})\/(\d{1,5})$/i.exec(plain) ?? [];
  if (canvas !== undefined) {
    if (canvas.toLowerCase() !== canvasId.slice(-8).toLowerCase()) return { kind: 'other canvas' };
    const line = legend.find((each) => each.line === Number(number));
    return line ? { kind: 'colour', line, label: true } : { kind: 'unknown', text: plain };
  }
  const found = findLine(plain, legend, bagsCarry);
  if (found.kind === 'one') return { kind: 'colour', line: found.line, label: false };
  if (found.kind === 'several') return { kind: 'several', text: plain, lines: found.lines };
  return { kind: 'unknown', text: plain.slice(0, 40) };
}
