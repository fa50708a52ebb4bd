/** What waited no longer was on its way, and was made as it came. */
const ON_ITS_WAY_MS = 2_000;
/** Nothing waits longer: where more is said, a clock was set meanwhile. */
const LONGEST_WAIT_MS = 400 * 86_400_000;

/**
 * When something was done that may have waited on a device for the machine that keeps it. Clocks of two machines differ,
 * so the device does not say when, but how long ago by its own clock.
 * @param now when it came
 * @param waitedMs milliseconds; what cannot be a wait counts as none
 * @example madeAt(new Date('2026-05-02T10:00:00Z'), 3_600_000) // 09:00: laid an hour ago, while the machine was off
 */
export function madeAt(now: Date, waitedMs: number): Date {
  const waited = waitedMs > ON_ITS_WAY_MS && waitedMs <= LONGEST_WAIT_MS;
  return waited ? new Date(now.getTime() - waitedMs) : now;
}
