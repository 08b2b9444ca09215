-- What is wrong with a print: cases, what was found of them, and what it was.
create table cases (
  id bigint generated always as identity primary key,
  head_id integer not null references heads,
  nozzle_id integer references nozzles,
  spool_id integer references spools,
  material_id integer references materials,
  run_id bigint references runs,
  -- the case that was closed before, whose cause was put right and whose print still shows it
  after_id bigint references cases,
  picture text references blobs (sha256),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index cases_of_head on cases (head_id, occurred_at desc);

-- The latest standing one of a sign or a test counts.
create table case_findings (
  id bigint generated always as identity primary key,
  case_id bigint not null references cases,
  kind text not null check (kind in ('sign', 'test')),
  key text not null,
  state text not null,
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index case_findings_of_case on case_findings (case_id);

create table case_closings (
  id bigint generated always as identity primary key,
  case_id bigint not null references cases,
  cause text not null,
  known text not null check (known in ('by a test', 'by a repair', 'assumed')),
  how text not null check (length(trim(how)) between 3 and 300),
  -- what was said when it was closed, and what that rested on
  said jsonb not null,
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index case_closings_of_case on case_closings (case_id);
