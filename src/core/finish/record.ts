/** Whether a finished canvas is sealed: not decided yet, no, or yes. */
export const SEALINGS = ['open', 'no', 'yes'] as const;
export type Sealing = (typeof SEALINGS)[number];

/** The last walk over a canvas, step by step (common practice, no source). */
export const WALK_STEPS = [
  {
    key: 'loose',
    name: 'Feel for loose ones',
    how: 'Stroke the canvas lightly with the flat of the hand, row by row. What moves is pressed down, or lifted and laid again.',
  },
  {
    key: 'gaps',
    name: 'Look for gaps',
    how: 'Hold it against the light, or look along it from the side: bare squares and drills that lie askew show.',
  },
  {
    key: 'press',
    name: 'Press it flat',
    how: 'Lay a clean cover over it and press with a roller or a heavy book, from the middle to the edges.',
  },
  {
    key: 'wipe',
    name: 'Wipe it clean',
    how: 'Brush off dust and wax with a soft, dry brush; a duster that is hardly damp takes the rest.',
  },
  {
    key: 'roll',
    name: 'Roll it once, drills outwards',
    how: 'Rolled loosely with the drills outside, it shows where one does not stick. Store it like that, or flat.',
  },
] as const;
export type WalkStep = (typeof WALK_STEPS)[number]['key'];

/** What is told of the end of a canvas. Days as `YYYY-MM-DD`; lengths in mm. */
export interface FinishRecord {
  /** Null leaves it to the first mark. */
  startedOn: string | null;
  /** Null while it is not finished. */
  finishedOn: string | null;
  /** Time at the bench where it is told by hand; null leaves it to the sittings. */
  minutes: number | null;
  checked: readonly WalkStep[];
  sealing: Sealing;
  /** Canvas left around the picture when it is trimmed, mm. */
  borderMm: number;
  frame: { widthMm: number; heightMm: number } | null;
  notes: string;
}

export const UNTOLD_FINISH: FinishRecord = {
  startedOn: null,
  finishedOn: null,
  minutes: null,
  checked: [],
  sealing: 'open',
  borderMm: 20,
  frame: null,
  notes: '',
};

/** What is told of the end at one moment; what is not named stays as it was, so that two people can tell at once. */
export type FinishChange = {
  [Key in keyof Omit<FinishRecord, 'checked'>]?: FinishRecord[Key] | undefined;
} & {
  /** Steps of the last walk that are done now, or not any more. */
  steps?: { [Step in WalkStep]?: boolean | undefined } | undefined;
};

export function changedFinish(record: FinishRecord, { steps, ...told }: FinishChange): FinishRecord {
  const named = Object.entries(told).filter(([, value]) => value !== undefined);
  const isDone = (step: WalkStep) => steps?.[step] ?? record.checked.includes(step);
  return {
    ...record,
    ...Object.fromEntries(named),
    checked: WALK_STEPS.map(({ key }) => key).filter(isDone),
  };
}

/** Usual cautions before a canvas is sealed. */
export const SEALING_CAUTIONS = [
  'The label of the product comes first: what it is for, how much, how long it dries.',
  'Air the room well or work outdoors; wear what the label asks for, and keep flames, children and pets away.',
  'Try it on a corner or on spare drills: some sealers cloud coated and glow drills.',
] as const;

/** Why such a record cannot be right, as a sentence; null where it can. @param today `YYYY-MM-DD` */
export function faultInFinish(
  { startedOn, finishedOn }: Pick<FinishRecord, 'startedOn' | 'finishedOn'>,
  today: string,
): string | null {
  if (finishedOn !== null && finishedOn > today) return 'A canvas cannot be finished in the future.';
  if (startedOn !== null && startedOn > today) return 'A canvas cannot have been begun in the future.';
  if (startedOn !== null && finishedOn !== null && finishedOn < startedOn)
    return 'It cannot have been finished before it was begun.';
  return null;
}
