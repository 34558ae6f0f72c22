-- A share is given to an address, which tells nobody whether somebody has it. It opens once a person
-- has that address; who came after it was given waits for the owner's word.
alter table share alter column person_id drop not null;
alter table share add column email varchar(200);
update share set email = (select email from account where id = person_id);
alter table share alter column email set not null;
alter table share add column confirmed boolean not null default true;
alter table share add column seen_at timestamptz;
update share set seen_at = created_at;
alter table share add unique (reference_id, email);
create index share_by_email on share (email) where person_id is null;

-- Links that work once: to make an account, or to set a password anew. Only their digest is kept.
create table one_time_link (
  id uuid primary key,
  purpose varchar(10) not null,
  digest varchar(64) not null unique,
  owner_id uuid references account (id),
  expires_at timestamptz not null,
  used_at timestamptz
);
create index one_time_link_by_owner on one_time_link (owner_id);

-- Where an account has signed in from, so that guessing elsewhere does not lock its owner out.
create table known_place (
  owner_id uuid not null references account (id) on delete cascade,
  address varchar(64) not null,
  at timestamptz not null,
  primary key (owner_id, address)
);

create table sign_up (
  id bigint generated always as identity primary key,
  address varchar(64) not null,
  at timestamptz not null
);
create index sign_up_by_time on sign_up (at);

-- When an account that its owner has asked to delete is deleted for good.
alter table account add column leaves_at timestamptz;

-- What its owner has put into the basket; after 30 days it is deleted for good.
alter table reference add column removed_at timestamptz;
alter table layout_version add column removed_at timestamptz;
alter table vehicle add column removed_at timestamptz;
alter table run add column removed_at timestamptz;
alter table photo add column removed_at timestamptz;
create index lap_channels_by_owner on lap_channels (owner_id);
create index recording_by_owner on recording (owner_id);
create index photo_by_owner on photo (owner_id);
create index layout_road_by_owner on layout_road (owner_id);
create index run_by_owner on run (owner_id, created_at);
create index reference_by_layout on reference (layout_version_id);
create index reference_by_vehicle on reference (vehicle_id);
