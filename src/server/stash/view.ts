import { deletedThings } from '../../data/deleted';
import type { Queries } from '../../data/engine/database';
import { undoViewOf } from '../../data/history';
import { countStashItems, stashFacts, stashItems } from '../../data/stash';
import type { StashChange, StashView } from './contract';

/** More items come after the page, or it would be several times as long as what is drawn of it. */
const WITH_PAGE = 100;

/** @param screenId the screen for which undo is told */
export async function stashView(queries: Queries, screenId: string | null = null): Promise<StashView> {
  return { items: await stashItems(queries), ...(await besidesItems(queries, screenId)) };
}

/** What comes with the page: all of it, or all but the items where there are many. */
export async function stashPage(queries: Queries): Promise<{ first: StashView; isWhole: boolean }> {
  const isWhole = (await countStashItems(queries)) <= WITH_PAGE;
  const items = isWhole ? await stashItems(queries) : [];
  return { first: { items, ...(await besidesItems(queries, null)) }, isWhole };
}

/** What a write of an item changed of the view. */
export async function stashChange(
  queries: Queries,
  itemId: string,
  screenId: string | null,
): Promise<StashChange> {
  const items = await stashItems(queries, { id: itemId });
  return { items, gone: items.length > 0 ? [] : [itemId], ...(await besidesItems(queries, screenId)) };
}

async function besidesItems(queries: Queries, screenId: string | null): Promise<Omit<StashView, 'items'>> {
  return {
    deleted: await deletedThings(queries, 'stash'),
    history: await undoViewOf(queries, 'stash_move', null, screenId, (ids) => stashFacts(queries, ids)),
  };
}
