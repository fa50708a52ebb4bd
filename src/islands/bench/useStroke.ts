import { useRef, useState } from 'react';
import { isMarkable } from '../../core/bench/colours';
import type { MarkKind } from '../../core/bench/marking';
import { cellsOfArea, cellsReached, type Reach, snapped } from '../../core/bench/reach';
import { isLaid } from '../../core/cells/bitmap';
import { type CellPlace, cellIndex, rectBetween } from '../../core/cells/rect';
import type { Section } from '../../core/sections/section';
import type { Marking } from '../../ui/cloth/Cloth';
import type { ClothData } from '../cloth/useClothData';
import type { MarkStore } from './markStore';

/** What a touch does to the squares it reaches. */
export type TouchMode = 'lay' | 'lift' | 'popped';

/** What a touch came to. */
export type Touched =
  | { what: 'marked'; drills: number }
  /** A laid square stays as it is. */
  | { what: 'stays' }
  /** The square is of another colour or section. */
  | { what: 'elsewhere'; place: CellPlace }
  /** The bar at the square is not known yet. */
  | { what: 'unplanned' };

interface StrokeWorld {
  store: MarkStore;
  data: ClothData;
  section: Section;
  /** Colour in front; null where there is no chart. */
  line: number | null;
  mode: TouchMode;
  reach: Reach;
  /** A touch beside a square that is meant finds it. */
  snaps: boolean;
  sitting: string | null;
  /** All squares of the planned bar at a square. */
  placementAt: (place: CellPlace) => number[];
  /** Whether the plan that tells the bars is still being made. */
  planning: boolean;
  onPopped: (cells: readonly number[]) => void;
  onTouch: (what: Touched) => void;
}

/** Marking by touch, mouse, pen and keys: what a touch reaches, and strokes that go on. */
export function useStroke(world: StrokeWorld): {
  marking: Marking;
  /** First corner of an area that waits for its second. */
  corner: CellPlace | null;
  /** The area that is being drawn. */
  drawn: [CellPlace, CellPlace] | null;
  forgetCorner: () => void;
} {
  const {
    store,
    data,
    section,
    line,
    mode,
    reach,
    snaps,
    sitting,
    placementAt,
    planning,
    onPopped,
    onTouch,
  } = world;
  const { chart, laid } = data;
  const [corner, setCorner] = useState<CellPlace | null>(null);
  const [drawn, setDrawn] = useState<[CellPlace, CellPlace] | null>(null);
  const stroke = useRef<{ kind: MarkKind; cells: number[]; area: [CellPlace, CellPlace] | null } | null>(
    null,
  );
  const markable = (place: CellPlace, lifts: boolean) => isMarkable(data, section, line, place, lifts);
  const wished: MarkKind = mode === 'lay' ? 'lay' : 'lift';

  /** Squares that a touch takes, of those that may be marked. */
  const reached = (place: CellPlace, kind: MarkKind): number[] => {
    const planned = reach === 'placement' && kind === 'lay' ? placementAt(place) : [];
    if (planned.length > 0) return planned;
    // What is lifted is in no plan: its run stands for its bar.
    const far = reach === 'placement' ? (kind === 'lift' ? 'run' : 'square') : reach;
    return cellsReached({ chart, section }, far, place);
  };
  const commit = (kind: MarkKind, cells: readonly number[]) => {
    if (cells.length === 0) return;
    const popped = mode === 'popped';
    store.commit(kind, cells, sitting, kind === 'lift' ? { popped } : {});
    if (popped && kind === 'lift') onPopped(cells);
    onTouch({ what: 'marked', drills: cells.length });
  };
  const marking: Marking = {
    begin: (touched, held) => {
      if (reach === 'area' && !held) {
        stroke.current = { kind: wished, cells: [], area: [corner ?? touched, touched] };
        if (corner) setDrawn([corner, touched]);
        return;
      }
      const place = snaps ? snapped(touched, (there) => markable(there, wished === 'lift')) : touched;
      if (!markable(place, wished === 'lift' || held)) return onTouch({ what: 'elsewhere', place });
      const here = isLaid(laid, cellIndex(place, chart.width));
      const kind = wished === 'lift' || (held && here) ? 'lift' : 'lay';
      // One square instead of its bar would be a wrong record.
      if (reach === 'placement' && kind === 'lay' && planning) return onTouch({ what: 'unplanned' });
      const cells = store.preview(kind, reached(place, kind));
      stroke.current = { kind, cells, area: null };
      onTouch(
        kind === 'lay' && here && cells.length === 0 ? { what: 'stays' } : { what: 'marked', drills: 0 },
      );
    },
    extend: (way) => {
      const { current } = stroke;
      if (!current) return;
      if (current.area) {
        current.area = [current.area[0], way.at(-1) ?? current.area[1]];
        setDrawn(current.area);
        return;
      }
      const meant = way.filter((place) => markable(place, current.kind === 'lift'));
      const cells = meant.flatMap((place) => reached(place, current.kind));
      current.cells.push(...store.preview(current.kind, cells));
    },
    end: () => {
      const { current } = stroke;
      stroke.current = null;
      if (!current) return;
      if (!current.area) return commit(current.kind, current.cells);
      const [from, to] = current.area;
      setDrawn(null);
      // A tap sets a corner, and the next tap the other: no drag is needed.
      if (!corner && from.x === to.x && from.y === to.y) return setCorner(from);
      setCorner(null);
      const cells = cellsOfArea({ chart, section }, rectBetween(from, to), line);
      commit(current.kind, store.preview(current.kind, cells));
    },
    abort: () => {
      if (stroke.current?.area) setDrawn(null);
      else if (stroke.current) store.forget();
      stroke.current = null;
    },
  };
  return { marking, corner, drawn, forgetCorner: () => setCorner(null) };
}
