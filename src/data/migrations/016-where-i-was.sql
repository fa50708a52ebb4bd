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
