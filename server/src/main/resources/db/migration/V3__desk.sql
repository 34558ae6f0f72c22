-- References open to others, and what coaches pin to them.
create table share (
  id uuid primary key,
  owner_id uuid not null references account (id),
  reference_id uuid not null references reference (id),
  person_id uuid not null references account (id),
  role varchar(10) not null,
  created_at timestamptz not null,
  unique (reference_id, person_id)
);
create index share_by_person on share (person_id);

create table remark (
  id uuid primary key,
  owner_id uuid not null references account (id),
  reference_id uuid not null references reference (id),
  author_id uuid not null references account (id),
  corner varchar(60) not null,
  kind varchar(20),
  text varchar(2000) not null,
  proposed jsonb,
  was jsonb,
  state varchar(10) not null,
  created_at timestamptz not null,
  decided_at timestamptz
);
create index remark_by_reference on remark (reference_id, created_at);
