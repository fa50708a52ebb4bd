import type { LegendLine } from '../canvas/legend';
import { placeInWords } from '../codes/places';
import { Refusal } from '../refusal';
import { counted, many } from '../words/numbers';
import type { CountedBag } from './bag';
import { chanceInWords, chanceOfRunningOut, TRASH_START, type TrashTally } from './chance';
import { type Filling, learnedFilling } from './filling';
import { drillsFor, goodOf } from './goodDrills';
import { type ErringBag, spreadOfSum } from './weighing';

export type Verdict =
  | { kind: 'missing' }
  | { kind: 'short'; by: number }
  | { kind: 'tight'; over: number }
  | { kind: 'enough'; over: number }
  | { kind: 'spare'; over: number };

/** One colour at check-in. All amounts in drills but the two bag counts. */
export interface LineSupply {
  line: number;
  neededDrills: number;
  suppliedDrills: number;
  /** Standard deviation of `suppliedDrills`. */
  spread: number;
  bags: number;
  /** Those that the seller sent, with the kit or later, and their drills. */
  fromSeller: { bags: number; drills: number; spread: number };
  expectedBags: number;
  /** Bags of the kit that nobody has counted; none where their drills are here in larger bags. */
  bagsToFind: number;
  verdict: Verdict;
  /** Chance of running out, 0…1. */
  chance: number;
  /** For a colour that may run out: the section in which it would; null where it lasts, or without a chart. */
  lastsUntilSection: number | null;
}

/** What a colour still lacks, in the one sense that every station goes by. */
export interface Lack {
  /** Drills that the bags here fall short of the need. */
  drills: number;
  /** Bags of the kit that nobody has counted. */
  bags: number;
}

/** @example lackOf(supply).drills // 140: short by so many */
export function lackOf({ neededDrills, suppliedDrills, bagsToFind }: LineSupply): Lack {
  return { drills: Math.max(0, neededDrills - suppliedDrills), bags: bagsToFind };
}

/** Filled packets differ by so much a packet, together by no more than half a packet. */
const PACKET_TOLERANCE = 0.05;

/**
 * Bags of a colour that are still in the heap: those that the sheet lists, less those that are here, but never more
 * than the drills that are wanting would fill. One bag of 1,000 stands for five of 200. Where the sheet lists fewer bags
 * than the need would take, its bags are larger than usual.
 * @param packetDrills what an ordinary packet holds
 * @example bagsToFind({ packets: 5, neededDrills: 900 }, 200, { bags: 1, drills: 1000 }) // 0
 */
export function bagsToFind(
  { packets, neededDrills }: Pick<LegendLine, 'packets' | 'neededDrills'>,
  packetDrills: number,
  here: { bags: number; drills: number },
): number {
  // A list that does not tell of bags leaves one to find, wherever drills are wanted and none is here.
  if (packets === 0) return neededDrills > 0 && here.bags === 0 ? 1 : 0;
  if (packets <= here.bags) return 0;
  const size = Math.max(packetDrills, neededDrills / packets);
  const wanting = packets - Math.min(0.5, PACKET_TOLERANCE * packets) - here.drills / size;
  return Math.max(0, Math.min(packets - here.bags, Math.ceil(wanting - 1e-9)));
}

/**
 * Bags of all colours that are still in the heap, see {@link bagsToFind}.
 * @example heapToFind(legend, [], 200) // all that the sheet lists
 */
export function heapToFind(
  legend: readonly LegendLine[],
  bags: readonly CountedBag[],
  packetDrills: number,
): number {
  const sent = heapsByLine(bags, isSent);
  return legend.reduce(
    (sum, line) => sum + bagsToFind(line, packetDrills, sent.get(line.line) ?? EMPTY_HEAP),
    0,
  );
}

/** From this chance of running out on, a colour that seems enough is called tight. */
export const TIGHT_FROM = 0.05;

/**
 * Judges one colour: *missing* without any bag, *short* below the need, *tight* when it may run out with a chance of
 * 5 % or more, *spare* when a whole packet is over, else *enough*.
 * @param chance of running out, see `chanceOfRunningOut`
 */
export function judge(
  neededDrills: number,
  suppliedDrills: number,
  packetDrills: number,
  chance: number,
): Verdict {
  const over = suppliedDrills - neededDrills;
  if (suppliedDrills === 0 && neededDrills > 0) return { kind: 'missing' };
  if (over < 0) return { kind: 'short', by: -over };
  if (chance >= TIGHT_FROM) return { kind: 'tight', over };
  return over >= packetDrills ? { kind: 'spare', over } : { kind: 'enough', over };
}

/**
 * Supply of every line from the bags counted so far.
 * @param packetDrills what an ordinary packet holds
 * @param trash what is known of trash drills, see `learnedTrash`
 */
export function supplyOf(
  legend: readonly LegendLine[],
  bags: readonly CountedBag[],
  packetDrills: number,
  trash: TrashTally = TRASH_START,
): LineSupply[] {
  const filling = learnedFilling(bags, packetSizes(packetDrills));
  const all = heapsByLine(bags, () => true);
  const sent = heapsByLine(bags, isSent);
  const chanceOf = chanceOfRunningOut(trash);
  return legend.map((line) => {
    const heap = all.get(line.line) ?? EMPTY_HEAP;
    const fromSeller = sent.get(line.line) ?? EMPTY_HEAP;
    const expected = expectedOf(heap, filling);
    const chance = chanceOf(line.neededDrills, expected);
    return {
      line: line.line,
      neededDrills: line.neededDrills,
      suppliedDrills: heap.drills,
      spread: expected.spread,
      bags: heap.bags,
      fromSeller: {
        bags: fromSeller.bags,
        drills: fromSeller.drills,
        spread: expectedOf(fromSeller, filling).spread,
      },
      expectedBags: line.packets,
      bagsToFind: bagsToFind(line, packetDrills, fromSeller),
      verdict: judge(line.neededDrills, heap.drills, packetDrills, chance),
      chance,
      lastsUntilSection: null,
    };
  });
}

const isSent = ({ origin }: CountedBag) => origin === 'kit' || origin === 'seller';

/** Bags of one colour taken together. */
interface Heap {
  bags: number;
  /** As printed, counted or weighed. */
  drills: number;
  /** Those of them in bags of printed number. */
  nominal: number;
  /** What its bags err by beside the filler. */
  erring: ErringBag[];
}
const EMPTY_HEAP: Heap = { bags: 0, drills: 0, nominal: 0, erring: [] };

function heapsByLine(
  bags: readonly CountedBag[],
  wanted: (bag: CountedBag) => boolean,
): ReadonlyMap<number, Heap> {
  const heaps = new Map<number, Heap>();
  for (const bag of bags) {
    if (bag.line === null || !wanted(bag)) continue;
    const heap = heaps.get(bag.line) ?? { ...EMPTY_HEAP, erring: [] };
    heap.bags++;
    heap.drills += bag.drills;
    if (bag.how === 'nominal') heap.nominal += bag.drills;
    heap.erring.push(bag);
    heaps.set(bag.line, heap);
  }
  return heaps;
}

/** Drills to expect of a heap, with the filler's error common to all its bags of printed number. */
function expectedOf(heap: Heap, filling: Filling): { drills: number; spread: number } {
  return {
    drills: heap.drills + heap.nominal * filling.deviation,
    spread: Math.hypot(spreadOfSum(heap.erring), heap.nominal * filling.spread),
  };
}

/** Packets of one size that cover a need. @throws Refusal when the packet size is not above 0 */
export function packetsFor(neededDrills: number, packetDrills: number): number {
  if (!(packetDrills > 0)) throw new Refusal('A bag must hold at least one drill.');
  return Math.ceil(neededDrills / packetDrills);
}

/** How the check-in of a whole canvas stands. */
export interface CanvasSupply {
  colours: number;
  missing: number;
  short: number;
  tight: number;
  strays: number;
  bags: number;
  expectedBags: number;
  /** Bags that the sheet lists and nobody has counted yet. */
  bagsToFind: number;
}

export function summarise(supply: readonly LineSupply[], bags: readonly CountedBag[]): CanvasSupply {
  const having = (kind: Verdict['kind']) => supply.filter((line) => line.verdict.kind === kind).length;
  return {
    colours: supply.length,
    missing: having('missing'),
    short: having('short'),
    tight: having('tight'),
    strays: bags.filter((bag) => bag.line === null).length,
    bags: bags.length,
    expectedBags: supply.reduce((sum, line) => sum + line.expectedBags, 0),
    bagsToFind: supply.reduce((sum, line) => sum + lackOf(line).bags, 0),
  };
}

/** The verdict on one colour in a word or two. */
export function verdictInWords(verdict: Verdict): string {
  switch (verdict.kind) {
    case 'missing':
      return 'No bag yet';
    case 'short':
      return `${many(verdict.by)} missing`;
    case 'spare':
      return `${many(verdict.over)} extra`;
    case 'tight':
      return 'Just enough';
    default:
      return 'Enough';
  }
}

/** Why the verdict is what it is, as one line. */
export function reasonInWords(supply: LineSupply): string {
  const { verdict, chance, lastsUntilSection } = supply;
  const until = lastsUntilSection === null ? '' : ` It lasts until section ${many(lastsUntilSection)}.`;
  switch (verdict.kind) {
    case 'missing':
      return 'No bag of it is counted yet.';
    case 'short':
      return `${chanceInWords(chance)}.${until}`;
    case 'tight':
      return `Only ${many(verdict.over)} extra. ${chanceInWords(chance)}.${until}`;
    default:
      return `${chanceInWords(chance)}.`;
  }
}

/** What is said aloud when a bag was counted: code, what it lacks, pot. */
export function spokenResult(code: string, supply: LineSupply, place: string): string {
  const { bags } = lackOf(supply);
  const still = bags > 0 ? ` ${bags === 1 ? 'One bag' : `${bags} bags`} still to find.` : '';
  return `${[...code].join(' ')}: ${verdictInWords(supply.verdict)}.${still} ${placeInWords(place)}.`;
}

/**
 * Packet sizes that are offered beside the canvas's own (common practice, no source).
 * @example packetSizes(140) // [140, 200, 500, 1000]
 */
export function packetSizes(usualDrills: number): number[] {
  return [...new Set([usualDrills, 200, 500, 1000])];
}

/** The arithmetic behind a verdict, step by step, each step as one line. */
export function arithmeticOf(
  supply: LineSupply,
  trash: TrashTally & { share: number },
  filling: Filling,
): string[] {
  const percent = (trash.share * 100).toFixed(1);
  const toUse = goodOf(supply.suppliedDrills, trash.share);
  const toHave = drillsFor(supply.neededDrills, trash.share);
  const many = (n: number) => Math.round(n).toLocaleString('en');
  const give = `${(2 * filling.spread * 100).toFixed(1)} %`;
  const off = Math.abs(filling.deviation * 100).toFixed(1);
  return [
    `Needed on the canvas: ${many(supply.neededDrills)}.`,
    `Bad drills ${percent} %: ${many(trash.thrown)} of ${many(trash.handled)}, with the 6 in 200 that are assumed at the start.`,
    `To have ${many(supply.neededDrills)} good ones: ${many(supply.neededDrills)} ÷ (1 − ${percent} %) = ${many(toHave)}.`,
    filling.bags === 0
      ? `Bags of one kit are filled alike: all may hold up to ${give} more or less than printed.`
      : `Bags of this kit hold ${off} % ${filling.deviation < 0 ? 'less' : 'more'} than printed, give or take ${give}, by ${counted(filling.bags, 'bag')} counted or weighed.`,
    `Here: ${many(supply.suppliedDrills)} in ${counted(supply.bags, 'bag')}, give or take ${many(2 * supply.spread)}; good ones of these about ${many(toUse)}.`,
    `Chance that the good drills do not reach ${many(supply.neededDrills)}: ${(supply.chance * 100).toFixed(1)} %.`,
  ];
}

/** The one sentence on the whole canvas. */
export function supplyInWords(all: CanvasSupply): string {
  if (all.colours === 0) return 'There is no colour list yet, so there is nothing to check against.';
  if (all.bags === 0) {
    return all.expectedBags === 0
      ? `Nothing counted yet: bags of ${counted(all.colours, 'colour')} to find. The list does not say how many bags there are.`
      : `Nothing counted yet: ${counted(all.expectedBags, 'bag')} of ${counted(all.colours, 'colour')} to find.`;
  }
  const faults = [
    all.missing > 0 && `${counted(all.missing, 'colour')} without a bag`,
    all.short > 0 && `${many(all.short)} with too few drills`,
    all.tight > 0 && `${many(all.tight)} with just enough`,
  ].filter((fault) => fault !== false);
  const bags = all.bagsToFind > 0 ? `; ${counted(all.bagsToFind, 'bag')} still to find` : '';
  const strays = all.strays > 0 ? ` ${counted(all.strays, 'bag')} not in the colour list.` : '';
  if (faults.length === 0) {
    return `Every colour is here with enough drills, ${counted(all.colours, 'colour')}${bags}.${strays}`;
  }
  return `${capitalised(faults.join(', '))}, of ${counted(all.colours, 'colour')}${bags}.${strays}`;
}

function capitalised(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
