import type { BagsCarry } from '../canvas/canvas';
import type { LegendLine } from '../canvas/legend';
import { findLine } from '../codes/findLine';
import { many } from '../words/numbers';
import { plainSigns } from '../words/plainSigns';

/** Bags as they are meant by what was typed: so many, each with so many drills (null for the usual number). */
interface Amount {
  bags: number;
  drills: number | null;
}

/** What was typed at the heap, understood. */
export type TypedBag =
  | ({ kind: 'known'; line: LegendLine } & Amount)
  /** It fits more than one colour, the likeliest first; or one, but not surely. */
  | ({ kind: 'ask'; word: string; lines: LegendLine[] } & Amount)
  /** No colour of the list carries it. */
  | ({ kind: 'stray'; label: string } & Amount)
  | { kind: 'fault'; sentence: string }
  | { kind: 'nothing' };

/** A bare number up to here is a number of bags, and from there on one of drills; between them nobody can know. */
const BAGS_UP_TO = 12;
const DRILLS_FROM = 30;
const MOST_BAGS = 60;
const MOST_DRILLS = 100_000;

const NUMBER = String.raw`\p{Nd}{1,3}(?:[,'\u00a0\u202f ]\p{Nd}{3})+|\p{Nd}{1,9}`;
const BAG_WORDS = 'bags?|packets?|packs?';
const DRILL_WORDS = 'drills?|pieces?|pcs';
const UNIT = `${BAG_WORDS}|${DRILL_WORDS}`;
/** An x, also as other keyboards have one: full-width, Cyrillic, Greek. */
const X = '[xｘхχ]';
/** `412 x 5`, `412×140`, `88x140`, `412 * 1,240 drills`; the sign needs a blank before it after letters. */
const MULTIPLIED = new RegExp(
  String.raw`^(.+?)(?:\s+${X}\s*|\s*[×*＊✕]\s*|(?<=\p{Nd})${X}(?=\p{Nd}))(${NUMBER})\s*(${UNIT})?$`,
  'iu',
);

/**
 * Understands what was typed for a bag: a code, key number or symbol, alone or with an amount. `412 x5` are five bags,
 * `412 x 140` is one of 140 drills, `412 x 5 x 140` are five of 140.
 */
export function readTypedBag(
  typed: string,
  legend: readonly LegendLine[],
  bagsCarry: BagsCarry | null = null,
): TypedBag {
  const text = typed.trim();
  if (text === '') return { kind: 'nothing' };
  // A code may look like an amount; the list knows.
  const whole = found(text, legend, bagsCarry, { bags: 1, drills: null });
  if (whole.kind !== 'stray') return whole;
  const last = MULTIPLIED.exec(text);
  if (!last) return alone(text, legend, bagsCarry, whole);
  const amount = amountOf(last[2]!, last[3]);
  if ('sentence' in amount) return { kind: 'fault', sentence: amount.sentence };
  const first = MULTIPLIED.exec(last[1]!);
  const outer = first && amount.bags === undefined ? amountOf(first[2]!, first[3] ?? 'bags') : null;
  if (outer && 'sentence' in outer) return { kind: 'fault', sentence: outer.sentence };
  const word = (outer ? first![1]! : last[1]!).trim();
  const meant = { bags: amount.bags ?? outer?.bags ?? 1, drills: amount.drills ?? null };
  const entry = found(word, legend, bagsCarry, meant);
  if (entry.kind === 'stray' && findLine(last[2]!, legend, bagsCarry).kind === 'one') {
    return {
      kind: 'fault',
      sentence: `The list has no ${word}, but it has ${last[2]}. Type the code first: ${last[2]} x ${word}.`,
    };
  }
  return entry;
}

function found(
  word: string,
  legend: readonly LegendLine[],
  bagsCarry: BagsCarry | null,
  amount: Amount,
): TypedBag {
  const result = findLine(word, legend, bagsCarry);
  if (result.kind === 'one') return { kind: 'known', line: result.line, ...amount };
  if (result.kind === 'several') return { kind: 'ask', word, lines: result.lines, ...amount };
  return { kind: 'stray', label: word, ...amount };
}

/** A word that is no colour: perhaps a code with a comma in it, or an amount without its code. */
function alone(
  text: string,
  legend: readonly LegendLine[],
  bagsCarry: BagsCarry | null,
  stray: TypedBag,
): TypedBag {
  const amount = new RegExp(`^(${NUMBER})\\s*(${UNIT})?$`, 'iu').exec(text);
  if (amount && (amount[2] !== undefined || /\D/.test(plainSigns(amount[1]!)))) {
    const digits = plainSigns(amount[1]!).replace(/\D/g, '');
    const code = findLine(digits, legend, bagsCarry);
    if (amount[2] === undefined && code.kind === 'one') {
      return { kind: 'ask', word: text, lines: [code.line], bags: 1, drills: null };
    }
    return {
      kind: 'fault',
      sentence: `${text} is a number without a code. Type the code first, as in 412 x ${text}.`,
    };
  }
  if (/[×*]|\d\s*[xхχ]\s*\d/i.test(plainSigns(text))) {
    return {
      kind: 'fault',
      sentence: `“${text}” cannot be understood. Type 412 x 5 for five bags, or 412 x 140 for one of 140 drills.`,
    };
  }
  return stray;
}

function amountOf(
  number: string,
  unit: string | undefined,
): { bags?: number; drills?: number } | { sentence: string } {
  const n = Number(plainSigns(number).replace(/\D/g, ''));
  const asBags = unit !== undefined && new RegExp(`^(${BAG_WORDS})$`, 'i').test(unit);
  const asDrills = unit !== undefined && !asBags;
  if (n === 0) return { sentence: 'A bag must hold at least one drill.' };
  if (asBags || (!asDrills && n <= BAGS_UP_TO)) {
    return n > MOST_BAGS
      ? { sentence: `${many(n)} bags at once cannot be right; at most ${MOST_BAGS} are taken.` }
      : { bags: n };
  }
  if (!asDrills && n < DRILLS_FROM) {
    return { sentence: `Are ${many(n)} the bags or the drills? Type “x ${n} bags” or “x ${n} drills”.` };
  }
  return n > MOST_DRILLS
    ? { sentence: `More than ${many(MOST_DRILLS)} drills in one bag cannot be right.` }
    : { drills: n };
}
