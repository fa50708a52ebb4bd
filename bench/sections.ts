import { performance } from 'node:perf_hooks';
import { glasshouseKit, type Kit, kingfisherKit, lanternKit } from '../demo/kits';
import { emptyBitmap } from '../src/core/cells/bitmap';
import { type CellPart, wholeRect } from '../src/core/cells/rect';
import { minutesFor, USUAL_MODEL } from '../src/core/pace/timeModel';
import { evenGrid } from '../src/core/sections/calibrate';
import { effortOf } from '../src/core/sections/effort';
import { USUAL_ORDER } from '../src/core/sections/order';
import { type CutKind, proposeCut } from '../src/core/sections/propose';
import { makeSection } from '../src/core/sections/section';

const TIPS = [1, 3, 6, 9];
const MINUTES = 45;

/** How even pieces are and how many colours they open, by the time model itself. */
function judged(kit: Kit, pieces: readonly CellPart[]) {
  const laid = emptyBitmap(kit.chart.cells.length);
  const efforts = pieces.map((piece) => effortOf(kit.chart, piece, laid, TIPS));
  const minutes = efforts.map((effort) => minutesFor(USUAL_MODEL, effort).expected).sort((a, b) => a - b);
  const within = (share: number, of: number) =>
    (minutes.filter((each) => Math.abs(each / of - 1) <= share).length / minutes.length) * 100;
  const mean = minutes.reduce((sum, each) => sum + each, 0) / minutes.length;
  return {
    sections: pieces.length,
    openings: efforts.reduce((sum, { colours }) => sum + colours, 0),
    shortest: minutes[0]!,
    longest: minutes.at(-1)!,
    mean,
    spread: Math.sqrt(minutes.reduce((sum, each) => sum + (each - mean) ** 2, 0) / minutes.length) / mean,
    within10: within(0.1, MINUTES),
    within15: within(0.15, MINUTES),
  };
}

function line(name: string, of: ReturnType<typeof judged>): string {
  return `  ${name.padEnd(10)} ${String(of.sections).padStart(4)} sections, ${String(of.openings).padStart(6)} openings, ${of.shortest.toFixed(1)} to ${of.longest.toFixed(1)} min, mean ${of.mean.toFixed(1)}, spread ${(of.spread * 100).toFixed(1)} %, within 10 %: ${of.within10.toFixed(0)} %, within 15 %: ${of.within15.toFixed(0)} %`;
}

for (const make of [kingfisherKit, lanternKit, glasshouseKit]) {
  const kit = await make();
  const { chart } = kit;
  const laid = emptyBitmap(chart.cells.length);
  const start = performance.now();
  const cut = (kind: CutKind) =>
    proposeCut(
      {
        canvas: kit.canvas,
        chart,
        laid,
        colours: kit.legend.length,
        tips: TIPS,
        model: USUAL_MODEL,
        now: [],
      },
      {
        kind,
        minutes: MINUTES,
        snap: 1,
        columns: 20,
        rows: 20,
        along: 'rows',
        focal: null,
        mostColumns: null,
        mostRows: null,
        order: USUAL_ORDER,
      },
    ).pieces.map(({ rects }, i) => makeSection(i + 1, rects));
  const pieces = cut('sittings');
  const took = performance.now() - start;
  const straight = cut('straight');
  const ours = judged(kit, pieces);
  const grid = judged(kit, evenGrid(wholeRect(chart), pieces.length));
  console.log(`${kit.canvas.title}, ${chart.width} × ${chart.height}: cut in ${(took / 1000).toFixed(2)} s`);
  console.log(line('sittings', ours));
  console.log(line('straight', judged(kit, straight)));
  console.log(line('grid', grid));
  const perSection = ours.openings / ours.sections / (grid.openings / grid.sections);
  console.log(`  openings a section against the grid: ${((perSection - 1) * 100).toFixed(1)} %`);
}
