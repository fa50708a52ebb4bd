-- A colour may have several pots, in the order in which they are filled.
alter table allotment add column nth integer not null default 1 check (nth > 0);
alter table allotment drop constraint allotment_pkey;
alter table allotment add primary key (canvas_id, line, nth);
-- Whether pots left over take what overflows, and what the plan would reach in the other way.
alter table kitup_plan add column several boolean not null default false;
alter table kitup_plan add column offer jsonb;

-- The slots that were freed when a pot was put away; a colour may have had several.
alter table pot_event add column freed jsonb not null default '[]';
update pot_event set freed = jsonb_build_array(jsonb_build_object('storageId', storage_id, 'slot', slot))
where storage_id is not null and slot is not null;
drop index pot_event_by_storage;
alter table pot_event drop column storage_id, drop column slot;
-- The leftover that was put away can be corrected.
alter table pot_event drop constraint pot_event_kind_check;
alter table pot_event add constraint pot_event_kind_check
  check (kind in ('fill', 'take back', 'put away', 'amount'));
