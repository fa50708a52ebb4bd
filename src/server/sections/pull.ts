import type { Canvas } from '../../core/canvas/canvas';
import { highestLine, ofLine } from '../../core/canvas/legend';
import { isLaid } from '../../core/cells/bitmap';
import { someCell } from '../../core/cells/rect';
import { placeInWords, placesInWords, potsInCodeOrder } from '../../core/codes/places';
import type { PaperHead } from '../../core/print/page';
import type { PaperName } from '../../core/print/paper';
import { noSuchSection } from '../../core/sections/next';
import type { PullRow } from '../../core/sections/paper';
import { type PullPot, pulledFor, pullList, pullNote } from '../../core/sections/pullList';
import type { Section } from '../../core/sections/section';
import { dateInWords } from '../../core/words/moments';
import { bitmapOf } from '../../data/bench';
import { legendOf } from '../../data/canvas';
import { chartOf } from '../../data/chart';
import type { Queries } from '../../data/engine/database';
import { conflict, notFound } from '../http/problem';
import { kitupView } from '../kitup/view';
import type { PullListView, PullView } from './contract';
import { sectionsOf } from './view';

/**
 * What to take out for a section, or for the next ones in the order of the work with something left.
 * @throws Problem without a chart, or where there is no such section
 */
export async function pullListView(
  queries: Queries,
  canvas: Canvas,
  { section: from, next }: { section: number; next: number },
): Promise<PullListView> {
  const chart = await chartOf(queries, canvas);
  if (!chart)
    throw conflict('A pull list needs a chart: without it nobody knows which colours a section has.');
  const { sections } = await sectionsOf(queries, canvas);
  if (!sections[from - 1]) throw notFound(noSuchSection(from, sections.length));
  const laid = await bitmapOf(queries, canvas.id, chart.cells.length);
  const legend = await legendOf(queries, canvas.id);
  const lines = highestLine(legend);
  const chosen = nextSections(
    sections,
    from,
    next,
    (cell) => chart.cells[cell] !== 0 && !isLaid(laid, cell),
    canvas.width,
  );
  const laidOf = new Uint32Array(lines + 1);
  for (let cell = 0; cell < chart.cells.length; cell++) if (isLaid(laid, cell)) laidOf[chart.cells[cell]!]!++;
  const kitup = await kitupView(queries, canvas);
  const { trashShare } = kitup;
  const pots = new Map<number, PullPot>();
  for (const { line } of legend) {
    const drills = kitup.amounts[line];
    if (drills === undefined) continue;
    const capacity = kitup.cases
      .flatMap(({ slots }) => slots)
      .filter((slot) => slot.line === line)
      .reduce((sum, slot) => sum + slot.capacity, 0);
    pots.set(line, { line, drills, capacity });
  }
  const pulls = pullList(chart, laid, chosen, lines, pots, (line) => laidOf[line]!, trashShare);
  const overflow = new Map(kitup.bags.filter(({ whole }) => !whole).map(({ line, bag }) => [line, bag]));
  const inOrder = potsInCodeOrder(legend, kitup.places);
  return {
    sections: chosen.map(({ number, name }) => ({ number, name })),
    trashShare,
    drills: pulls.reduce((sum, { toLay }) => sum + toLay, 0),
    pulls: inPickingOrder(inOrder.map(({ line, place }) => ({ line: line.line, place }))).flatMap(
      ({ line, place }): PullView[] => {
        const pull = pulls.find((each) => each.line === line);
        if (!pull) return [];
        const known = pots.has(line);
        return [
          {
            line,
            place: kitup.places[line] ? placesInWords(kitup.places[line]) : place,
            toLay: pull.toLay,
            toTip: pull.toTip,
            inPot: known ? pull.inPot : null,
            after: known ? pull.after : null,
            bag: pull.refill ? (overflow.get(line) ?? null) : null,
            short: pull.short,
          },
        ];
      },
    ),
  };
}

/** The pull list on paper. */
export async function printedPull(
  queries: Queries,
  canvas: Canvas,
  wish: { section: number; next: number; paper: PaperName },
): Promise<{ head: PaperHead; what: string; rows: PullRow[] }> {
  const { sections, pulls } = await pullListView(queries, canvas, wish);
  const legend = await legendOf(queries, canvas.id);
  return {
    head: { title: canvas.title, date: dateInWords(new Date()), paper: wish.paper },
    what: `To take out for ${pulledFor(sections)}`,
    rows: pulls.map(({ line, place, toTip, after, bag, short }) => {
      const { code, symbol, name } = ofLine(legend, line)!;
      return { place: placeInWords(place), code, symbol, name, toTip, after, note: pullNote(bag, short) };
    }),
  };
}

/** As pots stand in their case: by the number of the place, bags after pots. */
function inPickingOrder<Place extends { place: string }>(places: readonly Place[]): Place[] {
  const collator = new Intl.Collator('en', { numeric: true });
  const isBag = ({ place }: Place) => (place.startsWith('bag') ? 1 : 0);
  return [...places].sort((a, b) => isBag(a) - isBag(b) || collator.compare(a.place, b.place));
}

/** The section asked for, and those that follow it in the order of the work, as long as something is left in them. */
function nextSections(
  sections: readonly Section[],
  from: number,
  count: number,
  wanted: (cell: number) => boolean,
  width: number,
): Section[] {
  const inTurn = [...sections].sort((a, b) => a.order - b.order);
  const at = inTurn.findIndex(({ number }) => number === from);
  const round = [...inTurn.slice(at + 1), ...inTurn.slice(0, at)];
  return [inTurn[at]!, ...round.filter((section) => someCell(width, section, wanted)).slice(0, count - 1)];
}
