-- Surveys of chambers, as they were read; what they come to is worked out whenever it is asked for.
create table surveys (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  opening text not null check (opening in ('shut', 'vent open', 'raised', 'off')),
  -- null: not noted
  fan boolean,
  gap_mm double precision not null check (gap_mm between 0 and 1000),
  shielded boolean not null,
  -- as the printer showed them
  bed_c double precision not null check (bed_c between 0 and 300),
  chamber_set_c double precision check (chamber_set_c between 20 and 250),
  -- the checks of both sensors that counted when it was read
  bed_check_id bigint references sensor_checks,
  chamber_check_id bigint references sensor_checks,
  tau_s double precision not null check (tau_s between 10 and 100000),
  probe_u_c double precision not null check (probe_u_c between 0.05 and 10),
  -- width, depth and height of the chamber, mm
  size jsonb not null,
  times_s jsonb not null,
  room_c jsonb not null,
  probes jsonb not null,
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index surveys_of_printer on surveys (printer_id, occurred_at desc);

-- Plans of enclosures: saving one again under its name makes the newer one count, the older stays readable.
create table enclosure_plans (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  name text not null check (length(name) between 1 and 60),
  spec jsonb not null,
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index enclosure_plans_of on enclosure_plans (printer_id, lower(name), id desc);

-- What stops a heater that is stuck on, proved to do so.
create table cut_out_tests (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  guard text not null check (length(guard) between 1 and 60),
  tripped boolean not null,
  at_c double precision check (at_c between -20 and 1500),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index cut_out_tests_of on cut_out_tests (printer_id, occurred_at desc);
