-- Small records are corrected by a row that takes the place of an earlier one; what is removed is kept.
alter table trash_record add column replaces uuid unique references trash_record (id) deferrable initially deferred;
alter table trash_record add column removed boolean not null default false;
alter table inspection_entry add column replaces uuid unique references inspection_entry (id) deferrable initially deferred;
create table sitting_edit (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  sitting_id uuid not null references sitting (id) on delete cascade,
  happened_at timestamptz not null,
  started_at timestamptz not null,
  ended_at timestamptz,
  note text not null,
  removed boolean not null
);
create index sitting_edit_by_sitting on sitting_edit (sitting_id, position);
create index sitting_edit_by_canvas on sitting_edit (canvas_id, position);
-- Deleted cases and leftovers are kept for a while, as canvases are.
alter table storage add column deleted_at timestamptz;
alter table stash_item add column deleted_at timestamptz;
