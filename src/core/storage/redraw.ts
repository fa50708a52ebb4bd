import { many } from '../words/numbers';
import { slotsInOrder, type Tray } from './storage';

/** A pot in use, as people know it. */
export interface PotInUse {
  slot: string;
  /** Code of the colour in it; null where the colour list has none. */
  code: string | null;
  /** Title of the canvas that it belongs to. */
  title: string;
}

/** Pots are named one by one up to this many. */
const MOST_NAMED = 3;

/**
 * Pots are numbered in reading order, so a slot more or less gives other numbers to those behind it.
 * @param inUse pots of this case that hold a colour, or are planned to
 * @returns those whose number changes, by their number before
 */
export function renumbered<Pot extends PotInUse>(
  before: readonly Tray[],
  after: readonly Tray[],
  inUse: readonly Pot[],
): { pot: Pot; from: number; to: number }[] {
  const numbersOf = (trays: readonly Tray[]) =>
    new Map(slotsInOrder(trays).map(({ slot, number }) => [slot.id, number]));
  const [was, will] = [numbersOf(before), numbersOf(after)];
  return inUse
    .flatMap((pot) => {
      const [from, to] = [was.get(pot.slot), will.get(pot.slot)];
      return from === undefined || to === undefined || from === to ? [] : [{ pot, from, to }];
    })
    .sort((a, b) => a.from - b.from);
}

/** What that means for whoever has labels on the pots; null where no number changes. */
export function renumberedInWords(changes: ReturnType<typeof renumbered>): string | null {
  if (changes.length === 0) return null;
  const named = changes
    .slice(0, MOST_NAMED)
    .map(({ pot, from, to }) => `${pot.code ?? 'a colour'} of ${pot.title} from ${from} to ${to}`)
    .join(', ');
  if (changes.length === 1) return `A pot in use gets another number: ${named}. Print its label again.`;
  const more = changes.length - MOST_NAMED;
  const all = more > 0 ? `${named} and ${many(more)} more` : named;
  return `${many(changes.length)} pots in use get other numbers: ${all}. Print their labels again.`;
}
