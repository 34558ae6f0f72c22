-- What was spoken instead of written: the sound of a line of a log, under that line's id.
create table spoken (
  id uuid primary key,
  owner_id uuid not null references account (id),
  session_id uuid not null references track_session (id) on delete cascade,
  type varchar(40) not null,
  sound bytea not null,
  received_at timestamptz not null
);
create index spoken_by_session on spoken (session_id);
create index spoken_by_owner on spoken (owner_id);
