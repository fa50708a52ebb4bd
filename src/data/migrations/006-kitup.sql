-- Cases, strips, bottles and baggies; they belong to the user and outlive any canvas.
create table storage (
  id uuid primary key,
  name text not null,
  packing_share double precision not null check (packing_share > 0 and packing_share <= 1),
  -- The trays with their slots, as docs/formats.md describes them.
  trays jsonb not null,
  created_at timestamptz not null
);

-- How the colours of a canvas are kept, and what the last allotment reached.
create table kitup_plan (
  canvas_id uuid primary key references canvas (id) on delete cascade,
  colour_order text not null,
  leave_rule text not null,
  goals jsonb not null,
  results jsonb not null
);
create table kitup_storage (
  canvas_id uuid not null references canvas (id) on delete cascade,
  storage_id uuid not null references storage (id) on delete cascade,
  position integer not null,
  primary key (canvas_id, storage_id)
);

-- A slot holds one colour of one canvas.
create table allotment (
  canvas_id uuid not null references canvas (id) on delete cascade,
  line integer not null check (line > 0),
  storage_id uuid not null references storage (id) on delete cascade,
  slot text not null,
  locked boolean not null,
  primary key (canvas_id, line),
  unique (storage_id, slot)
);

-- Pots are filled when the kit is sorted, taken back when that was a mistake, and put away when the canvas is done.
create table pot_event (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  line integer not null check (line > 0),
  happened_at timestamptz not null,
  kind text not null check (kind in ('fill', 'take back', 'put away')),
  -- What went into the stash.
  drills integer not null default 0 check (drills >= 0)
);
create index pot_event_by_canvas on pot_event (canvas_id, position);

-- Symbols drawn by hand or cut from a picture, by colour, so that a corrected sheet keeps them.
create table symbol_drawing (
  canvas_id uuid not null references canvas (id) on delete cascade,
  code text not null,
  finish text not null,
  path text not null,
  primary key (canvas_id, code, finish)
);

-- Lids that carry a warning: which other colour this one is taken for.
create table lid_mark (
  canvas_id uuid not null references canvas (id) on delete cascade,
  line integer not null check (line > 0),
  other_line integer not null check (other_line > 0),
  primary key (canvas_id, line)
);

-- The label sheets as the user measured them, one a format.
create table label_sheet (
  format text primary key,
  sheet jsonb not null
);
