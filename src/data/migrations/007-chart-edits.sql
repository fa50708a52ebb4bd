-- Repairs of a chart, as they happened. `cells` are runs as in a mark; `before` tells what stood there.
create table chart_edit (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  happened_at timestamptz not null,
  edits jsonb not null,
  before jsonb not null
);
create index chart_edit_by_canvas on chart_edit (canvas_id, position);
