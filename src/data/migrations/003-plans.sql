-- How a canvas is cut into sittings, and the tips on the user's pens.
create table section_plan (
  canvas_id uuid primary key references canvas (id) on delete cascade,
  block_columns integer not null check (block_columns > 0),
  block_rows integer not null check (block_rows > 0)
);

create table pen_tip (
  drills integer primary key check (drills > 0)
);
insert into pen_tip (drills) values (1), (3), (6), (9);
