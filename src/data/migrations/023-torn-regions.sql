-- Squares of regions that end where nothing ends: two bytes a square as base64, 1 for such a one; empty in readings from
-- before these were looked for.
alter table reading_result add column torn text not null default '';
