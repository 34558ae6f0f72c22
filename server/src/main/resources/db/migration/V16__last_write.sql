-- What the device that wrote the working copy calls that writing, so that it knows it again.
alter table reference add column last_write uuid;
