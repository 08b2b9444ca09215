-- Flow benches: blobs of one filament through one nozzle on its head, weighed one by one.
create table flow_benches (
  id bigint generated always as identity primary key,
  head_id integer not null references heads,
  nozzle_id integer not null references nozzles,
  spool_id integer not null references spools,
  material_id integer not null references materials,
  material_name text not null,
  -- as they stood when it was begun
  diameter_mm double precision not null check (diameter_mm between 0.5 and 5),
  density_g_cm3 double precision not null check (density_g_cm3 between 0.1 and 25),
  -- the order of the work: [setpoint in °C, flow in mm³/s, round] of each blob
  lines jsonb not null,
  length_mm double precision not null check (length_mm between 1000 and 5000),
  balance_step_g double precision not null check (balance_step_g between 0.0001 and 10),
  accepted double precision not null check (accepted between 0.7 and 0.995),
  stand jsonb not null,
  tool integer check (tool between 0 and 15),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index flow_benches_of_nozzle on flow_benches (nozzle_id, head_id, material_id);
create index flow_benches_of_head on flow_benches (head_id, material_id);

create table flow_blobs (
  id bigint generated always as identity primary key,
  bench_id bigint not null references flow_benches,
  line integer not null check (line between 0 and 59),
  gross_g double precision not null check (gross_g between 0 and 6000),
  pan_g double precision not null check (pan_g between -5 and 5000),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (gross_g > pan_g),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index flow_blobs_of_bench on flow_blobs (bench_id, line);

-- What was measured of the filament itself, and of the length that the head feeds.
create table filament_measures (
  id bigint generated always as identity primary key,
  bench_id bigint not null references flow_benches,
  callipers_mm double precision[] check (cardinality(callipers_mm) between 3 and 10),
  told_mm double precision check (told_mm between 50 and 1000),
  fed_mm double precision check (fed_mm between 25 and 2000),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check ((callipers_mm is null) <> (told_mm is null)),
  check ((told_mm is null) = (fed_mm is null)),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index filament_measures_of_bench on filament_measures (bench_id);

-- The run that a bench was logged as.
create table flow_bench_runs (
  id bigint generated always as identity primary key,
  bench_id bigint not null unique references flow_benches,
  run_id bigint not null unique references runs
);
