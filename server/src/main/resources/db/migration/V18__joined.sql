-- A session that was taken into another one: what belongs to it counts there until it is parted again.
alter table track_session add column joined_into uuid references track_session (id) on delete set null;
create index track_session_joined_into on track_session (joined_into);
