/** Days for which what was deleted is kept. */
export const KEPT_DAYS = 30;

export const DELETED_KINDS = ['canvas', 'case', 'stash'] as const;
export type DeletedKind = (typeof DELETED_KINDS)[number];

/** Something that was deleted and is still kept. */
export interface DeletedThing {
  id: string;
  kind: DeletedKind;
  title: string;
  deletedAt: string;
}
