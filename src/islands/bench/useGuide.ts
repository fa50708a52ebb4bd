import { useMemo, useState } from 'react';
import type { Comfort } from '../../core/bench/comfort';
import { type RowToLay, rowBeside, rowInWords, rowsToLay } from '../../core/bench/runsToSay';
import type { LegendLine } from '../../core/canvas/legend';
import type { CellRect } from '../../core/cells/chart';
import type { CellPlace } from '../../core/cells/rect';
import { placementInWords } from '../../core/placing/inWords';
import { type Placement, placementRect } from '../../core/placing/placement';
import {
  cellsOfPlacement,
  placementOn,
  type StepPlace,
  stepBehind,
  stepIn,
} from '../../core/placing/stepping';
import { tipsFor } from '../../core/placing/tips';
import type { Section } from '../../core/sections/section';
import { many } from '../../core/words/numbers';
import type { PlacingStart } from '../../server/placing/contract';
import type { ClothData } from '../cloth/useClothData';
import { useBarInHand } from '../placing/useBarInHand';
import { usePlacingWork } from '../placing/usePlacingWork';
import { useTimeModel } from '../sections/useSectionWork';

/** What is laid next with one key. */
export interface Guide {
  /** Squares that it takes; none where nothing is in hand. */
  cells: number[];
  rect: CellRect | null;
  /** As it stands on the slip, and as it is said. */
  words: string | null;
  /** Its turn, such as `3 of 12`. */
  turn: string | null;
  /** Whether it is the first of its colour here. */
  isFirst: boolean;
  /** Whether the plan is wanted and not there yet. */
  planning: boolean;
  /** What is still to lay of the colour in front: bars of the plan, or rows. */
  placements: readonly Placement[];
  inHand: Placement | null;
  rows: readonly RowToLay[];
  row: RowToLay | null;
  /** The colour that comes forward once this is laid: its own, or the next of the plan. */
  after: { line: number | null };
  step(by: 1 | -1): void;
  /** Goes to what lays a square. */
  goTo(place: CellPlace): void;
  /** What was laid is not in hand any more. */
  laid(): void;
  /** Whether another hand just laid what was in hand. */
  wasTaken(): boolean;
  /** All squares of the bar that the plan lays at a square; none without one. */
  placementAt(place: CellPlace): number[];
}

/** Follows the plan of the section bar by bar, or the colour in front row by row. @param version of the bitmap */
export function useGuide(
  { canvasId, hasChart, shape }: { canvasId: string; hasChart: boolean; shape: 'square' | 'round' },
  data: ClothData,
  version: number,
  legend: readonly LegendLine[],
  section: Section,
  colour: LegendLine | null,
  { tips: own, wish, hand }: PlacingStart,
  { guide, counting }: Pick<Comfort, 'guide' | 'counting'>,
  /** Whether the plan is wanted for something else. */
  needsPlan: boolean,
): Guide {
  const { chart, laid } = data;
  const { model } = useTimeModel(canvasId);
  const tips = useMemo(() => tipsFor(own, shape), [own, shape]);
  const planned = hasChart && (guide === 'placements' || needsPlan);
  const { plan } = usePlacingWork(data, version, legend, planned ? section : null, {
    tips,
    seconds: model.seconds,
    hand,
    wish,
    prices: false,
  });
  /** Where stepping is: the plan may be made anew, this stays. */
  const [at, setAt] = useState<StepPlace>(null);
  const line = colour?.line ?? null;
  const by = useMemo(() => JSON.stringify([section, tips, wish, hand]), [section, tips, wish, hand]);
  const bar = useBarInHand(data, plan?.placements ?? null, { at, line, tips, by }, (all) => {
    const own = all.filter((each) => each.line === line);
    return own.length === 0 ? -1 : all.indexOf(own[stepIn(own, at, line, chart.width)]!);
  });
  const { placements } = bar;
  const ofColour = useMemo(() => placements.filter((each) => each.line === line), [placements, line]);
  const byRows = guide === 'rows' && hasChart;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the bitmap is changed in place, see `version`
  const rows = useMemo(
    () => (line !== null && hasChart && (byRows || counting) ? rowsToLay(chart, laid, section, line) : []),
    [chart, laid, section, line, byRows, counting, version],
  );

  if (byRows) {
    const y = at && 'y' in at ? at.y : null;
    const row =
      rows.find((each) => each.y === y) ?? (y === null ? null : rowBeside(rows, y, 1)) ?? rows[0] ?? null;
    const cells = row
      ? row.runs.flatMap(({ x, length }) => Array.from({ length }, (_, i) => row.y * chart.width + x + i))
      : [];
    const next = row && (rowBeside(rows, row.y, 1) ?? rowBeside(rows, row.y, -1));
    return {
      cells,
      rect: row && { x: section.x, y: row.y, width: section.width, height: 1 },
      words: row && rowInWords(row, hand),
      turn: row && `Row ${many(rows.indexOf(row) + 1)} of ${many(rows.length)}`,
      isFirst: row === rows[0],
      planning: planned && plan === null,
      placements: [],
      inHand: null,
      rows,
      row,
      after: { line },
      step: (by) => {
        const to = row && rowBeside(rows, row.y, by);
        if (to) setAt({ x: to.runs[0]!.x, y: to.y });
      },
      goTo: setAt,
      laid: () => setAt(next ? { x: next.runs[0]!.x, y: next.y } : null),
      wasTaken: () => false,
      placementAt: (place) => barAt(placements, place, chart.width),
    };
  }
  const here = bar.inHand;
  const next = here && stepBehind(placements, bar.step, chart.width);
  return {
    cells: here ? cellsOfPlacement(here, chart.width) : [],
    rect: here && placementRect(here),
    words: here && placementInWords(here, hand),
    turn: here && `Placement ${many(ofColour.indexOf(here) + 1)} of ${many(ofColour.length)}`,
    isFirst: here === ofColour[0],
    planning: planned && plan === null,
    placements: ofColour,
    inHand: here,
    rows,
    row: null,
    after: { line: next?.line ?? line },
    step: (by) => {
      const to = here && ofColour[ofColour.indexOf(here) + by];
      if (to) setAt({ x: to.x, y: to.y });
    },
    goTo: setAt,
    laid: () => {
      bar.release();
      setAt(next?.place ?? null);
    },
    wasTaken: bar.wasTaken,
    placementAt: (place) => barAt(placements, place, chart.width),
  };
}

function barAt(placements: readonly Placement[], place: CellPlace, width: number): number[] {
  const at = placementOn(placements, place);
  return at < 0 ? [] : cellsOfPlacement(placements[at]!, width);
}
