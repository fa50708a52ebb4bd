import { useRef, useState } from 'react';
import type { CellPlace } from '../../core/cells/rect';
import { sectionByKey } from '../../core/sections/next';
import { sectionsBetween } from '../../core/sections/pick';
import { type Section, sectionAt } from '../../core/sections/section';
import type { Marking } from '../../ui/cloth/Cloth';

export interface PickedSections {
  picked: ReadonlySet<number>;
  /** A press picks a section, or gives it back; a drag goes on with that; with Shift all from the last one to here. */
  marking: Marking;
  /** Arrow keys go on, with Shift they pick on the way; Space picks. @returns whether the key was taken */
  onKey(event: { key: string; shiftKey: boolean }): boolean;
  /** The next press picks all from the last one to there, without the Shift key. */
  area: boolean;
  setArea(area: boolean): void;
  clear(): void;
}

/**
 * Several sections, picked by painting, by area or by keyboard.
 * @param at the section in hand @param onAt goes to another
 */
export function usePickedSections(
  sections: readonly Section[],
  at: number,
  onAt: (number: number) => void,
  isShift: () => boolean,
): PickedSections {
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const [area, setArea] = useState(false);
  const stroke = useRef({ adds: true, before: picked });
  const take = (numbers: readonly number[], adds: boolean) =>
    setPicked((now) => {
      const next = new Set(now);
      for (const number of numbers) adds ? next.add(number) : next.delete(number);
      return next;
    });
  const under = ({ x, y }: CellPlace) => sectionAt(sections, x, y)?.number ?? null;
  const marking: Marking = {
    begin: (place) => {
      const number = under(place);
      stroke.current = { adds: number === null || !picked.has(number), before: picked };
      if (number === null) return;
      if (area || isShift()) {
        take(sectionsBetween(sections, at, number), true);
        setArea(false);
      } else take([number], stroke.current.adds);
      onAt(number);
    },
    extend: (places) => {
      const numbers = places.flatMap((place) => under(place) ?? []);
      take(numbers, stroke.current.adds);
      const last = numbers.at(-1);
      if (last !== undefined) onAt(last);
    },
    end: () => {},
    abort: () => setPicked(stroke.current.before),
  };
  const onKey = ({ key, shiftKey }: { key: string; shiftKey: boolean }) => {
    if (key === ' ') {
      take([at], !picked.has(at));
      return true;
    }
    const step = sectionByKey(sections, at, key);
    if (step === null) return false;
    if (shiftKey) take([at, step], true);
    onAt(step);
    return true;
  };
  return { picked, marking, onKey, area, setArea, clear: () => setPicked(new Set()) };
}
