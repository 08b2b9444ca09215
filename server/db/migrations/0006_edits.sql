-- Every edit of a record: who, when, and what stood there before. Checks and triggers come from shared/logs.ts.
create table edits (
  id bigint primary key generated always as identity,
  kind text not null,
  record_id integer not null,
  version integer not null check (version > 1),
  before jsonb not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  unique (kind, record_id, version)
);
