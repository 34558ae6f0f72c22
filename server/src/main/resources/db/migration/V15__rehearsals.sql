-- What was answered and driven by heart. Lines have the ids that the device gave them.
create table rehearsed (
  id uuid primary key,
  owner_id uuid not null references account (id),
  reference_id uuid not null references reference (id),
  done_at timestamptz not null,
  body jsonb not null,
  received_at timestamptz not null
);
create index rehearsed_by_reference on rehearsed (owner_id, reference_id, done_at);
