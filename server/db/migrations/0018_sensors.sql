-- Sensors against references: the guard bands where a check covers the sensor, the shop's references, the checks.
-- A guard band never falls under what stands for overshoot, gradient and ageing.
alter table settings
  add column guard_hotend_checked_c double precision not null default 5 check (guard_hotend_checked_c between 5 and 100),
  add column guard_bed_checked_c double precision not null default 3 check (guard_bed_checked_c between 3 and 100),
  add column guard_chamber_checked_c double precision not null default 3
    check (guard_chamber_checked_c between 3 and 100);
update settings set guard_hotend_c = greatest(guard_hotend_c, 5), guard_bed_c = greatest(guard_bed_c, 3),
  guard_chamber_c = greatest(guard_chamber_c, 3);

-- What the shop holds against its sensors; a check keeps its own copy of what counted when it was made.
create table reference_probes (
  id integer generated always as identity primary key,
  name text not null check (length(name) between 1 and 60),
  spec jsonb not null,
  -- the last day its certificate holds; null where it has none
  due_on date,
  note text not null default '',
  withdrawn boolean not null default false,
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now()
);

create table sensor_checks (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  zone text not null check (zone in ('hotend', 'bed', 'chamber')),
  head_id integer references heads,
  -- the sensor as it sat there; null where none is described
  part_id integer references parts,
  reference_id integer not null references reference_probes,
  reference jsonb not null,
  placement text not null check (length(placement) between 1 and 40),
  -- what was read: worked out whenever it is asked for
  points jsonb not null,
  allowed jsonb not null,
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check ((zone = 'hotend') = (head_id is not null)),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index sensor_checks_of_printer on sensor_checks (printer_id, zone, occurred_at desc);
