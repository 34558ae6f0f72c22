-- Coaches who may see what was felt and said of one session. It goes with the share that makes them
-- a coach, and counts for the person who had it then only.
create table session_let_in (
  id uuid primary key,
  owner_id uuid not null references account (id),
  session_id uuid not null references track_session (id) on delete cascade,
  share_id uuid not null references share (id) on delete cascade,
  person_id uuid not null references account (id) on delete cascade,
  unique (session_id, share_id)
);
create index session_let_in_by_owner on session_let_in (owner_id);
create index session_let_in_by_share on session_let_in (share_id);
create index session_let_in_by_person on session_let_in (person_id);
