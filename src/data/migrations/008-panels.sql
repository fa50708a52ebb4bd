-- How the user cuts a large chart into panels of his own. Cuts are numbers of cells from the left or upper edge.
create table panel_plan (
  canvas_id uuid primary key references canvas (id) on delete cascade,
  column_cuts jsonb not null,
  row_cuts jsonb not null,
  overlap integer not null check (overlap >= 0),
  margin_mm double precision not null check (margin_mm >= 0),
  reach_width_cm double precision check (reach_width_cm > 0),
  reach_height_cm double precision check (reach_height_cm > 0)
);
