-- The driver's own pace at which a reference was computed; none for all of the grip.
alter table reference add column pace jsonb;
