-- An index on every foreign key: without it, each row that goes makes the database look through all rows of the others.
create index bag_entry_by_undoes on bag_entry (undoes) where undoes is not null;
create index bag_entry_by_redoes on bag_entry (redoes) where redoes is not null;
create index bag_entry_by_subject on bag_entry (subject) where subject is not null;
create index mark_by_sitting on mark (sitting_id) where sitting_id is not null;
create index mark_by_undoes on mark (undoes) where undoes is not null;
create index mark_by_redoes on mark (redoes) where redoes is not null;
create index inspection_entry_by_canvas on inspection_entry (canvas_id, happened_at);
create index stash_move_by_bag on stash_move (bag_id) where bag_id is not null;
create index kitup_storage_by_storage on kitup_storage (storage_id);
create index chart_edit_by_undoes on chart_edit (undoes) where undoes is not null;

-- What is laid, in parts of 8,192 cells (1,024 bytes), so that a mark reads and writes what it touches.
create table progress_part (
  canvas_id uuid not null references canvas (id) on delete cascade,
  part integer not null check (part >= 0),
  bits bytea not null,
  primary key (canvas_id, part)
);
insert into progress_part (canvas_id, part, bits)
select p.canvas_id, n.part, substring(p.bitmap from n.part * 1024 + 1 for 1024)
from progress_cache p, generate_series(0, (octet_length(p.bitmap) - 1) / 1024) as n (part);
alter table progress_cache drop column bitmap;
-- Not compressed, so that a part of the cells can be read without the rest.
alter table chart alter column cells set storage external;
update chart set cells = cells || ''::bytea;

-- Requests by the id that their sender gave them: the same id with the same content changes nothing, with other
-- content it is refused. `digest` is the SHA-256 of the content.
create table known_request (
  id uuid primary key,
  what text not null,
  digest text not null,
  canvas_id uuid references canvas (id) on delete cascade
);
create index known_request_by_canvas on known_request (canvas_id) where canvas_id is not null;

-- Grows with every change but marks; tells a page whether what it shows is still so.
alter table canvas add column revision integer not null default 0;

-- A canvas that is being taken in, part by part, so that others get their turn meanwhile.
alter table canvas add column arriving boolean not null default false;

-- Who did what: a screen takes back what it did itself. Null for what was done before screens had names.
alter table mark add column screen_id uuid;
alter table bag_entry add column screen_id uuid;
alter table pot_event add column screen_id uuid;
alter table chart_edit add column screen_id uuid;
alter table stash_move add column screen_id uuid;
create index mark_by_screen on mark (canvas_id, screen_id, position);

-- Undo and redo for the ledgers that had none.
alter table chart_edit add column redoes uuid references chart_edit (id);
create index chart_edit_by_redoes on chart_edit (redoes) where redoes is not null;
alter table pot_event add column undoes uuid references pot_event (id);
alter table pot_event add column redoes uuid references pot_event (id);
create index pot_event_by_undoes on pot_event (undoes) where undoes is not null;
create index pot_event_by_redoes on pot_event (redoes) where redoes is not null;
alter table stash_move add column position bigint generated always as identity;
alter table stash_move add column undoes uuid references stash_move (id);
alter table stash_move add column redoes uuid references stash_move (id);
create index stash_move_by_undoes on stash_move (undoes) where undoes is not null;
create index stash_move_by_redoes on stash_move (redoes) where redoes is not null;
-- What the pot had before it was put away, and the stash move that took its leftover in: undo gives both back.
alter table pot_event add column slot text;
alter table pot_event add column storage_id uuid references storage (id) on delete set null;
alter table pot_event add column stash_move_id uuid references stash_move (id) on delete set null;
create index pot_event_by_storage on pot_event (storage_id) where storage_id is not null;
create index pot_event_by_stash_move on pot_event (stash_move_id) where stash_move_id is not null;
-- The colour that all cells of a mark have; null for several, or without a chart.
alter table mark add column line integer;
-- SHA-256 of the request, as in known_request: a mark is the commonest write, and a row of its own would cost as much again.
alter table mark add column digest text;
