import { object, string } from '../http/schema';

export const archiveQuery = object({
  /** Id of a second canvas that the archive becomes; without it, the canvas comes back as it was. */
  copy: string().uuid('The id of a copy must be a UUID.'),
});

/** What became of an archive. */
export interface ArchiveReport {
  id: string;
  title: string;
  /** What could not come along, a sentence each. */
  notices: string[];
}
