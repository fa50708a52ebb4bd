import type { Contents } from '../../core/backups/contents';
import type { BackupReason } from '../../core/backups/retention';

/** A backup in the list. */
export interface BackupView {
  name: string;
  madeAt: string;
  why: BackupReason;
  bytes: number;
  /** What it holds; null where it was made from an older schema, or cannot be read. */
  contents: Contents | null;
  /** What is wrong with the file; null for a good one. */
  fault: string | null;
}

/** What the page of backups shows. */
export interface BackupsView {
  backups: BackupView[];
  /** The directory in which they lie. */
  directory: string;
  /** Of how many days, weeks and months the daily ones are kept, in words; null where none are made by themselves. */
  kept: string | null;
  /** Why the last one by itself did not come about; null when it did. */
  failed: string | null;
}

/** What came back from a backup. */
export interface RestoreReport {
  /** Moment of the backup. */
  created: string;
  /** Titles of canvases that came back, and of those that were here already and stay as they are. */
  back: string[];
  hereAlready: string[];
  /** How many of each came back. */
  bags: number;
  marks: number;
  leftovers: number;
  cases: number;
  photos: number;
  /** Rows that stayed out because their slot, tip or the like is taken here. */
  leftOut: number;
  /** What the check afterwards found; empty when all is as it should be. */
  faults: string[];
}

/** What a check of the records found. */
export interface CheckReport {
  canvases: number;
  marks: number;
  rows: number;
  references: number;
  photos: number;
  /** A sentence each; none when all is well. */
  faults: string[];
}
