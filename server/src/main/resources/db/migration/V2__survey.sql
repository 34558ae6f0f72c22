-- One row for each thing that a survey has found; its body is the thing as the interface sees it.
create table survey_item (
  id uuid primary key,
  owner_id uuid not null references account (id),
  layout_version_id uuid not null references layout_version (id),
  item_id varchar(60) not null,
  sort varchar(20) not null,
  body jsonb not null,
  version integer not null,
  unique (layout_version_id, item_id)
);

insert into survey_item (id, owner_id, layout_version_id, item_id, sort, body, version)
select gen_random_uuid(), owner_id, layout_version_id, id::text, 'LANDMARK',
  jsonb_build_object('id', id::text, 'kind', kind, 'label', label, 'station', station,
    'left', left_side, 'corner', corner, 'out', 3, 'height', 1.4, 'permanence', 'FIXED',
    'readable', true, 'noted', null, 'note', '', 'photo', ''), 1
from landmark;
drop table landmark;

-- Changes already applied, so that one sent twice is applied once.
create table survey_change (
  id uuid primary key,
  owner_id uuid not null references account (id),
  layout_version_id uuid not null references layout_version (id),
  applied_at timestamptz not null
);
create index survey_change_by_layout on survey_change (layout_version_id);

create table photo (
  id uuid primary key,
  owner_id uuid not null references account (id),
  layout_version_id uuid not null references layout_version (id),
  jpeg bytea not null,
  created_at timestamptz not null
);
create index photo_by_layout on photo (layout_version_id);

alter table layout_version
  add column latitude double precision,
  add column longitude double precision,
  add column altitude double precision not null default 0,
  add column corners_version integer not null default 1,
  add column changes jsonb not null default '[]',
  add column reason varchar(500) not null default '';

alter table account add column corner_words varchar(10) not null default 'NUMBERS';

create table setup_sheet (
  id uuid primary key,
  owner_id uuid not null references account (id),
  vehicle_id uuid not null references vehicle (id),
  sheet jsonb not null,
  version integer not null,
  created_at timestamptz not null
);
create index setup_sheet_by_vehicle on setup_sheet (vehicle_id);

alter table vehicle add column next_sheet_id uuid;

alter table reference
  add column ground jsonb not null default '[]',
  add column sheet_id uuid,
  add column sheet_version integer not null default 0,
  add column sheet jsonb,
  add column doubts jsonb not null default '[]';

alter table revision add column sheet_name varchar(100) not null default '';
