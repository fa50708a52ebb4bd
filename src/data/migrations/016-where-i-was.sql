-- The section and the colour that were in front last, at whatever screen. No ledger: only the last one matters.
create table in_front (
  canvas_id uuid primary key references canvas (id) on delete cascade,
  section integer not null check (section > 0),
  line integer,
  changed_at timestamptz not null
);

-- Laid before the canvas was kept here: it counts for what is laid, not for a day, a sitting or the pace.
alter table mark add column before boolean not null default false;

-- Some work straight from the bags; then no pots are asked for.
alter table canvas add column no_cases boolean not null default false;

-- Without a chart nobody knows which square has which colour: a colour is ticked where it is done, piece by piece. A piece
-- is kept by its place, because sections can be cut again; of two ticks of a place the later one counts.
create table area_tick (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  happened_at timestamptz not null,
  line integer not null,
  x integer not null,
  y integer not null,
  width integer not null check (width > 0),
  height integer not null check (height > 0),
  done boolean not null
);
create index area_tick_by_canvas on area_tick (canvas_id, position);
