-- Events, their sessions on the track, and what the driver said of each before any data came.
create table event (
  id uuid primary key,
  owner_id uuid not null references account (id),
  name varchar(100) not null,
  zone varchar(60) not null,
  version integer not null,
  created_at timestamptz not null
);
create index event_by_owner on event (owner_id);

create table track_session (
  id uuid primary key,
  owner_id uuid not null references account (id),
  event_id uuid not null references event (id) on delete cascade,
  reference_id uuid references reference (id) on delete set null,
  body jsonb not null,
  starts_at timestamptz not null,
  -- Name that it keeps in calendars, and how often it has changed since.
  calendar_uid varchar(200) not null,
  sequence integer not null,
  -- What the brief said when its driver read it, to tell what has changed since.
  brief_read jsonb,
  brief_read_at timestamptz,
  -- Whether it was made from what was driven, and not planned.
  made boolean not null,
  removed_at timestamptz,
  version integer not null,
  created_at timestamptz not null,
  changed_at timestamptz not null
);
create index track_session_by_owner on track_session (owner_id, starts_at);
create index track_session_by_event on track_session (event_id);
create index track_session_by_reference on track_session (reference_id);

-- Lines of a log have the ids that the device gave them: sent twice, they are there once.
create table session_line (
  id uuid primary key,
  owner_id uuid not null references account (id),
  session_id uuid not null references track_session (id) on delete cascade,
  device varchar(60) not null,
  said_at timestamptz not null,
  body jsonb not null,
  removed boolean not null,
  received_at timestamptz not null
);
create index session_line_by_session on session_line (session_id);
create index session_line_by_owner on session_line (owner_id);

alter table run add column session_id uuid references track_session (id) on delete set null;
create index run_by_session on run (session_id);

-- What was driven before there were sessions: runs of one reference with less than three hours
-- between them were one session, and those of one circuit on one day one event.
create temporary table driven on commit drop as
  select r.id as run_id, r.owner_id, r.reference_id, r.driven_at, c.zone, c.name as circuit,
    (r.driven_at at time zone c.zone)::date as day,
    sum(case when r.driven_at - before.at < interval '3 hours' then 0 else 1 end)
      over (partition by r.reference_id order by r.driven_at, r.id) as block
  from run r
  join layout_version l on l.id = r.layout_version_id
  join circuit c on c.id = l.circuit_id
  left join lateral (
    select max(q.driven_at) as at from run q
    where q.reference_id = r.reference_id
      and (q.driven_at, q.id) < (r.driven_at, r.id)
  ) before on true
  where r.removed_at is null;

create temporary table block on commit drop as
  select gen_random_uuid() as id, owner_id, reference_id, block, min(driven_at) as began,
    max(driven_at) as ended, min(zone) as zone, min(circuit) as circuit, min(day) as day,
    count(*) as runs
  from driven group by owner_id, reference_id, block;

create temporary table days on commit drop as
  select gen_random_uuid() as id, owner_id, circuit, min(zone) as zone, day
  from block group by owner_id, circuit, day;

insert into event (id, owner_id, name, zone, version, created_at)
  select id, owner_id, left(circuit || ', ' || to_char(day, 'YYYY-MM-DD'), 100), zone, 0, now()
  from days;

insert into track_session (id, owner_id, event_id, reference_id, body, starts_at, calendar_uid,
    sequence, made, version, created_at, changed_at)
  select b.id, b.owner_id, d.id, b.reference_id,
    jsonb_build_object(
      'kind', 'TEST',
      'name', case when b.runs = 1 then 'Driven' else 'Driven, ' || b.runs || ' runs' end,
      'timing', jsonb_build_object(
        'start', jsonb_build_object(
          'wall', to_char(b.began at time zone b.zone, 'YYYY-MM-DD"T"HH24:MI:SS'),
          'zone', b.zone),
        'minutes', least(1440, 20 + ceil(extract(epoch from b.ended - b.began) / 60))::int,
        'later', 0,
        'state', 'ON'),
      'done', jsonb_build_array('OUT')),
    b.began, b.id || '@marvek', 0, true, 0, now(), now()
  from block b
  join days d on d.owner_id = b.owner_id and d.circuit = b.circuit and d.day = b.day;

update run set session_id = b.id
  from driven v join block b on b.reference_id = v.reference_id and b.block = v.block
  where v.run_id = run.id;
