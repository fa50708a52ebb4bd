-- A lift may say whether its drills came off by themselves; null leaves it to the time between laying and lifting.
alter table mark add column popped boolean;
-- Lifts are few among many marks, and what has popped follows from them.
create index mark_lifts on mark (canvas_id, position) where kind = 'lift' and undoes is null;
-- What was laid by when, and the last mark before a moment.
create index mark_by_moment on mark (canvas_id, happened_at);
-- The newest of what came without a screen: an index that begins with nothing gives no order.
create index mark_without_screen on mark (canvas_id, position) where screen_id is null;

-- By when a canvas shall be done. No ledger: only the last one matters.
create table progress_wish (
  canvas_id uuid primary key references canvas (id) on delete cascade,
  happened_at timestamptz not null,
  finish_by text not null check (finish_by ~ '^\d{4}-\d{2}-\d{2}$')
);

-- Photos of the work, by the day on which they were taken; what is removed is kept for a while.
create table canvas_photo (
  id uuid primary key,
  canvas_id uuid not null references canvas (id) on delete cascade,
  happened_at timestamptz not null,
  taken_on text not null check (taken_on ~ '^\d{4}-\d{2}-\d{2}$'),
  note text not null,
  photo bytea not null,
  removed_at timestamptz
);
create index canvas_photo_by_canvas on canvas_photo (canvas_id, taken_on);

-- The end of a canvas as it was told last; each row holds all of it.
create table finish_entry (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  happened_at timestamptz not null,
  started_on text check (started_on ~ '^\d{4}-\d{2}-\d{2}$'),
  finished_on text check (finished_on ~ '^\d{4}-\d{2}-\d{2}$'),
  minutes integer check (minutes >= 0),
  checked jsonb not null,
  sealing text not null check (sealing in ('open', 'no', 'yes')),
  border_mm double precision not null check (border_mm >= 0),
  frame_width_mm double precision check (frame_width_mm > 0),
  frame_height_mm double precision check (frame_height_mm > 0),
  notes text not null
);
create index finish_entry_by_canvas on finish_entry (canvas_id, position);
