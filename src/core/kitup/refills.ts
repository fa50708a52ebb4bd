/** A pot and what is poured into it. Amounts in drills. */
export interface FilledPot {
  line: number;
  capacity: number;
  drills: number;
}

/** The moment when a pot is filled again from its overflow bag. */
export interface Refill {
  line: number;
  /** 1 for the first refill. */
  nth: number;
  /** Section in whose course the pot runs empty; null without a chart. */
  section: number | null;
  /** Drills of this colour laid until then. */
  laid: number;
  /** Share of the whole work done until then, 0…1; assumes even use where there is no chart. */
  workDone: number;
  /** Drills that go into the pot. */
  drills: number;
}

/** How the work uses up the colours: drills of each line in each section, in the order of the work. */
export interface UsePlan {
  /** `perSection[s][line]`, index 0 is bare cells. */
  perSection: readonly Uint32Array[];
  /** Numbers of those sections; left out where they are numbered in that order. */
  numbers?: readonly number[];
}

/**
 * When the pots run empty. A pot gives its share of good drills, so `trashShare` of what is in it does not reach the
 * canvas; the rest is used section by section.
 * @param needed drills on the canvas by line
 * @param trashShare 0…1
 * @returns refills in the order of the work
 */
export function refillPlan(
  pots: readonly FilledPot[],
  needed: (line: number) => number,
  use: UsePlan | null,
  trashShare: number,
): Refill[] {
  const refills: Refill[] = [];
  const drillsOf = use?.perSection.map((section) => sum32(section)) ?? [];
  const total = drillsOf.reduce((sum, drills) => sum + drills, 0);
  for (const pot of pots) {
    if (pot.capacity <= 0) continue;
    let stored = pot.drills - Math.min(pot.drills, pot.capacity);
    let laid = pot.capacity * (1 - trashShare);
    for (let nth = 1; stored > 0 && laid < needed(pot.line); nth++) {
      const drills = Math.min(stored, pot.capacity);
      const at = use && momentOf(use, drillsOf, pot.line, laid);
      refills.push({
        line: pot.line,
        nth,
        section: at ? at.section : null,
        laid: Math.floor(laid),
        workDone: at ? at.drillsBefore / total : laid / needed(pot.line),
        drills,
      });
      stored -= drills;
      laid += drills * (1 - trashShare);
    }
  }
  return refills.sort((a, b) => a.workDone - b.workDone || a.line - b.line);
}

/** The number that stands on a section. @param turn in the order of the work, from 0 */
export function numberOf({ numbers }: UsePlan, turn: number): number {
  return numbers?.[turn] ?? turn + 1;
}

/**
 * Number of the section in which the `laid`-th drill of a line is used up, and all drills laid until about then.
 * @param drillsOf of all colours together, by section
 */
function momentOf(
  use: UsePlan,
  drillsOf: readonly number[],
  line: number,
  laid: number,
): { section: number; drillsBefore: number } | null {
  let ofLine = 0;
  let drillsBefore = 0;
  for (let s = 0; s < use.perSection.length; s++) {
    const here = use.perSection[s]![line]!;
    if (ofLine + here > laid) {
      return {
        section: numberOf(use, s),
        drillsBefore: drillsBefore + (drillsOf[s]! * (laid - ofLine)) / here,
      };
    }
    ofLine += here;
    drillsBefore += drillsOf[s]!;
  }
  return null;
}

function sum32(section: Uint32Array): number {
  let sum = 0;
  for (let line = 1; line < section.length; line++) sum += section[line]!;
  return sum;
}

/** The turn, from 1, of the first section in which each line is needed; 0 where it is nowhere. Index 0 is unused. */
export function firstUses(use: UsePlan, lines: number): number[] {
  const first = new Array<number>(lines + 1).fill(0);
  use.perSection.forEach((section, s) => {
    for (let line = 1; line <= lines; line++)
      if (first[line] === 0 && section[line]! > 0) first[line] = s + 1;
  });
  return first;
}
