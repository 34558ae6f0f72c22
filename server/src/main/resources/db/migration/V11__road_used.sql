-- Edges that were opened and gates that were set when a reference was computed; none for the road alone.
alter table reference add column used jsonb;
-- Whether its line was laid anew on a stretch only, after something there was changed.
alter table reference add column laid_in_part boolean not null default false;
