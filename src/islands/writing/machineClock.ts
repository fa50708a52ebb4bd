/** `Date` of an answer is in whole seconds. */
const SECOND_MS = 1000;

/**
 * The clock of the machine, by which all is recorded. A tablet whose battery was empty may be an hour off: what it shows
 * of a sitting, and the end that it proposes for one, would be off as much.
 */
export class MachineClock {
  /** How much later it is at the machine than here, in milliseconds. */
  private later = 0;

  /** @param device the clock of this device, in milliseconds */
  constructor(private readonly device: () => number = () => Date.now()) {}

  /**
   * @param date of an answer (RFC 9110, 6.6.1); null where it has none, as one that was kept on this device
   * @param askedAt when it was asked for, by this device’s clock
   */
  heard(date: string | null, askedAt: number): void {
    const written = date === null ? Number.NaN : Date.parse(date);
    // It was written at some moment between the question and now, and the second that it names may have been nearly over.
    const [least, most] = [written - this.device(), written + SECOND_MS - askedAt];
    if (!(least <= most) || (this.later >= least && this.later <= most)) return;
    this.later = (least + most) / 2;
  }

  /** @param moment by this device’s clock, in milliseconds */
  at(moment: number): Date {
    return new Date(moment + this.later);
  }

  now = (): Date => this.at(this.device());
}

const only = new MachineClock();

/** The page's. */
export function theMachineClock(): MachineClock {
  return only;
}
