-- What happened is stored as it happened: rows are only ever added. `position` keeps their order.
create table bag_entry (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  happened_at timestamptz not null,
  kind text not null check (kind in ('count', 'take back')),
  line integer,
  label text not null,
  drills integer not null check (drills > 0),
  undoes uuid references bag_entry (id),
  redoes uuid references bag_entry (id)
);
create index bag_entry_by_canvas on bag_entry (canvas_id, position);

create table sitting (
  id uuid primary key,
  canvas_id uuid not null references canvas (id) on delete cascade,
  started_at timestamptz not null
);
create index sitting_by_canvas on sitting (canvas_id, started_at);

create table sitting_end (
  sitting_id uuid primary key references sitting (id) on delete cascade,
  ended_at timestamptz not null,
  note text not null
);

-- cells: runs of cell indices as pairs of unsigned 32 bit numbers (start, length), little endian.
create table mark (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  sitting_id uuid references sitting (id) on delete set null,
  happened_at timestamptz not null,
  kind text not null check (kind in ('lay', 'lift')),
  cells bytea not null,
  drills integer not null check (drills >= 0),
  undoes uuid references mark (id),
  redoes uuid references mark (id)
);
create index mark_by_canvas on mark (canvas_id, position);

-- The sum of the marks, kept so that a page need not replay them. One bit a cell, lowest bit first.
create table progress_cache (
  canvas_id uuid primary key references canvas (id) on delete cascade,
  bitmap bytea not null,
  laid integer not null
);
