import { makerSchema, object, string } from '../http/schema';

export const progressQuery = object({
  zone: string()
    .default('UTC')
    .test('zone', 'This is not the name of a time zone, like Europe/Lisbon.', (zone) => {
      try {
        new Intl.DateTimeFormat('en', { timeZone: zone });
        return true;
      } catch {
        return false;
      }
    }),
  /** Whose days and sittings: the id of a device, or `desk`; everybody's without it. */
  maker: makerSchema,
});

/** A sitting as it was corrected last. */
export interface SittingRecord {
  id: string;
  startedAt: string;
  endedAt: string | null;
  note: string;
  drills: number;
  /** It was a mistake; kept, but not reckoned with. */
  removed: boolean;
  /** The device at which it began, by name; left out where there is but one. */
  device?: string;
}

export interface ProgressView {
  laidToday: number;
  laid: number;
  drills: number;
  percent: number;
  /** Drills that were laid before the canvas was kept here; they are of no day. */
  laidBefore: number;
  /** Total at the end of each day with work. */
  burnUp: { day: string; total: number }[];
  /** Null for a canvas without a chart, where colours are not known cell by cell. */
  colours: { line: number; drills: number; left: number }[] | null;
  /** Percent of the canvas in which a colour was ticked as done; only on a canvas without a chart. */
  ticked: { line: number; percent: number }[] | null;
  /** How far each panel is; none for an undivided canvas. */
  panels: { panel: number; drills: number; laid: number; percent: number }[];
  /** Who has marked on this canvas, where it is more than one: devices by id, and `desk`. */
  makers: { id: string; name: string; drills: number }[];
  sittings: SittingRecord[];
}
