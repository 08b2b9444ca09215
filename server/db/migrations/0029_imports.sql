-- What came in by a table: which entries are of which, so that they can be struck out together.
create table imports (
  id bigint generated always as identity primary key,
  kind text not null,
  name text not null,
  lines integer not null check (lines > 0),
  person_id integer not null references people (id),
  recorded_at timestamptz not null default now()
);
create table import_rows (
  id bigint generated always as identity primary key,
  import_id bigint not null references imports (id),
  target text not null,
  target_id bigint not null,
  unique (target, target_id)
);
create index import_rows_of_import on import_rows (import_id);

-- A long table on its way in: its lines in pieces, and how far it has come. Nothing of it is a record yet.
create table intake_stages (
  stage text primary key,
  done integer not null default 0,
  recorded_at timestamptz not null default now()
);
create table intake_pieces (
  stage text not null references intake_stages (stage) on delete cascade,
  nr integer not null,
  lines jsonb not null,
  primary key (stage, nr)
);
