-- A trial is of two real ways, reckoned when it is planned, and belongs to a session.
alter table corner_trial add column session_id uuid references track_session (id) on delete set null;
alter table corner_trial add column body jsonb;
alter table corner_trial add column taken varchar(1);
alter table corner_trial add column was jsonb;
create index corner_trial_by_session on corner_trial (session_id);

-- The two texts of a trial of before stay as its notes.
update corner_trial set body = jsonb_build_object(
  'corner', corner,
  'a', jsonb_build_object('source', 'WORDS', 'key', '', 'label', first_way),
  'b', jsonb_build_object('source', 'WORDS', 'key', '', 'label', second_way),
  'from', 1);

-- It belongs to the session in which the first of its laps was driven.
update corner_trial t set session_id = (
  select r.session_id
  from driven_lap l
  join run r on r.id = l.run_id
  where r.session_id is not null and jsonb_exists(t.marks, l.id::text)
  order by l.started limit 1);

alter table corner_trial alter column body set not null;
alter table corner_trial drop column corner;
alter table corner_trial drop column first_way;
alter table corner_trial drop column second_way;
