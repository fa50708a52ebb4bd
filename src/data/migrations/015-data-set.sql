-- Which collection of data this is; the marker beside the database (oculent.json) says the same.
create table data_set (
  id uuid primary key,
  made_at timestamptz not null
);
