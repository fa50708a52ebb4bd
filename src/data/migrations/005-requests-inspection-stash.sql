-- What was asked of the sender, the state of a canvas out of its box, and leftovers of other kits.
create table request_state (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  line integer not null check (line > 0),
  happened_at timestamptz not null,
  state text not null check (state in ('asked', 'promised', 'arrived'))
);
create index request_state_by_canvas on request_state (canvas_id, position);

create table inspection_entry (
  id uuid primary key,
  canvas_id uuid not null references canvas (id) on delete cascade,
  happened_at timestamptz not null,
  kind text not null,
  note text not null,
  width_cm double precision,
  height_cm double precision,
  photo bytea
);
create table inspection_withdrawal (
  entry_id uuid primary key references inspection_entry (id) on delete cascade,
  happened_at timestamptz not null
);

-- Leftovers come and go: what is there of an item is the sum of its moves.
create table stash_item (
  id uuid primary key,
  code text not null,
  name text not null,
  hex text,
  finish text not null,
  shape text not null check (shape in ('square', 'round')),
  created_at timestamptz not null
);
create table stash_move (
  id uuid primary key,
  item_id uuid not null references stash_item (id) on delete cascade,
  happened_at timestamptz not null,
  drills integer not null,
  -- The bag that the drills became, where they covered a shortage.
  bag_id uuid references bag_entry (id) on delete set null
);
create index stash_move_by_item on stash_move (item_id);
