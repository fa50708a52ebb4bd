import { COLOUR_ORDERS, type ColourOrder } from '../../core/codes/colourOrder';
import type { PotPlaces } from '../../core/codes/places';
import { ALLOT_GOALS, type AllotGoal, LEAVE_RULES, type LeaveRule } from '../../core/kitup/allotTask';
import type { NumberedBag } from '../../core/kitup/amounts';
import type { PotEventKind } from '../../core/kitup/potLedger';
import type { SortingHelp } from '../../core/kitup/sorting';
import type { UndoView } from '../../core/ledger/history';
import type { Storage } from '../../core/storage/storage';
import { array, boolean, colourLine, number, object, string } from '../http/schema';

export const kitupSchema = object({
  storageIds: array(string().uuid().required())
    .required('Say which cases hold this kit.')
    .max(10, 'At most ten cases hold one kit.')
    .test('once', 'A case is named twice.', (ids) => new Set(ids).size === ids.length),
  order: string().oneOf(COLOUR_ORDERS).required('Say in which order the colours are kept.'),
  leave: string().oneOf(LEAVE_RULES).default('fewest drills'),
  /** Whether pots left over take what overflows, so that a colour may have several. */
  several: boolean().default(false),
  goals: array(string().oneOf(ALLOT_GOALS).required())
    .required('Put the goals in an order.')
    .length(ALLOT_GOALS.length, 'Each goal stands once in the order.')
    .test('once', 'Each goal stands once in the order.', (goals) => new Set(goals).size === goals.length),
  /** Colours that keep a slot whatever the goals say. */
  locks: array(
    object({
      line: colourLine().required(),
      storageId: string().uuid().required(),
      slot: string().required(),
    }).noUnknown(),
  ).default([]),
});

/** Whether the kit is worked straight from its bags. */
export const noCasesSchema = object({ none: boolean().required('Say whether no cases are needed.') });

export const potEventSchema = object({
  id: string().uuid().required('An id is needed, so that a repeated request counts nothing twice.'),
  line: colourLine().nullable().default(null),
  kind: string()
    .oneOf(
      ['fill', 'take back', 'put away', 'amount'] as const,
      'A pot is filled, emptied again, amended or put away.',
    )
    .nullable()
    .default(null),
  /** Leftover drills that go into the stash. */
  drills: number()
    .typeError('Give the leftover as a number of drills.')
    .integer('Drills are counted in whole numbers.')
    .min(0, 'The number of drills cannot be below 0.')
    .max(1_000_000, 'More than a million drills cannot be right.')
    .default(0),
  undoes: string().uuid().nullable().default(null),
  redoes: string().uuid().nullable().default(null),
});

/** An event of a pot as it is named before it is undone. */
interface PotOffer {
  id: string;
  line: number;
  kind: PotEventKind;
  drills: number;
}

/** A slot of a case as the kit sees it. */
export interface SlotView {
  slot: string;
  tray: number;
  /** As it is called: `pot 17`. */
  place: string;
  capacity: number;
  /** Colour of this kit in it. */
  line: number | null;
  /** Drills of it that lie here; what its pots do not take stays outside. */
  drills: number;
  locked: boolean;
  /** Another canvas that has it. */
  takenBy: string | null;
}

export interface KitupView {
  /** The kit is worked straight from its bags. */
  noCases: boolean;
  /** Share of bad drills to reckon with, 0…1. */
  trashShare: number;
  /** Null before the first plan. */
  plan: {
    order: ColourOrder;
    leave: LeaveRule;
    goals: AllotGoal[];
    /** One sentence a goal, in the order of the goals. */
    results: string[];
    /** Whether pots left over take what overflows. */
    several: boolean;
    /** What that brings and costs; null where it brings nothing. */
    offer: string | null;
  } | null;
  /** All cases of the user, and how many of their slots are free for this kit. */
  storages: { id: string; name: string; slots: number; free: number }[];
  /** The cases that hold this kit, with their slots. */
  cases: { storage: Storage; slots: SlotView[] }[];
  places: PotPlaces;
  /** Drills to store, by line. */
  amounts: Record<number, number>;
  bags: (NumberedBag & { reason: string | null })[];
  refills: string[];
  /** Lines whose pot is filled. */
  filled: number[];
  /** Lines whose pot is put away, with the leftover drills that were said. */
  putAway: Record<number, number>;
  /** What a finished canvas leaves over, as far as it is known, by line. */
  leftovers: Record<number, number>;
  /** What the stash has of a colour: the same code, or the nearest. */
  stash: Record<number, string>;
  sorting: SortingHelp;
  history: UndoView<PotOffer>;
}
