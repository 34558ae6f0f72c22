-- How many corners of the lap as planned cannot be made as they are written. Of what was kept before
-- it is not known until it is saved again.
alter table reference add column unmade integer not null default 0;
alter table revision add column unmade integer not null default 0;
