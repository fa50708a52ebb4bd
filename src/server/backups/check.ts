import { counted, many } from '../../core/words/numbers';
import type { Database } from '../../data/engine/database';
import { brokenPhotos, lostReferences, unreadableTables, wrongTotals } from '../../data/records';
import type { TellProgress } from '../jobs/progress';
import type { CheckReport } from './contract';

/**
 * Checks the records: every total against its ledger, every reference, every row and its checksum, every photo.
 */
export async function checkRecords(
  database: Database,
  report: TellProgress = () => {},
): Promise<CheckReport> {
  const { rows, unreadable } = await unreadableTables(database);
  if (unreadable.length > 0) {
    const faults = unreadable.map(
      (table) => `The table ${table} cannot be read: its file on the disk is damaged.`,
    );
    return { canvases: 0, marks: 0, rows, references: 0, photos: 0, faults };
  }
  return database.snapshot(async (queries) => {
    const totals = await wrongTotals(queries, report);
    const { references, lost } = await lostReferences(queries);
    const { photos, broken } = await brokenPhotos(queries);
    const faults = [
      ...totals.wrong.map(({ title, what }) => `${title}: the ${what} is not what its marks add up to.`),
      ...lost.map(
        ({ table, column, rows: stray }) =>
          `${counted(stray, 'row')} of ${table} refer by ${column} to something that is not there.`,
      ),
      ...(broken > 0 ? [`${many(broken)} of ${counted(photos, 'photo')} cannot be shown.`] : []),
    ];
    return { canvases: totals.canvases, marks: totals.marks, rows, references, photos, faults };
  });
}
