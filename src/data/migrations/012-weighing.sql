-- Bags weighed against one sample, or with one empty bag, err together: a list of {source, spread}, spread in drills.
alter table bag_entry add column shared_errors jsonb not null default '[]';
