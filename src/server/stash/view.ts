import { deletedThings } from '../../data/deleted';
import type { Queries } from '../../data/engine/database';
import { undoViewOf } from '../../data/history';
import { stashFacts, stashItems } from '../../data/stash';
import type { StashView } from './contract';

/** @param screenId the screen for which undo is told */
export async function stashView(queries: Queries, screenId: string | null = null): Promise<StashView> {
  return {
    items: await stashItems(queries),
    deleted: await deletedThings(queries, 'stash'),
    history: await undoViewOf(queries, 'stash_move', null, screenId, (ids) => stashFacts(queries, ids)),
  };
}
