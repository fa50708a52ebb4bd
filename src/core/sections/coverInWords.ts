import { cellsToCm, cellsToInches } from '../canvas/canvas';
import { overlapOf } from '../cells/rect';
import { counted, many } from '../words/numbers';
import type { CutLine } from './cover';
import type { WorkOrder } from './order';
import type { CutCanvas } from './plan';
import type { Section } from './section';

type Measured = CutCanvas & { pitchMm: number };

/** A length of squares in both units. @example lengthInWords(50, 2.5) // '12.5 cm (4.9 in)' */
export function lengthInWords(squares: number, pitchMm: number): string {
  return `${cellsToCm(squares, pitchMm).toFixed(1)} cm (${cellsToInches(squares, pitchMm).toFixed(1)} in)`;
}

/** A cut with its distances, for a ruler. */
export interface CutLineRow {
  /** Upright or level. */
  way: 'upright' | 'level';
  length: string;
  /** From the left edge, or from the top. */
  fromNear: string;
  /** From the right edge, or from the bottom. */
  fromFar: string;
  /** Where it begins, from the top or the left edge. */
  begins: string;
}

export function cutLineRow({ upright, at, from, to }: CutLine, canvas: Measured): CutLineRow {
  const { pitchMm } = canvas;
  const far = (upright ? canvas.width : canvas.height) - at;
  return {
    way: upright ? 'upright' : 'level',
    length: lengthInWords(to - from, pitchMm),
    fromNear: `${lengthInWords(at, pitchMm)} from the ${upright ? 'left' : 'top'}`,
    fromFar: `${lengthInWords(far, pitchMm)} from the ${upright ? 'right' : 'bottom'}`,
    begins: `${lengthInWords(from, pitchMm)} from the ${upright ? 'top' : 'left'}`,
  };
}

/** A step of folding the film back: how far, and for which sections. */
export interface FoldStep {
  /** Columns or rows of the canvas before the fold. */
  at: number;
  upright: boolean;
  /** Where the fold begins and ends, in rows or columns. */
  from: number;
  to: number;
  words: string;
  sections: number[];
}

/**
 * Where the film is folded back to, step by step: for each section as far as it goes, never back again.
 * Minders hold the fold at both ends.
 */
export function foldSteps(canvas: Measured, sections: readonly Section[], order: WorkOrder): FoldStep[] {
  const upright = order.way === 'columns';
  const fromEnd = upright ? order.corner.endsWith('right') : order.corner.startsWith('bottom');
  const edge = ({ x, y, width, height }: Section) =>
    upright ? (fromEnd ? x : x + width) : fromEnd ? y : y + height;
  const steps: FoldStep[] = [];
  const folded = new Map<number, { at: number; step: FoldStep }>();
  for (const section of [...sections].sort((a, b) => a.order - b.order)) {
    const panel = canvas.panelRects.findIndex((rect) => overlapOf(rect, section.rects[0]!));
    const { x, y, width, height } = canvas.panelRects[panel]!;
    const next = edge(section);
    const last = folded.get(panel);
    if (last && (fromEnd ? next >= last.at : next <= last.at)) {
      last.step.sections.push(section.number);
      continue;
    }
    const end = upright ? x + width : y + height;
    const squares = fromEnd ? end - next : next - (upright ? x : y);
    const side = upright ? (fromEnd ? 'right' : 'left') : fromEnd ? 'bottom' : 'top';
    const line = `${upright ? 'column' : 'row'} ${many(fromEnd ? next + 1 : next)}`;
    const which = canvas.panelRects.length > 1 ? ` of panel ${panel + 1}` : '';
    const step: FoldStep = {
      at: next,
      upright,
      from: upright ? y : x,
      to: upright ? y + height : x + width,
      words: `to ${line}, ${lengthInWords(squares, canvas.pitchMm)} from the ${side}${which}`,
      sections: [section.number],
    };
    steps.push(step);
    folded.set(panel, { at: next, step });
  }
  return steps;
}

/** Numbers of sections, neighbours drawn together. @example numbersInWords([1, 2, 3, 7]) // '1–3, 7' */
export function numbersInWords(numbers: readonly number[]): string {
  const sorted = [...numbers].sort((a, b) => a - b);
  const parts: string[] = [];
  for (let i = 0; i < sorted.length; i++) {
    const first = sorted[i]!;
    while (sorted[i + 1] === sorted[i]! + 1) i++;
    parts.push(first === sorted[i] ? many(first) : `${many(first)}–${many(sorted[i]!)}`);
  }
  return parts.join(', ');
}

/** @example sheetsInWords(12, { widthMm: 210, heightMm: 297, overlapMm: 10 }) */
export function sheetsInWords(
  sheets: number,
  size: { widthMm: number; heightMm: number; overlapMm: number },
): string {
  const mm = (length: number) => many(Math.round(length));
  return `${counted(sheets, 'sheet')} of ${mm(size.widthMm)} × ${mm(size.heightMm)} mm, each ${mm(size.overlapMm)} mm over the one before`;
}
