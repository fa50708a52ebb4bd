-- How the drills of a bag are known, bags that are assigned to a line later, and pieces thrown out.
alter table bag_entry add column how text not null default 'nominal' check (how in ('nominal', 'counted', 'weighed'));
alter table bag_entry add column spread double precision;
-- The bag that an assignment (or its undoing) is about.
alter table bag_entry add column subject uuid references bag_entry (id);
alter table bag_entry drop constraint bag_entry_kind_check;
alter table bag_entry add constraint bag_entry_kind_check check (kind in ('count', 'take back', 'assign'));

create table trash_record (
  id uuid primary key,
  canvas_id uuid not null references canvas (id) on delete cascade,
  happened_at timestamptz not null,
  handled integer not null check (handled > 0),
  thrown integer not null check (thrown >= 0 and thrown <= handled)
);
create index trash_record_by_canvas on trash_record (canvas_id, happened_at);
