import type { LegendLine } from '../core/canvas/legend';
import type { PotPlaces } from '../core/kitup/pots';
import { legendOf } from '../data/canvases';
import { connection } from '../data/connection';
import type { Database } from '../data/database';
import type { ShelfEntry } from './contract/canvases';
import { isUuid } from './endpoint';
import { potPlaces } from './pots';
import { Problem } from './problem';
import { shelfEntry } from './shelf';

/** What every page of a station starts from. */
export interface StationPage {
  database: Database;
  entry: ShelfEntry;
  legend: LegendLine[];
  /** Where each colour lives. */
  places: PotPlaces;
}

/** @returns null where there is no such canvas, for the page to say so */
export async function stationPage(id: string | undefined): Promise<StationPage | null> {
  if (!isUuid(id)) return null;
  const database = await connection();
  try {
    const legend = await legendOf(database, id);
    return {
      database,
      entry: await shelfEntry(database, id),
      legend,
      places: await potPlaces(database, id, legend),
    };
  } catch (error) {
    if (error instanceof Problem && error.status === 404) return null;
    throw error;
  }
}
