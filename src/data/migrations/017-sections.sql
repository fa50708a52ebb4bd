-- Ledger of cuts: each row is a whole plan of sections, and the newest that stands is the one in use. Before the first the
-- grid of section_plan holds. A plan is for the size and the panels that it was made for; with others it does not hold.
create table section_cut (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  screen_id uuid,
  happened_at timestamptz not null,
  block_columns integer check (block_columns > 0),
  block_rows integer check (block_rows > 0),
  pieces text,
  sections integer not null check (sections > 0),
  way text not null,
  corner text not null,
  focal_x double precision,
  focal_y double precision,
  made_for text not null,
  undoes uuid references section_cut (id),
  redoes uuid references section_cut (id),
  check ((pieces is null) = (block_columns is not null and block_rows is not null))
);
create index section_cut_by_canvas on section_cut (canvas_id, position);
create index section_cut_by_undoes on section_cut (undoes) where undoes is not null;
create index section_cut_by_redoes on section_cut (redoes) where redoes is not null;

-- How the user works on a canvas: minutes of a sitting, hand, cover, light pad and so on. No ledger: the last one holds.
create table section_wish (
  canvas_id uuid primary key references canvas (id) on delete cascade,
  minutes double precision not null,
  hand text not null check (hand in ('right', 'left')),
  cover text not null check (cover in ('fold', 'cut', 'sheets')),
  sheet_width_mm double precision not null,
  sheet_height_mm double precision not null,
  overlap_mm double precision not null,
  roll_mm double precision,
  pad text not null,
  pad_long_mm double precision not null,
  pad_short_mm double precision not null,
  reach_mm double precision,
  window_mm double precision
);

-- A colour can be done in a section that is no rectangle.
alter table area_tick add column rects jsonb;
