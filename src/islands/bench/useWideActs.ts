import { useMemo } from 'react';
import { nextColour } from '../../core/bench/colours';
import type { MarkKind } from '../../core/bench/marking';
import { cellsToShare } from '../../core/bench/reach';
import type { Canvas } from '../../core/canvas/canvas';
import { cellsInPart, countInPart, isInside } from '../../core/cells/rect';
import type { Section } from '../../core/sections/section';
import { useTooSoon } from '../../ui/useTooSoon';
import type { ClothData } from '../cloth/useClothData';
import type { MarkStore } from './markStore';
import type { SectionCounts } from './useSectionCounts';

/** What a large act did. */
export interface WideAct {
  kind: MarkKind;
  drills: number;
  /** Code of its colour; null where it took all colours. */
  code: string | null;
}

interface WideWorld {
  canvas: Pick<Canvas, 'panelRects'>;
  store: MarkStore;
  data: ClothData;
  /** Of the marks: the bitmap is changed in place. */
  version: number;
  section: Section;
  counts: SectionCounts;
  sitting: string | null;
  onMarked: (act: WideAct) => void;
  /** Another colour comes to the front. */
  onColour: (line: number) => void;
}

/** Marks that take more than a touch: a colour of the section, a share of it, all of it, the panel. */
export function useWideActs({
  canvas,
  store,
  data: { chart, laid },
  version,
  section,
  counts: { colours, colour, left, leftHere },
  sitting,
  onMarked,
  onColour,
}: WideWorld): {
  /** Finishes the colour in front in this section and brings the next; without a chart, the section. */
  finish: () => void;
  markWide: (what: 'section' | 'panel' | 'colour', kind: MarkKind) => void;
  /** Lays or lifts until so much of the section is laid, 0…1. */
  setShare: (share: number) => void;
  /** The panel that the section lies on, and what is left there; null on an undivided canvas. */
  panel: { number: number; left: number } | null;
} {
  const tooSoon = useTooSoon();
  const mark = (kind: MarkKind, cells: readonly number[], code: string | null) => {
    const changed = store.preview(kind, cells);
    if (changed.length === 0) return;
    store.commit(kind, changed, sitting, kind === 'lift' ? { popped: false } : {});
    onMarked({ kind, drills: changed.length, code });
  };
  const panelAt = canvas.panelRects.findIndex((rect) => isInside(rect, section.rects[0]!));
  const rect = canvas.panelRects.length > 1 ? canvas.panelRects[panelAt] : undefined;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the bitmap is changed in place, see `version`
  const leftOnPanel = useMemo(
    () =>
      rect
        ? countInPart(chart, rect, left.length - 1, laid)
            .subarray(1)
            .reduce((sum, drills) => sum + drills, 0)
        : 0,
    [rect, chart, laid, left.length, version],
  );
  return {
    finish: () => {
      if (leftHere === 0 || tooSoon()) return;
      const next = nextColour(colours, left, colour, 1);
      mark('lay', cellsInPart(chart, laid, section, colour?.line ?? null, false), colour?.code ?? null);
      if (colour) onColour(next && next !== colour ? next.line : colour.line);
    },
    markWide: (what, kind) => {
      if (tooSoon()) return;
      const part = what === 'panel' && rect ? rect : section;
      const one = what === 'colour' ? colour : null;
      mark(kind, cellsInPart(chart, laid, part, one?.line ?? null, kind === 'lift'), one?.code ?? null);
    },
    setShare: (share) => {
      if (tooSoon()) return;
      const { lay, lift } = cellsToShare({ chart, section }, laid, share);
      mark(lay.length > 0 ? 'lay' : 'lift', lay.length > 0 ? lay : lift, null);
    },
    panel: rect ? { number: panelAt + 1, left: leftOnPanel } : null,
  };
}
