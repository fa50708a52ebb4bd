import { MAX_CELLS, MAX_SIDE_CELLS } from '../canvas/canvas';
import type { LegendLine } from '../canvas/legend';
import { type Chart, makeChart } from '../cells/chart';
import { mostFrequent } from '../chart/files/fromPixels';
import { gridRows, leftOutInWords, NOTHING_HERE, withoutNumbers } from '../chart/files/gridRows';
import { compareCodes, looseCode } from '../codes/codes';
import { type NamedLine, readWords, type WordReading } from '../codes/legendWords';
import { differenceInWords, labDifference, labOf } from '../colour/difference';
import { hexToRgb } from '../colour/rgb';
import { Refusal } from '../refusal';
import { counted, many } from '../words/numbers';
import type { RangeDrill, Thread } from './threadList';

/** How a thread came to its drill. */
type DrillChoice =
  /** The range has the same code, or no range was given. */
  | 'same'
  /** The nearest colour of the range. */
  | 'nearest'
  /** The user said so. */
  | 'chosen'
  /** Nothing tells: the thread has no colour to compare. */
  | 'open';

export interface ThreadAsDrill {
  thread: Thread;
  stitches: number;
  how: DrillChoice;
  /** Code of the drill; null while it is open. */
  drill: string | null;
  /** What the difference means to the eye; empty for the same code. */
  inWords: string;
  /** The nearest drills of the range, the best first, for another choice. */
  offers: { code: string; name: string; hex: string; inWords: string }[];
}

/** A stitch chart as drills. */
export interface StitchReading {
  width: number;
  height: number;
  threads: ThreadAsDrill[];
  /** Drills that stand for several threads, with the sum of their counts. */
  merges: { drill: string; threads: { code: string; inWords: string }[]; drills: number }[];
  /** Words in the grid that are no thread, most frequent first; their cells stay bare. */
  unmatched: { value: string; cells: number }[];
  /** How the words of the grid were read, and how else they could be. */
  words: { kind: GridWords; others: GridWords[] };
  notices: string[];
  /** Null while some thread is open. */
  result: { chart: Chart; legend: LegendLine[] } | null;
}

const OFFERS = 8;
const FRACTION = /^([½¼¾]|[1-3]\/[24]\b)|^.+[/|\\].+$/;

/**
 * Turns a stitch chart into drills: one stitch is one cell. A code that the range has stays as it is; any other goes to
 * the nearest colour by CIEDE2000, and threads that share a drill add up.
 * @param grid CSV of symbols or codes, a row of stitches a line
 * @param range drills that can be had; null for all
 * @param chosen thread code → drill code, where the user knows better
 * @param wanted how the words of the grid are to be read, where the user says it
 * @throws Refusal naming a ragged line, a fractional stitch or a chart that is too large
 */
export function readStitches(
  grid: string,
  threads: readonly Thread[],
  range: readonly RangeDrill[] | null,
  chosen: ReadonlyMap<string, string>,
  packetDrills: number,
  wanted: GridWords | null = null,
): StitchReading {
  const { width, height, cells, ...told } = readGrid(grid, threads, wanted);
  const counts = new Uint32Array(threads.length + 1);
  for (const cell of cells) counts[cell]!++;
  const asDrills = threads.map((thread, i) => drillFor(thread, counts[i + 1]!, range, chosen));
  const used = asDrills.filter(({ stitches }) => stitches > 0);
  const byDrill = new Map<string, ThreadAsDrill[]>();
  for (const each of used) {
    if (each.drill !== null) byDrill.set(each.drill, [...(byDrill.get(each.drill) ?? []), each]);
  }
  const sum = (group: readonly ThreadAsDrill[]) => group.reduce((all, { stitches }) => all + stitches, 0);
  return {
    width,
    height,
    threads: asDrills,
    merges: [...byDrill]
      .filter(([, group]) => group.length > 1)
      .map(([drill, group]) => ({
        drill,
        threads: group.map(({ thread, inWords }) => ({ code: thread.code, inWords })),
        drills: sum(group),
      })),
    ...told,
    result: used.every(({ drill }) => drill !== null)
      ? resultOf({ width, height, cells }, asDrills, byDrill, range, packetDrills)
      : null,
  };
}

function resultOf(
  { width, height, cells }: { width: number; height: number; cells: Uint16Array },
  asDrills: readonly ThreadAsDrill[],
  byDrill: ReadonlyMap<string, ThreadAsDrill[]>,
  range: readonly RangeDrill[] | null,
  packetDrills: number,
): { chart: Chart; legend: LegendLine[] } {
  const codes = [...byDrill.keys()].sort(compareCodes);
  const legend = codes.map((code, i): LegendLine => {
    const group = [...byDrill.get(code)!].sort((a, b) => b.stitches - a.stitches);
    const most = group[0]!.thread;
    const drill = range?.find((each) => each.code === code);
    const neededDrills = group.reduce((all, { stitches }) => all + stitches, 0);
    return {
      line: i + 1,
      keyNumber: String(i + 1),
      symbol: most.symbol,
      code,
      name: (drill?.name ?? most.name).slice(0, 80),
      hex: drill?.hex ?? most.hex,
      finish: 'plain',
      neededDrills,
      packets: Math.ceil(neededDrills / packetDrills),
    };
  });
  const lineOf = new Map(legend.map(({ code, line }) => [code, line]));
  const lineOfThread = asDrills.map(({ drill }) => (drill === null ? 0 : (lineOf.get(drill) ?? 0)));
  const chart = makeChart(
    width,
    height,
    cells.map((thread) => (thread === 0 ? 0 : lineOfThread[thread - 1]!)),
  );
  return { chart, legend };
}

function drillFor(
  thread: Thread,
  stitches: number,
  range: readonly RangeDrill[] | null,
  chosen: ReadonlyMap<string, string>,
): ThreadAsDrill {
  const offers = range && thread.hex !== null ? nearestOf(thread.hex, range) : [];
  const named = chosen.get(thread.code);
  const about = (drill: string) => offers.find(({ code }) => code === drill)?.inWords ?? '';
  const base = { thread, stitches, offers };
  if (named !== undefined) return { ...base, how: 'chosen', drill: named, inWords: about(named) };
  if (range === null) return { ...base, how: 'same', drill: thread.code, inWords: '' };
  const own = range.find(({ code }) => looseCode(code) === looseCode(thread.code));
  if (own) return { ...base, how: 'same', drill: own.code, inWords: '' };
  const nearest = offers[0];
  if (!nearest) return { ...base, how: 'open', drill: null, inWords: '' };
  return { ...base, how: 'nearest', drill: nearest.code, inWords: nearest.inWords };
}

function nearestOf(hex: string, range: readonly RangeDrill[]): ThreadAsDrill['offers'] {
  const lab = labOf(hexToRgb(hex));
  return range
    .map((drill) => ({ drill, difference: labDifference(lab, labOf(hexToRgb(drill.hex))) }))
    .sort((a, b) => a.difference - b.difference)
    .slice(0, OFFERS)
    .map(({ drill, difference }) => ({ ...drill, inWords: differenceInWords(difference) }));
}

/** Cells as index of their thread, from 1; 0 is no stitch. */
function readGrid(
  text: string,
  threads: readonly Thread[],
  wanted: GridWords | null,
): { width: number; height: number; cells: Uint16Array } & Pick<
  StitchReading,
  'unmatched' | 'words' | 'notices'
> {
  const { rows, leftOut } = withoutNumbers(gridRows(text));
  const width = rows[0]?.length ?? 0;
  const height = rows.length;
  if (width < 2)
    throw new Refusal('The grid has only one column. Separate its cells by comma, semicolon or tab.');
  if (width > MAX_SIDE_CELLS || height > MAX_SIDE_CELLS || width * height > MAX_CELLS) {
    throw new Refusal(
      `The grid has ${many(width)} × ${many(height)} stitches; a canvas can have at most ${many(MAX_CELLS)} squares.`,
    );
  }
  const words = new Map<string, number>();
  rows.forEach((row, y) => {
    if (row.length !== width) {
      throw new Refusal(
        `Line ${y + 1 + (leftOut.includes('first row') ? 1 : 0)} of the grid has ${counted(row.length, 'cell')}, but the first has ${width}.`,
      );
    }
    for (const written of row) words.set(written.trim(), (words.get(written.trim()) ?? 0) + 1);
  });
  const { kind, others, lineOf, notices } = readGridWords(words, threads, wanted);
  const cells = new Uint16Array(width * height);
  const unmatched = new Map<string, number>();
  rows.forEach((row, y) => {
    row.forEach((written, x) => {
      const word = written.trim();
      const thread = lineOf(word);
      if (thread !== undefined) cells[y * width + x] = thread;
      else if (FRACTION.test(word)) {
        throw new Refusal(
          `Column ${x + 1}, row ${y + 1} of the grid holds “${word.slice(0, 20)}”, a fractional stitch. A drill fills one whole square: make it a whole stitch first.`,
        );
      } else if (!NOTHING_HERE.has(word)) unmatched.set(word, (unmatched.get(word) ?? 0) + 1);
    });
  });
  return {
    width,
    height,
    cells,
    unmatched: mostFrequent(unmatched),
    words: { kind, others },
    notices: [...notices, ...(leftOut.length > 0 ? [leftOutInWords(leftOut)] : [])],
  };
}

const KIND_OF_ONE = { symbols: 'symbol', codes: 'code' } as const;
type GridWords = keyof typeof KIND_OF_ONE;

/** How the words of a grid are read: as what most of them are, and what is not that, as the other. */
function readGridWords(
  words: ReadonlyMap<string, number>,
  threads: readonly Thread[],
  wanted: GridWords | null,
): { kind: GridWords; others: GridWords[]; lineOf: WordReading['lineOf']; notices: string[] } {
  const names = namesOf(threads);
  const best = wanted ?? readWords(names, words).kind;
  const kind = best === 'codes' ? 'codes' : 'symbols';
  const other = kind === 'codes' ? 'symbols' : 'codes';
  const [own, foreign] = [readWords(names, words, kind), readWords(names, words, other)];
  const known = [...words.keys()].filter((word) => foreign.lineOf(word) !== undefined);
  const both = known.filter((word) => ![undefined, foreign.lineOf(word)].includes(own.lineOf(word)));
  const otherwise = known.filter((word) => own.lineOf(word) === undefined);
  return {
    kind,
    others: both.length > 0 ? [other] : [],
    lineOf: own.looseLineOf,
    notices: [
      `The words of the grid were read as ${kind}.`,
      ...(both.length > 0
        ? [
            `${quoted(both)}: each the ${KIND_OF_ONE[kind]} of one thread and the ${KIND_OF_ONE[other]} of another. Look which it is before you save.`,
          ]
        : []),
      ...(otherwise.length > 0
        ? [`${quoted(otherwise)}: no ${KIND_OF_ONE[kind]}, so read as a ${KIND_OF_ONE[other]}.`]
        : []),
    ],
  };
}

const MOST_QUOTED = 8;
const quoted = (words: readonly string[]) =>
  `${words
    .slice(0, MOST_QUOTED)
    .map((word) => `“${word.slice(0, 20)}”`)
    .join(', ')}${words.length > MOST_QUOTED ? ` and ${words.length - MOST_QUOTED} more` : ''}`;

/**
 * How threads may be named in a grid: one without a symbol by its code in any case, one that is listed twice by its code
 * as the first of the two.
 */
function namesOf(threads: readonly Thread[]): NamedLine[] {
  const known = new Set<string>();
  return threads.map(({ symbol, code }, i) => {
    const isNew = !known.has(code.toLowerCase());
    known.add(code.toLowerCase());
    const named = isNew ? code : '';
    return { line: i + 1, symbol: symbol ?? named, code: named, keyNumber: '' };
  });
}
