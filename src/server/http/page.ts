import type { LegendLine } from '../../core/canvas/legend';
import type { PotPlaces } from '../../core/codes/places';
import { legendOf } from '../../data/canvas';
import { connection } from '../../data/engine/connection';
import type { Database } from '../../data/engine/database';
import { ledgerHeads } from '../../data/live';
import { potPlaces } from '../kitup/pots';
import { liveHub, stampText } from '../live/hub';
import type { ShelfEntry } from '../shelf/contract';
import { shelfEntry } from '../shelf/view';
import { isUuid } from './endpoint';
import { Problem } from './problem';

/** What every page of a station starts from. */
export interface StationPage {
  database: Database;
  entry: ShelfEntry;
  legend: LegendLine[];
  /** How the canvas stood when the page was made; from there it follows what happens. */
  stamp: string | null;
  /** Where each colour lives. */
  places: PotPlaces;
}

/** @returns null where there is no such canvas, for the page to say so */
export async function stationPage(id: string | undefined): Promise<StationPage | null> {
  if (!isUuid(id)) return null;
  const database = await connection();
  try {
    const hub = await liveHub(database);
    return await database.snapshot(async (queries) => {
      const heads = await ledgerHeads(queries, id);
      if (heads) hub.remember(id, heads);
      const legend = await legendOf(queries, id);
      return {
        database,
        entry: await shelfEntry(queries, id),
        stamp: heads ? stampText({ revision: heads.revision, position: heads.marks }) : null,
        legend,
        places: await potPlaces(queries, id, legend),
      };
    });
  } catch (error) {
    if (error instanceof Problem && error.status === 404) return null;
    throw error;
  }
}
