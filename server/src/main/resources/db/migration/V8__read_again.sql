-- By which version of the reading the laps of a recording were made; 0 is from before it was noted.
alter table recording add column read_by integer not null default 0;
