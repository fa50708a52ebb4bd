import { useEffect, useMemo, useRef, useState } from 'react';
import { highestLine, type LegendLine } from '../../core/canvas/legend';
import { EFFORTS, type Effort } from '../../core/pace/effort';
import { type TimeModel, USUAL_MODEL } from '../../core/pace/timeModel';
import type { Tips } from '../../core/placing/tips';
import type { JudgedGround } from '../../core/sections/judge';
import type { TimeModelView } from '../../server/sections/contract';
import type { ShelfEntry } from '../../server/shelf/contract';
import { keptHere } from '../../ui/kept';
import type { SectionAnswer, SectionTask } from '../../workers/sections';
import type { ClothData } from '../cloth/useClothData';
import { getJson } from '../writing/api';

const PACE_KEY = 'oculent-pace-of';

/** The time model as the server has learnt it; the usual one until it is here. */
export function useTimeModel(canvasId: string): {
  model: TimeModel;
  view: TimeModelView | null;
  /** Whether it is here, or cannot be had. */
  ready: boolean;
  /** Whose pace it is: a device by its id, or `desk`; null for everybody's. Kept for this browser. */
  maker: string | null;
  chooseMaker: (maker: string | null) => void;
} {
  const [maker, setMaker] = useState(() => keptHere.get(PACE_KEY));
  const [view, setView] = useState<TimeModelView | null>(null);
  const [ready, setReady] = useState(false);
  useEffect(() => {
    let gone = false;
    getJson<TimeModelView>(`/api/canvases/${canvasId}/time-model${maker ? `?maker=${maker}` : ''}`).then(
      (found) => {
        if (gone) return;
        setView(found);
        setReady(true);
      },
      // Without it the usual times are shown, which the page says.
      () => gone || setReady(true),
    );
    return () => {
      gone = true;
    };
  }, [canvasId, maker]);
  const chooseMaker = (next: string | null) => {
    if (next === null) keptHere.remove(PACE_KEY);
    else keptHere.set(PACE_KEY, next);
    setMaker(next);
  };
  const model = useMemo((): TimeModel => {
    if (!view) return USUAL_MODEL;
    const learnt = Object.fromEntries(
      EFFORTS.map((kind) => [kind, view.efforts.find((each) => each.kind === kind)!.seconds]),
    ) as Effort;
    // The usual times again are no news: what was planned by them stands.
    const isUsual = EFFORTS.every((kind) => learnt[kind] === USUAL_MODEL.seconds[kind]);
    const seconds = isUsual ? USUAL_MODEL.seconds : learnt;
    return { seconds, covariance: view.covariance, spread: view.spread, sittings: view.sittings };
  }, [view]);
  return { model, view, ready, maker, chooseMaker };
}

/** What sections of a canvas are judged on. @param version changes when the bitmap did that is changed in place */
export function useGround(
  { canvas, hasChart }: ShelfEntry,
  legend: readonly LegendLine[],
  { chart, laid }: ClothData,
  tips: Tips,
  model: TimeModel,
  version = 0,
): JudgedGround {
  // biome-ignore lint/correctness/useExhaustiveDependencies: see `version`
  return useMemo(
    () => ({
      canvas: {
        width: canvas.width,
        height: canvas.height,
        panelRects: canvas.panelRects,
        pitchMm: canvas.pitchMm,
      },
      chart: hasChart ? chart : null,
      laid,
      lines: highestLine(legend),
      colours: legend.length,
      tips,
      model,
    }),
    [canvas, hasChart, chart, laid, legend, tips, model, version],
  );
}

export type SectionResult = Exclude<SectionAnswer, { done: number } | { fault: string }>;

/**
 * Has a thread of its own work on the sections, so that the page stays quick; a new task ends the one before.
 * @param task null for nothing to do
 */
export function useSectionWork(task: SectionTask | null): {
  result: SectionResult | null;
  /** Share that is done, 0…1; null when nothing is under way. */
  done: number | null;
  fault: string | null;
  cancel: () => void;
} {
  const [state, setState] = useState<{
    result: SectionResult | null;
    done: number | null;
    fault: string | null;
  }>({
    result: null,
    done: null,
    fault: null,
  });
  const worker = useRef<Worker | null>(null);
  const end = () => {
    worker.current?.terminate();
    worker.current = null;
  };
  useEffect(() => {
    if (!task) return;
    setState((before) => ({ ...before, done: 0, fault: null }));
    const own = new Worker(new URL('../../workers/sections.ts', import.meta.url), { type: 'module' });
    worker.current = own;
    own.onmessage = ({ data }: MessageEvent<SectionAnswer>) => {
      if ('done' in data) setState((before) => ({ ...before, done: data.done }));
      else {
        setState(
          'fault' in data
            ? { result: null, done: null, fault: data.fault }
            : { result: data, done: null, fault: null },
        );
        own.terminate();
      }
    };
    own.onerror = () => {
      setState({ result: null, done: null, fault: 'This could not be reckoned. Try again.' });
      own.terminate();
    };
    own.postMessage(task);
    return () => own.terminate();
  }, [task]);
  return {
    ...state,
    cancel: () => {
      end();
      setState((before) => ({ ...before, done: null }));
    },
  };
}
