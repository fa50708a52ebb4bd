-- Tells whoever listens that something happened to a canvas; the payload is its id, or `shelf` for what belongs to none.
create function tell_of_mark() returns trigger language plpgsql as $$
begin
  perform pg_notify('oculent', new.canvas_id::text);
  return null;
end $$;
create function tell_of_canvas() returns trigger language plpgsql as $$
begin
  perform pg_notify('oculent', new.id::text);
  return null;
end $$;
create function tell_of_shelf() returns trigger language plpgsql as $$
begin
  perform pg_notify('oculent', 'shelf');
  return null;
end $$;
create trigger mark_told after insert on mark for each row execute function tell_of_mark();
create trigger canvas_told after update of revision on canvas for each row execute function tell_of_canvas();
create function tell_of_deleted() returns trigger language plpgsql as $$
begin
  perform pg_notify('oculent', old.id::text);
  return null;
end $$;
create trigger canvas_deleted_told after delete or update of deleted_at on canvas
  for each row execute function tell_of_deleted();
create trigger shelf_told after insert or delete or update of title, deleted_at, arriving on canvas
  for each statement execute function tell_of_shelf();
create trigger stash_told after insert or update or delete on stash_move for each statement execute function tell_of_shelf();
create trigger storage_told after insert or update or delete on storage for each statement execute function tell_of_shelf();
create trigger device_told after insert or update of name or delete on device for each statement execute function tell_of_shelf();
create trigger home_network_told after insert or update on home_network for each statement execute function tell_of_shelf();
create trigger session_told after insert or delete on device_session for each statement execute function tell_of_shelf();
