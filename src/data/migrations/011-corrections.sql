-- A colour's number is its identity and is never used again; where it stands in the list is told by `position`.
alter table legend_line add column position integer;
update legend_line set position = line;
alter table legend_line alter column position set not null;
alter table canvas add column next_line integer not null default 1 check (next_line > 0);
update canvas c set next_line = 1 + greatest(
  coalesce((select max(line) from legend_line l where l.canvas_id = c.id), 0),
  coalesce((select max(line) from bag_entry b where b.canvas_id = c.id), 0),
  coalesce((select max(line) from pot_event p where p.canvas_id = c.id), 0),
  coalesce((select max(line) from request_state r where r.canvas_id = c.id), 0),
  coalesce((select max(line) from mark m where m.canvas_id = c.id), 0));
-- Whether the sheet lists a colour, or the user chose it (another finish): the seller owes only the first.
alter table legend_line add column origin text not null default 'sheet' check (origin in ('sheet', 'own'));

-- Corrections of the colour list and of the canvas's own facts, with what stood there before.
create table sheet_edit (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  screen_id uuid,
  happened_at timestamptz not null,
  kind text not null check (kind in ('list', 'canvas')),
  before jsonb not null,
  after jsonb not null,
  undoes uuid references sheet_edit (id),
  redoes uuid references sheet_edit (id)
);
create index sheet_edit_by_canvas on sheet_edit (canvas_id, position);
create index sheet_edit_by_undoes on sheet_edit (undoes) where undoes is not null;
create index sheet_edit_by_redoes on sheet_edit (redoes) where redoes is not null;

-- What the bags of a kit carry, once it is known; a number that could be both is asked about until then.
alter table canvas add column bags_carry text check (bags_carry in ('codes', 'key numbers'));

-- A bag can be changed, removed and brought back; and where it came from.
alter table bag_entry drop constraint bag_entry_kind_check;
alter table bag_entry add constraint bag_entry_kind_check
  check (kind in ('count', 'take back', 'assign', 'change', 'remove'));
alter table bag_entry add column origin text not null default 'kit'
  check (origin in ('kit', 'stash', 'seller', 'bought'));
update bag_entry b set origin = 'stash' where exists (select 1 from stash_move m where m.bag_id = b.id);
update bag_entry b set origin = 'stash'
where b.kind <> 'count' and exists (
  select 1 from bag_entry s where s.id in (b.undoes, b.subject) and s.origin = 'stash');

-- How the heap stands, kept so that the shelf need not read every bag.
alter table canvas add column bags_counted integer not null default 0;
alter table canvas add column bags_to_find integer not null default 0;
with bag as (
  select canvas_id, line, sum(case kind when 'take back' then -1 else 1 end)::int as bags,
         sum(case when subject is not null then 0 when kind = 'count' then 1 else -1 end)::int as counted
  from bag_entry group by canvas_id, line
)
update canvas c set
  bags_counted = coalesce((select sum(counted) from bag where bag.canvas_id = c.id), 0),
  bags_to_find = coalesce((
    select sum(greatest(0, l.packets - coalesce(b.bags, 0))) from legend_line l
    left join bag b on b.canvas_id = l.canvas_id and b.line = l.line where l.canvas_id = c.id), 0);

-- Drills that a finish took off its colour's count, which may be fewer than its squares; undo gives just these back.
alter table chart_edit add column moved integer check (moved >= 0);

-- A deleted canvas is kept for a while; its pots are free meanwhile, and come back with it where they still are.
alter table canvas add column deleted_at timestamptz;
alter table canvas add column kept_pots jsonb;

-- Colours that ran out at the bench, with what was left then and what was still to lay. The last report of a colour counts.
create table ran_out (
  id uuid primary key,
  position bigint generated always as identity,
  canvas_id uuid not null references canvas (id) on delete cascade,
  line integer not null check (line > 0),
  happened_at timestamptz not null,
  left_drills integer not null check (left_drills >= 0),
  to_lay integer not null check (to_lay >= 0)
);
create index ran_out_by_canvas on ran_out (canvas_id, position);
