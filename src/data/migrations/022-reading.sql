-- Photos from which a chart is read. The photo itself may be dropped once it is read; what was read of it stays.
create table reading_photo (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  happened_at timestamptz not null,
  kind text not null check (kind in ('canvas', 'list')),
  name text not null,
  width integer not null check (width > 0),
  height integer not null check (height > 0),
  photo bytea,
  -- Places in pixels: four corners clockwise from the upper left, as x,y x,y x,y x,y.
  corners text,
  columns integer check (columns > 0),
  rows integer check (rows > 0),
  at_column integer check (at_column >= 0),
  at_row integer check (at_row >= 0),
  -- Corners of squares that were set by hand: column,row,x,y with spaces between.
  pins text not null,
  removed_at timestamptz
);
create index reading_photo_by_canvas on reading_photo (canvas_id, position);

-- What a photo was read as, anew with each reading: numbers as base64 of little-endian arrays, see core/reading/keptReading.
create table reading_result (
  id uuid primary key,
  photo_id uuid not null unique references reading_photo (id) on delete cascade,
  canvas_id uuid not null references canvas (id) on delete cascade,
  happened_at timestamptz not null,
  columns integer not null check (columns > 0),
  rows integer not null check (rows > 0),
  cell_px double precision not null,
  cells text not null,
  others text not null,
  doubt text not null,
  mesh text not null,
  -- Its squares as a plain grid, JPEG.
  photo bytea not null
);
create index reading_result_by_canvas on reading_result (canvas_id);

-- How each colour looks in print: its symbol as base64 of 16 × 16 floats, its tint as linear light.
create table reading_sample (
  canvas_id uuid not null references canvas (id) on delete cascade,
  line integer not null,
  happened_at timestamptz not null,
  origin text not null check (origin in ('list', 'example')),
  glyph text not null,
  tint jsonb not null,
  primary key (canvas_id, line)
);

-- What somebody said of squares that were in doubt; a ledger.
create table reading_answer (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  screen_id uuid,
  happened_at timestamptz not null,
  -- [[column, row, line], …]
  answers jsonb not null,
  undoes uuid unique references reading_answer (id) on delete cascade
);
create index reading_answer_by_canvas on reading_answer (canvas_id, position);

-- The chart that was made of it: which photo each square came from, run by run over so many columns.
create table reading_chart (
  canvas_id uuid primary key references canvas (id) on delete cascade,
  happened_at timestamptz not null,
  photos jsonb not null,
  columns integer not null check (columns > 0),
  origins text not null
);

-- Loose drills may be counted on a photo of a tray.
alter table bag_entry drop constraint bag_entry_how_check;
alter table bag_entry add constraint bag_entry_how_check check (how in ('nominal', 'counted', 'weighed', 'photographed'));
