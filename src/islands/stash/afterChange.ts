import type { StashChange, StashView } from '../../server/stash/contract';

/** What is shown of the stash once a write changed some of its items. */
export function afterChange(before: StashView, { items, gone, deleted, history }: StashChange): StashView {
  const fresh = new Map(items.map((item) => [item.id, item]));
  const away = new Set(gone);
  const known = new Set(before.items.map(({ id }) => id));
  return {
    items: [
      ...before.items.filter(({ id }) => !away.has(id)).map((item) => fresh.get(item.id) ?? item),
      ...items.filter(({ id }) => !known.has(id)),
    ],
    deleted,
    history,
  };
}
