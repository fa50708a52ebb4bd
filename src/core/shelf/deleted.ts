/** Days for which what was deleted is kept. */
export const KEPT_DAYS = 30;

/** What is deleted: a canvas, a case, or a colour of the stash. */
export type DeletedKind = 'canvas' | 'case' | 'stash';

/** Something that was deleted and is still kept. */
export interface DeletedThing {
  id: string;
  kind: DeletedKind;
  title: string;
  deletedAt: string;
}
