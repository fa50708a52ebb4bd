/** What a hand on the cloth means; the cloth carries it out. */
export interface HandActions {
  /** A mark begins where the finger, the pen or the mouse came down. @param held after a short hold */
  begin(held: boolean): void;
  /** The mark goes on to here. */
  extend(x: number, y: number): void;
  end(): void;
  /** What the mark showed so far is taken back; nothing of it was sent. */
  abort(): void;
  pan(dx: number, dy: number): void;
}

/**
 * A pointer as the browser tells of it; `contact` is the larger side of what touches, in CSS pixels, `at` the moment of the
 * touch in milliseconds, by the browser's own clock.
 */
export interface Touch {
  id: number;
  x: number;
  y: number;
  kind: 'touch' | 'mouse' | 'pen';
  contact: number;
  at: number;
}

/** A finger that wobbles no farther than this (CSS pixels) has tapped. */
const WOBBLE_PX = 14;
/** A finger that rests so long (ms) marks by dragging, or lifts what lies there. */
const HOLD_MS = 350;
/** A mouse or pen that rests so long on a laid square lifts it; they mark at once otherwise. */
const HOLD_BY_MOUSE_MS = 600;
/** The same for a hand that trembles. */
const TREMOR = { wobblePx: 36, holdMs: 700, holdByMouseMs: 1200 };
/** More than a fingertip: a palm that rests (CSS pixels). */
const PALM_PX = 60;

/**
 * Tells a calm tap from a swipe, a pinch and a resting palm. One finger that moves pans; a tap marks one square; a drag
 * marks only after a short hold; a second finger takes back what the first began. Mouse and pen mark at once.
 */
export class TouchHand {
  private readonly down = new Map<number, Touch>();
  private start: Touch | null = null;
  private last: { x: number; y: number } | null = null;
  private phase: 'none' | 'waiting' | 'marking' | 'panning' | 'over' = 'none';
  private moved = false;
  private timer: unknown = null;
  private calm = { wobblePx: WOBBLE_PX, holdMs: HOLD_MS, holdByMouseMs: HOLD_BY_MOUSE_MS };
  private drags = true;

  /** For a hand that trembles a press is longer, a wobble is no swipe, and nothing is marked by dragging. */
  setTremor(tremor: boolean): void {
    this.calm = tremor ? TREMOR : { wobblePx: WOBBLE_PX, holdMs: HOLD_MS, holdByMouseMs: HOLD_BY_MOUSE_MS };
    this.drags = !tremor;
  }

  /**
   * @param later runs work after so many milliseconds; @param never stops it
   */
  constructor(
    private readonly actions: HandActions,
    private readonly later: (work: () => void, ms: number) => unknown = (work, ms) => setTimeout(work, ms),
    private readonly never: (timer: unknown) => void = (timer) => clearTimeout(timer as number),
  ) {}

  /** Whether something touches the canvas. */
  get isDown(): boolean {
    return this.down.size > 0;
  }

  press(touch: Touch): void {
    if (touch.kind === 'touch' && touch.contact >= PALM_PX) return;
    this.down.set(touch.id, touch);
    if (this.down.size > 1) {
      // Two fingers zoom and move; whatever the first one began is no mark.
      this.stop();
      this.phase = 'over';
      return;
    }
    this.start = touch;
    this.last = touch;
    this.moved = false;
    if (touch.kind === 'touch') {
      this.phase = 'waiting';
      this.timer = this.later(() => this.hold(), this.calm.holdMs);
    } else {
      this.phase = 'marking';
      this.actions.begin(false);
      this.timer = this.later(() => this.holdByMouse(), this.calm.holdByMouseMs);
    }
  }

  move(touch: Touch): void {
    if (!this.down.has(touch.id) || !this.start || !this.last || touch.id !== this.start.id) return;
    if (touch.kind === 'touch' && touch.contact >= PALM_PX && this.phase === 'waiting') {
      // A palm that rolls on grows as it comes down.
      this.stop();
      this.phase = 'over';
      return;
    }
    const far = Math.hypot(touch.x - this.start.x, touch.y - this.start.y);
    // A page that is busy hears of a swipe late, when the hold seems to be up; the touch itself tells when it moved.
    const tooSoon =
      this.phase === 'marking' &&
      !this.moved &&
      touch.kind === 'touch' &&
      touch.at - this.start.at < this.calm.holdMs;
    if (tooSoon && far > this.calm.wobblePx) {
      this.actions.abort();
      this.phase = 'waiting';
    }
    if (this.phase === 'waiting' && far > this.calm.wobblePx) {
      this.never(this.timer);
      this.phase = 'panning';
      this.last = this.start;
    }
    if (this.phase === 'panning') this.actions.pan(touch.x - this.last.x, touch.y - this.last.y);
    const still = this.start.kind === 'touch' ? this.calm.wobblePx : 0;
    if (this.drags && this.phase === 'marking' && (this.moved || far > still)) {
      if (!this.moved) this.never(this.timer);
      this.moved = true;
      this.actions.extend(touch.x, touch.y);
    }
    this.last = touch;
  }

  release(touch: Pick<Touch, 'id'>): void {
    if (!this.down.delete(touch.id)) return;
    if (this.start?.id === touch.id || this.down.size === 0) {
      this.never(this.timer);
      if (this.phase === 'waiting') this.actions.begin(false);
      if (this.phase === 'waiting' || this.phase === 'marking') this.actions.end();
      this.phase = this.down.size === 0 ? 'none' : 'over';
      this.start = null;
    }
  }

  /** The browser took the pointer away, for a scroll or a gesture of its own. */
  cancel(touch: Pick<Touch, 'id'>): void {
    if (!this.down.delete(touch.id)) return;
    this.stop();
    this.phase = this.down.size === 0 ? 'none' : 'over';
  }

  /** What is under way comes to nothing, before the hand lets go. @returns whether anything was */
  giveUp(): boolean {
    if (this.phase !== 'marking' && this.phase !== 'waiting') return false;
    this.stop();
    this.phase = 'over';
    return true;
  }

  private stop(): void {
    this.never(this.timer);
    if (this.phase === 'marking') this.actions.abort();
    this.start = null;
  }

  private hold(): void {
    if (this.phase !== 'waiting') return;
    this.phase = 'marking';
    this.actions.begin(true);
  }

  private holdByMouse(): void {
    if (this.phase !== 'marking' || this.moved) return;
    this.actions.abort();
    this.actions.begin(true);
  }
}
