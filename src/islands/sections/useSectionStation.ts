import { useMemo, useRef } from 'react';
import { highestLine, type LegendLine } from '../../core/canvas/legend';
import type { UndoView } from '../../core/ledger/history';
import type { Tips } from '../../core/placing/tips';
import type { JudgedGround, JudgedSection } from '../../core/sections/judge';
import type { SectionPlan } from '../../core/sections/plan';
import type { SectionTally } from '../../core/sections/section';
import type { SectionWish } from '../../core/sections/wish';
import type {
  CutOffer,
  SectionsPage,
  SectionsStart,
  SectionsView,
  TimeModelView,
} from '../../server/sections/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { useSame } from '../../ui/useSame';
import type { ClothData } from '../cloth/useClothData';
import { useView } from '../writing/useView';
import { useWrite } from '../writing/useWrite';
import { useSections } from './useSections';
import { useGround, useSectionWork, useTimeModel } from './useSectionWork';

/** What the pages of the station are given. */
export interface SectionProps {
  entry: ShelfEntry;
  legend: LegendLine[];
  first: SectionsStart;
  tips: Tips;
}

export interface SectionStation {
  plan: SectionPlan;
  wish: SectionWish;
  history: UndoView<CutOffer>;
  ground: JudgedGround;
  tallies: SectionTally[];
  /** With minutes, conflicts and so on; null until they are reckoned. */
  judged: JudgedSection[] | null;
  timeModel: TimeModelView | null;
  /** Whose pace the minutes are by, and a way to choose. */
  pace: { maker: string | null; choose: (maker: string | null) => void };
  /** Whether the time model is here, so that minutes are this user's. */
  ready: boolean;
  busy: boolean;
  fault: string | null;
  /** Keeps a cut, or another order. @returns whether it was kept */
  keep: (cut: { pieces?: string | null; order?: SectionPlan['order'] }) => Promise<boolean>;
  undo: (id: string) => void;
  redo: (id: string) => void;
  changeWish: (wish: SectionWish) => void;
}

/** The cut of a canvas as its pages share it: what is kept, what it comes to, and ways to change it. */
export function useSectionStation(
  { entry, legend, first, tips }: SectionProps,
  data: ClothData,
  version = 0,
): SectionStation {
  const { canvas } = entry;
  const opened = useMemo((): SectionsPage => ({ ...first, plan: first.plan ?? data.cut! }), [first, data]);
  const [page, show] = useView(`/api/canvases/${canvas.id}/section-plan`, opened, ['sections']);
  // What is read once more and is as it was is not judged again.
  const plan = useSame(page.plan);
  const wish = useSame(page.wish);
  const { model, view, ready, maker, chooseMaker } = useTimeModel(canvas.id);
  const ground = useGround(entry, legend, data, tips, model, version);
  const tallies = useSections(canvas, data, plan, highestLine(legend), version);
  const task = useMemo(
    () => (ready ? { what: 'judge' as const, ground, plan, wish } : null),
    [ready, ground, plan, wish],
  );
  const { result, fault: unreckoned } = useSectionWork(task);
  const { busy, fault, write } = useWrite(canvas.id);
  const url = `/api/canvases/${canvas.id}/sections`;
  const shown = ({ plan, wish, history }: SectionsView) => show({ plan, wish, history });
  const wished = useRef(wish);
  return {
    ...{ plan, wish, history: page.history },
    ground,
    tallies,
    judged: result && 'judged' in result ? matching(result.judged.sections, tallies) : null,
    timeModel: view,
    pace: { maker, choose: chooseMaker },
    ready,
    busy,
    fault: fault ?? unreckoned,
    keep: ({ pieces, order }) =>
      write<SectionsView>(
        'PUT',
        url,
        { id: crypto.randomUUID(), ...(pieces ? { pieces } : {}), ...(order ? { order } : {}) },
        shown,
      ),
    undo: (id) => void write<SectionsView>('PUT', url, { id: crypto.randomUUID(), undoes: id }, shown),
    redo: (id) => void write<SectionsView>('PUT', url, { id: crypto.randomUUID(), redoes: id }, shown),
    changeWish: (next) => {
      wished.current = next;
      const showWish = () => wished.current === next && show((before) => ({ ...before, wish: next }));
      showWish();
      // What was read before it was kept tells the wish before.
      void write('PUT', `/api/canvases/${canvas.id}/section-wish`, next, showWish);
    },
  };
}

/** What was reckoned, as long as it is of the sections that are shown. */
function matching(
  judged: readonly JudgedSection[],
  tallies: readonly SectionTally[],
): JudgedSection[] | null {
  return judged.length === tallies.length ? [...judged] : null;
}
