-- A canvas on the shelf, its legend and its chart.
create table canvas (
  id uuid primary key,
  title text not null,
  shape text not null check (shape in ('square', 'round')),
  pitch_mm double precision not null check (pitch_mm > 0),
  width integer not null check (width > 0),
  height integer not null check (height > 0),
  panels integer not null default 1 check (panels > 0),
  symbols_printed boolean not null default true,
  packet_drills integer not null default 200 check (packet_drills > 0),
  created_at timestamptz not null
);

create table legend_line (
  canvas_id uuid not null references canvas (id) on delete cascade,
  line integer not null check (line > 0),
  key_number text not null,
  symbol text,
  code text not null,
  name text not null,
  hex text,
  finish text not null,
  needed_drills integer not null check (needed_drills >= 0),
  packets integer not null check (packets >= 0),
  primary key (canvas_id, line)
);

-- cells: unsigned 16 bit, little endian, row-major; 0 is "no drill here", n is legend line n.
create table chart (
  canvas_id uuid primary key references canvas (id) on delete cascade,
  cells bytea not null,
  drills integer not null
);
