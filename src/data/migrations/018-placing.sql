-- What a tip is made for, which pen it sits on, and whether it is worn: one size may be there twice.
alter table pen_tip drop constraint pen_tip_pkey;
alter table pen_tip add column shape text not null default 'both' check (shape in ('square', 'round', 'both'));
alter table pen_tip add column pen text not null default '';
alter table pen_tip add column worn boolean not null default false;
alter table pen_tip add primary key (drills, shape, pen);

-- How the user likes to lay on a canvas. No ledger: the last one holds.
create table placing_wish (
  canvas_id uuid primary key references canvas (id) on delete cascade,
  goal text not null,
  direction text not null,
  turn_worth integer not null check (turn_worth >= 0),
  staggered boolean not null,
  passes text not null,
  tip_by_tip boolean not null,
  singles_above double precision,
  longest integer check (longest > 0),
  edge_singles boolean not null,
  school text not null,
  own_order jsonb not null
);
