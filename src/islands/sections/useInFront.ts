import { useCallback, useEffect, useState } from 'react';
import { sectionAsked } from '../../core/sections/next';
import type { SectionTally } from '../../core/sections/section';
import type { ShelfEntry } from '../../server/shelf/contract';
import { frontAtFirst, frontOfTab, keepFront } from './inFrontHere';

/** What is chosen to be in front: a section, and perhaps a colour. */
export interface ChosenFront {
  section: number;
  line: number | null;
  /** Brings a section to the front, and a colour; null for whichever comes first there. */
  show(section: number, line: number | null): void;
}

/**
 * The section and the colour in front: one choice for all stations of a canvas, found again over night and on other
 * devices. What the station really has in front it keeps by {@link useKeptFront}.
 */
export function useInFront(
  { canvas, inFront }: ShelfEntry,
  sections: readonly Pick<SectionTally, 'section' | 'drills' | 'laid'>[],
): ChosenFront {
  const [front, setFront] = useState(() => {
    const first = frontAtFirst(location.search, frontOfTab(canvas.id), inFront);
    const section = sectionAsked(sections, first.section);
    return { section, line: first.section === null || first.section === section ? first.line : null };
  });
  const show = useCallback((section: number, line: number | null) => setFront({ section, line }), []);
  return { ...front, show };
}

/** Keeps what a station has in front, for this tab, for its address, and for every other screen. */
export function useKeptFront({ canvas, inFront }: ShelfEntry, section: number, line: number | null): void {
  useEffect(() => keepFront(canvas.id, { section, line }, inFront), [canvas.id, inFront, section, line]);
}
