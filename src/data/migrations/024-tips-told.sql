-- Other screens are told of tips, which are kept as a whole: who does not know of one would take it out again.
create trigger tips_told after insert or update or delete on pen_tip for each statement execute function tell_of_shelf();
-- And of what a leftover is, not only of how much there is of it.
create trigger stash_item_told after update on stash_item for each statement execute function tell_of_shelf();
