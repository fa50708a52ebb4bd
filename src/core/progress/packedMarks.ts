/** Marks of a canvas in their order, packed so that many thousands go to another thread at once. */
export interface PackedMarks {
  /** Runs of all marks, one after the other: start and length, again and again. */
  runs: Uint32Array;
  /** Where the runs of each mark end in `runs`. */
  ends: Uint32Array;
  /** When each was made, ms since 1970. */
  at: Float64Array;
  /** 1 where it lays, 0 where it lifts. */
  lays: Uint8Array;
  /** Index of its sitting in `sittings`; −1 for none. */
  sitting: Int32Array;
  sittings: string[];
}
