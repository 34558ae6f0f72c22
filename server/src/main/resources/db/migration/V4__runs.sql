-- What was driven: runs, the files that came from them, and their laps.
create table run (
  id uuid primary key,
  owner_id uuid not null references account (id),
  reference_id uuid not null references reference (id),
  layout_version_id uuid not null references layout_version (id),
  revision integer not null,
  name varchar(100) not null,
  driven_at timestamptz not null,
  conditions varchar(10) not null,
  sheet_name varchar(100) not null,
  note varchar(2000) not null,
  version integer not null,
  created_at timestamptz not null
);
create index run_by_reference on run (reference_id, driven_at);

create table recording (
  id uuid primary key,
  owner_id uuid not null references account (id),
  run_id uuid not null references run (id),
  name varchar(200) not null,
  bytes bigint not null,
  digest varchar(64) not null,
  state varchar(12) not null,
  progress double precision not null,
  cancel boolean not null,
  mapping jsonb,
  report jsonb not null,
  problem jsonb,
  truth jsonb,
  token varchar(60),
  created_at timestamptz not null
);
create index recording_by_run on recording (run_id);
create index recording_by_digest on recording (owner_id, digest);

-- The file as it came, in compressed parts.
create table recording_part (
  recording_id uuid not null references recording (id) on delete cascade,
  number integer not null,
  owner_id uuid not null references account (id),
  body bytea not null,
  primary key (recording_id, number)
);
alter table recording_part alter column body set storage external;

create table driven_lap (
  id uuid primary key,
  owner_id uuid not null references account (id),
  run_id uuid not null references run (id),
  recording_id uuid references recording (id) on delete cascade,
  number integer not null,
  kind varchar(12) not null,
  counts boolean not null,
  lap_time double precision not null,
  started double precision not null,
  sectors jsonb not null,
  remark varchar(500) not null,
  note varchar(2000) not null,
  told boolean not null,
  said boolean not null,
  step double precision not null,
  times bytea not null,
  events jsonb not null
);
create index driven_lap_by_run on driven_lap (run_id, started);

create table lap_channels (
  lap_id uuid primary key references driven_lap (id) on delete cascade,
  owner_id uuid not null references account (id),
  body bytea not null
);
alter table lap_channels alter column body set storage external;

-- How files of a source were read, so that the next one is read alike.
create table mapping_memory (
  id uuid primary key,
  owner_id uuid not null references account (id),
  signature varchar(64) not null,
  mapping jsonb not null,
  unique (owner_id, signature)
);

create table corner_trial (
  id uuid primary key,
  owner_id uuid not null references account (id),
  reference_id uuid not null references reference (id),
  corner varchar(60) not null,
  first_way varchar(200) not null,
  second_way varchar(200) not null,
  marks jsonb not null,
  created_at timestamptz not null
);
create index corner_trial_by_reference on corner_trial (reference_id);

alter table revision add column evidence jsonb not null default '[]';

-- Table of db-scheduler, as its own script for PostgreSQL defines it.
create table scheduled_tasks (
  task_name text not null,
  task_instance text not null,
  task_data bytea,
  execution_time timestamp with time zone not null,
  picked boolean not null,
  picked_by text,
  last_success timestamp with time zone,
  last_failure timestamp with time zone,
  consecutive_failures int,
  last_heartbeat timestamp with time zone,
  version bigint not null,
  priority smallint,
  primary key (task_name, task_instance)
);
create index execution_time_idx on scheduled_tasks (execution_time);
create index last_heartbeat_idx on scheduled_tasks (last_heartbeat);
