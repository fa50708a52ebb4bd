import type { MarkKind } from '../../core/bench/marking';
import { object, string } from '../http/schema';

/** How far a reader has come: revision and place of the last mark, `12-3456`. */
export const changesQuery = object({
  after: string()
    .matches(
      /^\d{1,10}-\d{1,10}$/,
      'Say how far you have come: two numbers with a dash between, such as 12-3456.',
    )
    .default(null)
    .nullable(),
});

/** What can change of a canvas besides its marks. */
export type ChangedPart =
  | 'bags'
  | 'pots'
  | 'trash'
  | 'sittings'
  | 'sections'
  | 'repairs'
  | 'sheet'
  /** Anything else: wishes, requests, symbols, a new chart. */
  | 'other';

/** Who did something: the screen, and the device by its name; null where that is not known. */
export interface Author {
  screen: string | null;
  device: string | null;
}

/** A mark that was made, in the order of the ledger. */
export interface MarkEvent {
  /** Place in the ledger of the mark before it on this canvas; 0 for the first. */
  after: number;
  position: number;
  id: string;
  kind: MarkKind;
  runs: number[];
  by: Author;
}

/** Something else of the canvas changed. */
export interface ChangedEvent {
  /** `other` alone also where nobody knows any more what it was: then all may have changed. */
  parts: ChangedPart[];
  /** Null where several wrote at once. */
  by: Author | null;
}

/** Other devices that have the canvas open, by name. */
export interface PresentEvent {
  devices: string[];
}

/** What a reader has missed. */
export interface ChangesView {
  /** How far this brings the reader. */
  stamp: string;
  marks: MarkEvent[];
  /** True where there is too much to tell: what is laid is to be read anew. */
  tooMuch: boolean;
  /** What else changed; `other` alone where nobody knows any more what it was. */
  parts: ChangedPart[];
}
