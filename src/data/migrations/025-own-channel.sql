-- Several programs may keep a schema each in one database: each tells on a channel of its own. A hash, for the names of
-- channels are short.
create or replace function tell_of_mark() returns trigger language plpgsql as $$
begin
  perform pg_notify('oculent_' || md5(tg_table_schema), new.canvas_id::text);
  return null;
end $$;
create or replace function tell_of_canvas() returns trigger language plpgsql as $$
begin
  perform pg_notify('oculent_' || md5(tg_table_schema), new.id::text);
  return null;
end $$;
create or replace function tell_of_shelf() returns trigger language plpgsql as $$
begin
  perform pg_notify('oculent_' || md5(tg_table_schema), 'shelf');
  return null;
end $$;
create or replace function tell_of_deleted() returns trigger language plpgsql as $$
begin
  perform pg_notify('oculent_' || md5(tg_table_schema), old.id::text);
  return null;
end $$;
