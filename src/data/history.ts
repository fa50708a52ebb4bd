import { type UndoState, type UndoView, undoView } from '../core/ledger/history';
import { deviceNameSql } from './deviceName';
import { one, type Queries } from './engine/database';

/** Ledgers that are taken back entry by entry, and which of their rows a person takes back. */
const LEDGERS = {
  mark: 'e.canvas_id = $1',
  bag_entry: 'e.canvas_id = $1',
  pot_event: 'e.canvas_id = $1',
  chart_edit: 'e.canvas_id = $1',
  sheet_edit: 'e.canvas_id = $1',
  section_cut: 'e.canvas_id = $1',
  // Leftovers that a bag or a pot moved go back with that bag or pot.
  stash_move:
    '$1::uuid is null and e.bag_id is null and not exists (select 1 from pot_event p where p.stash_move_id = e.id)',
} as const;
export type Ledger = keyof typeof LEDGERS;

/**
 * What undo and redo of a screen act on, over the whole ledger; the same as `undoState` says of all its rows.
 * @param canvasId null for the stash, which belongs to no canvas
 */
export async function undoStateOf(
  queries: Queries,
  ledger: Ledger,
  canvasId: string | null,
  screenId: string | null,
): Promise<UndoState> {
  const entries = LEDGERS[ledger];
  const mine = `${entries} and ${screenId === null ? '$2::uuid is null and e.screen_id is null' : 'e.screen_id = $2::uuid'}`;
  // Most acts follow one that stands and is no undo itself. To plan all that is below takes ten times as long as to ask this.
  const last = await one<{ id: string; plain: boolean }>(
    queries,
    `select e.id, e.undoes is null and e.redoes is null
              and not exists (select from ${ledger} u where u.undoes = e.id) as plain
     from ${ledger} e where ${mine} order by e.position desc limit 1`,
    [canvasId, screenId],
  );
  if (last?.plain) return { undo: last.id, own: true, redo: null };
  const standing = `e.id, e.undoes is not null or
    (select u.id from ${ledger} u where u.undoes = e.id limit 1) is not null as further`;
  // Redo goes back to the last that was new at this screen: what was taken back before it is not done again.
  const state = await one<{ own: string | null; any: string | null; redo: string | null }>(
    queries,
    `with recursive
       ${walk('own', ledger, mine, standing)},
       ${walk('every', ledger, entries, standing)},
       ${walk('recent', ledger, mine, 'e.undoes, e.undoes is not null or e.redoes is not null as further')}
     select (select id from own where not further) as own,
            case when not exists (select from own where not further)
              then (select id from every where not further) end as any,
            (select e.undoes from recent e where e.undoes is not null
               and (select r.id from ${ledger} r where r.redoes = e.undoes and r.position > e.position limit 1) is null
             order by e.position desc limit 1) as redo`,
    [canvasId, screenId],
  );
  const undo = state?.own ?? state?.any ?? null;
  return { undo, own: undo !== null && state?.own === undo, redo: state?.redo ?? null };
}

/**
 * A query by name: rows from the newest on, as long as they say `further`. Step by step, since a database without
 * statistics would rather sort the whole ledger than walk its index.
 */
function walk(name: string, ledger: Ledger, which: string, columns: string): string {
  const newest = (before: string) =>
    `select e.position, ${columns} from ${ledger} e where ${which} ${before} order by e.position desc limit 1`;
  return `${name} as ((${newest('')}) union all
    select n.* from (select position as at from ${name} where further) w
    cross join lateral (${newest('and e.position < w.at')}) n)`;
}

/** How an entry of a ledger stands. */
export type Standing =
  /** It was never there, or is an undo itself. */
  | 'unknown'
  | 'stands'
  | 'taken back'
  /** Taken back, and done again since. */
  | 'done again';

export async function standingOf(
  queries: Queries,
  ledger: Ledger,
  canvasId: string | null,
  id: string,
): Promise<Standing> {
  const row = await one<{ undone: boolean; redone: boolean }>(
    queries,
    `select exists (select 1 from ${ledger} u where u.undoes = e.id) as undone,
            exists (select 1 from ${ledger} r where r.redoes = e.id) as redone
     from ${ledger} e where ${LEDGERS[ledger]} and e.id = $2 and e.undoes is null`,
    [canvasId, id],
  );
  if (!row) return 'unknown';
  return row.redone ? 'done again' : row.undone ? 'taken back' : 'stands';
}

/** What undo and redo of a screen would take back and do again. @param facts gives what entries did, by their id */
export async function undoViewOf<Offer extends { id: string }>(
  queries: Queries,
  ledger: Ledger,
  canvasId: string | null,
  screenId: string | null,
  facts: (ids: readonly string[]) => Promise<readonly Offer[]>,
): Promise<UndoView<Offer>> {
  const { undo, own, redo } = await undoStateOf(queries, ledger, canvasId, screenId);
  const ids = [undo, redo].filter((id) => id !== null);
  const offers = ids.length === 0 ? [] : await facts(ids);
  const undone = offers.find(({ id }) => id === undo);
  const device = undone && !own ? await deviceOf(queries, ledger, undone.id) : null;
  return undoView(
    screenId,
    undone ? { ...undone, own, ...(device !== null && { device }) } : null,
    offers.find(({ id }) => id === redo) ?? null,
  );
}

/** Where an entry was made, by name; null where no device has ever joined. */
async function deviceOf(queries: Queries, ledger: Ledger, id: string): Promise<string | null> {
  const row = await one<{ device: string | null }>(
    queries,
    `select ${deviceNameSql('e.screen_id')} as device from ${ledger} e where e.id = $1`,
    [id],
  );
  return row?.device ?? null;
}
