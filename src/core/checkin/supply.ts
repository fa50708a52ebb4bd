import type { LegendLine } from '../canvas/legend';

/** A bag in the check-in ledger; `line` is null for a bag that belongs to no line. */
export interface CountedBag {
  id: string;
  line: number | null;
  /** What was typed or picked, as it stands on the bag. */
  label: string;
  drills: number;
}

/** Share of drills expected to be misshapen and thrown out. A stated default; common practice, no source. */
const TRASH_SHARE = 0.03;

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
  bags: number;
  expectedBags: number;
  verdict: Verdict;
}

/**
 * Judges one colour: *missing* without any bag, *short* below the need, *tight* when the usual share of
 * trash drills would eat what is over, *spare* when a whole packet is over, else *enough*.
 */
export function judge(neededDrills: number, suppliedDrills: number, packetDrills: number): Verdict {
  const over = suppliedDrills - neededDrills;
  if (suppliedDrills === 0 && neededDrills > 0) return { kind: 'missing' };
  if (over < 0) return { kind: 'short', by: -over };
  if (suppliedDrills * (1 - TRASH_SHARE) < neededDrills) return { kind: 'tight', over };
  return over >= packetDrills ? { kind: 'spare', over } : { kind: 'enough', over };
}

/** Supply of every line from the bags counted so far. @param packetDrills what an ordinary packet holds */
export function supplyOf(
  legend: readonly LegendLine[],
  bags: readonly CountedBag[],
  packetDrills: number,
): LineSupply[] {
  const drills = new Map<number, number>();
  const count = new Map<number, number>();
  for (const bag of bags) {
    if (bag.line === null) continue;
    drills.set(bag.line, (drills.get(bag.line) ?? 0) + bag.drills);
    count.set(bag.line, (count.get(bag.line) ?? 0) + 1);
  }
  return legend.map((line) => {
    const suppliedDrills = drills.get(line.line) ?? 0;
    return {
      line: line.line,
      neededDrills: line.neededDrills,
      suppliedDrills,
      bags: count.get(line.line) ?? 0,
      expectedBags: line.packets,
      verdict: judge(line.neededDrills, suppliedDrills, packetDrills),
    };
  });
}

/** Packets of one size that cover a need. @throws RangeError when the packet size is not above 0 */
export function packetsFor(neededDrills: number, packetDrills: number): number {
  if (!(packetDrills > 0)) throw new RangeError('A packet must hold at least one drill.');
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
    bagsToFind: supply.reduce((sum, line) => sum + Math.max(0, line.expectedBags - line.bags), 0),
  };
}

/** The verdict on one colour in a word or two. */
export function verdictInWords(verdict: Verdict): string {
  switch (verdict.kind) {
    case 'missing':
      return 'missing';
    case 'short':
      return `short by ${verdict.by.toLocaleString('en')}`;
    case 'spare':
      return `spare ${verdict.over.toLocaleString('en')}`;
    default:
      return verdict.kind;
  }
}

/** Why the verdict is what it is, as one line; empty where the numbers speak for themselves. */
export function reasonInWords(verdict: Verdict): string {
  if (verdict.kind !== 'tight') return '';
  const share = (TRASH_SHARE * 100).toFixed(0);
  return `Only ${verdict.over.toLocaleString('en')} over, and about ${share} % of drills are misshapen and thrown out.`;
}

/** The one sentence on the whole canvas. */
export function supplyInWords(all: CanvasSupply): string {
  if (all.colours === 0) return 'There is no sheet yet, so there is nothing to check against.';
  if (all.bags === 0) {
    return `Nothing counted yet: ${counted(all.expectedBags, 'bag')} in ${counted(all.colours, 'colour')} to find.`;
  }
  const faults = [
    all.missing > 0 && `${counted(all.missing, 'colour')} without a bag`,
    all.short > 0 && `${all.short} short`,
    all.tight > 0 && `${all.tight} tight`,
  ].filter((fault) => fault !== false);
  const bags = all.bagsToFind > 0 ? `; ${counted(all.bagsToFind, 'bag')} still to find` : '';
  const strays = all.strays > 0 ? ` ${counted(all.strays, 'bag')} on no line of the sheet.` : '';
  if (faults.length === 0) {
    return `Every colour is here and enough, ${counted(all.colours, 'colour')}${bags}.${strays}`;
  }
  return `${capitalised(faults.join(', '))}, of ${all.colours} colours${bags}.${strays}`;
}

function counted(n: number, noun: string): string {
  return `${n.toLocaleString('en')} ${noun}${n === 1 ? '' : 's'}`;
}

function capitalised(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
