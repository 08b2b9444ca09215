-- Gauge studies: who gauges which nozzles how often, in a list drawn once; every line of it is read once.
create table studies (
  id bigint generated always as identity primary key,
  name text not null check (length(name) between 1 and 60),
  method text not null check (method in ('pins', 'picture')),
  setup_id integer references setups,
  repeats integer not null check (repeats between 2 and 10),
  -- the list as it was drawn: [person, nozzle, round] for each line
  lines jsonb not null,
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check ((method = 'picture') = (setup_id is not null)),
  check (occurred_at <= recorded_at + interval '5 minutes')
);

create table study_readings (
  id bigint generated always as identity primary key,
  study_id bigint not null references studies,
  line integer not null check (line between 0 and 299),
  go_mm double precision check (go_mm between 0.05 and 3),
  no_go_mm double precision check (no_go_mm between 0.05 and 3),
  value_mm double precision check (value_mm between 0.05 and 3),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check ((value_mm is null) = (go_mm is not null) and (go_mm is null) = (no_go_mm is null)),
  check (go_mm < no_go_mm),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index study_readings_of_study on study_readings (study_id, line);
