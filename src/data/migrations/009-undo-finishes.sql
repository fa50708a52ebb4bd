-- Which edits moved drills to another finish, so that they can be taken back with their counts.
alter table chart_edit add column kind text not null default 'repair' check (kind in ('repair', 'finish'));
alter table chart_edit add column undoes uuid references chart_edit (id);
