create table account (
  id uuid primary key,
  email varchar(200) not null unique,
  name varchar(100) not null,
  password varchar(200) not null,
  speed_unit varchar(10) not null default 'KMH',
  length_unit varchar(10) not null default 'M',
  theme varchar(10) not null default 'PAPER',
  created_at timestamptz not null
);

create table sign_in_failure (
  id bigint generated always as identity primary key,
  email varchar(200) not null,
  address varchar(64) not null,
  at timestamptz not null
);
create index sign_in_failure_by_email on sign_in_failure (email, at);
create index sign_in_failure_by_address on sign_in_failure (address, at);

create table circuit (
  id uuid primary key,
  owner_id uuid not null references account (id),
  name varchar(100) not null,
  zone varchar(60) not null,
  created_at timestamptz not null
);
create index circuit_by_owner on circuit (owner_id);

create table layout_version (
  id uuid primary key,
  owner_id uuid not null references account (id),
  circuit_id uuid not null references circuit (id),
  layout_name varchar(100) not null,
  number integer not null,
  valid_from date not null,
  length double precision not null,
  corner_count integer not null,
  corners jsonb not null,
  remarks jsonb not null,
  source_name varchar(200) not null,
  created_at timestamptz not null,
  unique (circuit_id, layout_name, number)
);
create index layout_version_by_owner on layout_version (owner_id);

create table layout_road (
  layout_version_id uuid primary key references layout_version (id),
  owner_id uuid not null references account (id),
  road bytea not null,
  source bytea not null
);

create table landmark (
  id uuid primary key,
  owner_id uuid not null references account (id),
  layout_version_id uuid not null references layout_version (id),
  kind varchar(20) not null,
  label varchar(60) not null,
  station double precision not null,
  left_side boolean not null,
  corner varchar(20) not null,
  version integer not null
);
create index landmark_by_layout on landmark (layout_version_id);

create table vehicle (
  id uuid primary key,
  owner_id uuid not null references account (id),
  name varchar(100) not null,
  based_on varchar(60) not null,
  numbers jsonb not null,
  version integer not null,
  created_at timestamptz not null
);
create index vehicle_by_owner on vehicle (owner_id);

create table reference (
  id uuid primary key,
  owner_id uuid not null references account (id),
  layout_version_id uuid not null references layout_version (id),
  vehicle_id uuid not null references vehicle (id),
  vehicle_version integer not null,
  name varchar(100) not null,
  vehicle_numbers jsonb not null,
  line bytea not null,
  desk_version integer not null,
  lap_time double precision not null,
  working jsonb not null,
  based_on_revision integer not null,
  changed boolean not null,
  version integer not null,
  created_at timestamptz not null,
  changed_at timestamptz not null
);
create index reference_by_owner on reference (owner_id);

create table revision (
  id uuid primary key,
  owner_id uuid not null references account (id),
  reference_id uuid not null references reference (id),
  number integer not null,
  based_on integer not null,
  reason varchar(500) not null,
  content jsonb not null,
  vehicle_numbers jsonb not null,
  lap_time double precision not null,
  created_at timestamptz not null,
  unique (reference_id, number)
);
create index revision_by_owner on revision (owner_id);

-- Tables of Spring Session JDBC, as its own script for PostgreSQL defines them.
create table spring_session (
  primary_id char(36) not null,
  session_id char(36) not null,
  creation_time bigint not null,
  last_access_time bigint not null,
  max_inactive_interval int not null,
  expiry_time bigint not null,
  principal_name varchar(100),
  constraint spring_session_pk primary key (primary_id)
);
create unique index spring_session_ix1 on spring_session (session_id);
create index spring_session_ix2 on spring_session (expiry_time);
create index spring_session_ix3 on spring_session (principal_name);

create table spring_session_attributes (
  session_primary_id char(36) not null,
  attribute_name varchar(200) not null,
  attribute_bytes bytea not null,
  constraint spring_session_attributes_pk primary key (session_primary_id, attribute_name),
  constraint spring_session_attributes_fk foreign key (session_primary_id) references spring_session (primary_id) on delete cascade
);
