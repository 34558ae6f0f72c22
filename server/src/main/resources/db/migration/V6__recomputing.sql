-- By which method the line of a reference was computed; 0 is the one before there was a search.
alter table reference add column line_by integer not null default 0;
-- Whether what was before it was computed anew can be brought back.
alter table reference add column recomputed boolean not null default false;

-- A reference computed anew, for the driver to look at; once taken, what was before, to bring back.
create table recomputation (
  id uuid primary key,
  reference_id uuid not null references reference (id) on delete cascade,
  owner_id uuid not null references account (id),
  from_version integer not null,
  proposed jsonb not null,
  proposed_line bytea not null,
  before jsonb not null,
  before_line bytea not null,
  corners jsonb not null,
  made_at timestamptz not null,
  taken boolean not null,
  unique (reference_id, taken)
);
create index recomputation_by_owner on recomputation (owner_id);
