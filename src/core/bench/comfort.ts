/** How the bench suits a pair of eyes and hands; kept by each device for itself. */
export interface Comfort {
  /** The view moves along with what is laid next. */
  follow: boolean;
  symbols: 'usual' | 'large';
  lines: 'usual' | 'thick';
  contrast: 'usual' | 'high';
  /** The slip beside the canvas stands on this side: the other one than the hand that works. */
  slip: 'right' | 'left';
  /** A longer press, no drags by accident, and a touch beside a square finds it. */
  tremor: boolean;
  /** Row and column through the square in hand, with their distances. */
  crossHair: boolean;
  /** Each run of the colour in front with its number, and the gaps between. */
  counting: boolean;
  /** The screen stays on. */
  awake: 'sitting' | 'always' | 'never';
  /** What is laid with one key, and said: bars of the plan, or the rows of a colour. */
  guide: 'placements' | 'rows';
  voice: boolean;
  pace: VoicePace;
}

export const VOICE_PACES = ['slow', 'usual', 'quick'] as const;
export type VoicePace = (typeof VOICE_PACES)[number];

/** Speed of the voice as a share of its own. */
export const VOICE_RATES: Record<VoicePace, number> = { slow: 0.7, usual: 1, quick: 1.4 };

export const USUAL_COMFORT: Comfort = {
  follow: true,
  symbols: 'usual',
  lines: 'usual',
  contrast: 'usual',
  slip: 'right',
  tremor: false,
  crossHair: false,
  counting: false,
  awake: 'sitting',
  guide: 'placements',
  voice: false,
  pace: 'usual',
};

const CHOICES: { [Key in keyof Comfort]: readonly Comfort[Key][] } = {
  follow: [true, false],
  symbols: ['usual', 'large'],
  lines: ['usual', 'thick'],
  contrast: ['usual', 'high'],
  slip: ['right', 'left'],
  tremor: [true, false],
  crossHair: [true, false],
  counting: [true, false],
  awake: ['sitting', 'always', 'never'],
  guide: ['placements', 'rows'],
  voice: [true, false],
  pace: VOICE_PACES,
};

/** What was kept, as far as it makes sense; the rest is as usual. @param kept JSON, perhaps of another version */
export function comfortOf(kept: string | null): Comfort {
  let said: Record<string, unknown> = {};
  try {
    const value: unknown = JSON.parse(kept ?? '{}');
    if (typeof value === 'object' && value !== null) said = value as Record<string, unknown>;
  } catch {
    // Somebody else's text: all is as usual.
  }
  const comfort: Record<string, unknown> = { ...USUAL_COMFORT };
  for (const [key, choices] of Object.entries(CHOICES)) {
    if ((choices as readonly unknown[]).includes(said[key])) comfort[key] = said[key];
  }
  return comfort as unknown as Comfort;
}

/** The next pace of the voice, round the end. */
export function nextPace(pace: VoicePace): VoicePace {
  return VOICE_PACES[(VOICE_PACES.indexOf(pace) + 1) % VOICE_PACES.length]!;
}
