-- The log of facts. Entries are never updated, deleted or truncated; they are struck out.
create table jobs (
  id bigint generated always as identity primary key,
  name text not null check (length(name) between 1 and 255),
  content_sha256 text not null check (content_sha256 ~ '^[0-9a-f]{64}$'),
  size_bytes bigint not null check (size_bytes >= 0),
  scan jsonb not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now()
);
create index jobs_content on jobs (content_sha256);

create table runs (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  job_id bigint references jobs,
  name text not null check (length(name) between 1 and 255),
  ended_at timestamptz not null,
  hours double precision check (hours > 0 and hours <= 2000),
  outcome text not null check (outcome in ('finished', 'failed')),
  stopped_kind text check (stopped_kind in ('percent', 'height', 'weighed')),
  stopped_value double precision check (stopped_value >= 0),
  symptoms text[] not null default '{}',
  entered_as text not null check (entered_as in ('job file', 'grams', 'metres', 'spool weights')),
  bed_set_c double precision check (bed_set_c between 0 and 300),
  chamber_set_c double precision check (chamber_set_c between 0 and 300),
  note text not null default '',
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check ((stopped_kind is null) = (stopped_value is null)),
  check (ended_at <= recorded_at + interval '5 minutes')
);
create index runs_of_printer on runs (printer_id, ended_at desc, id desc);
create index runs_recent on runs (ended_at desc, id desc);

-- What one tool of a run put through one nozzle, with the facts as they were at save.
create table run_tools (
  id bigint generated always as identity primary key,
  run_id bigint not null references runs,
  tool integer not null check (tool >= 0),
  head_id integer not null references heads,
  nozzle_id integer not null references nozzles,
  material_id integer not null references materials,
  spool_id integer references spools,
  ended_at timestamptz not null,
  extruded_mm double precision check (extruded_mm >= 0),
  extruded_g double precision not null check (extruded_g >= 0),
  fibre_g double precision not null check (fibre_g >= 0 and fibre_g <= extruded_g),
  wear_kg double precision not null check (wear_kg >= 0),
  set_c double precision check (set_c between 0 and 600),
  peak_flow_mm3_s double precision check (peak_flow_mm3_s >= 0),
  density_g_cm3 double precision check (density_g_cm3 between 0.5 and 10),
  diameter_mm double precision not null check (diameter_mm between 1 and 3.5),
  filler text not null,
  filler_fraction double precision not null check (filler_fraction between 0 and 0.8),
  abrasivity double precision not null check (abrasivity between 0.0001 and 10),
  material_name text not null,
  check ((extruded_mm is null) = (density_g_cm3 is null)),
  unique (run_id, tool)
);
create index run_tools_of_nozzle on run_tools (nozzle_id, ended_at, run_id) include (extruded_g, fibre_g, wear_kg);
create index run_tools_of_spool on run_tools (spool_id) include (run_id, extruded_g) where spool_id is not null;

create table gauges (
  id bigint generated always as identity primary key,
  nozzle_id integer not null references nozzles,
  kind text not null check (kind in ('receipt', 'service')),
  go_mm double precision check (go_mm between 0.05 and 3),
  no_go_mm double precision check (no_go_mm between 0.05 and 3),
  go_pin text check (length(go_pin) between 1 and 20),
  no_go_pin text check (length(no_go_pin) between 1 and 20),
  value_mm double precision check (value_mm between 0.05 and 3),
  u_mm double precision check (u_mm between 0.0001 and 0.2),
  tip_mm double precision check (tip_mm between 1 and 60),
  tip_u_mm double precision check (tip_u_mm between 0.001 and 1),
  shape text[] not null default '{}',
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (go_mm is null or no_go_mm is null or go_mm < no_go_mm),
  check (value_mm is null or (go_mm is null and no_go_mm is null)),
  check ((value_mm is null and go_mm is null and no_go_mm is null) = (u_mm is null)),
  check ((tip_mm is null) = (tip_u_mm is null)),
  check (num_nonnulls(go_mm, no_go_mm, value_mm, tip_mm) > 0 or cardinality(shape) > 0),
  check (go_pin is null or go_mm is not null),
  check (no_go_pin is null or no_go_mm is not null),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index gauges_of_nozzle on gauges (nozzle_id, occurred_at, id);

create table fittings (
  id bigint generated always as identity primary key,
  kind text not null check (kind in ('fit', 'remove', 'retire')),
  nozzle_id integer not null references nozzles,
  head_id integer references heads,
  reason text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check ((kind = 'retire') = (head_id is null)),
  check (kind <> 'retire' or length(reason) > 0),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index fittings_of_head on fittings (head_id, occurred_at desc, id desc);
create index fittings_of_nozzle on fittings (nozzle_id, occurred_at desc, id desc);

create table spool_events (
  id bigint generated always as identity primary key,
  spool_id integer not null references spools,
  kind text not null check (kind in ('opened', 'loaded', 'out', 'in', 'dried', 'weighed')),
  gross_g double precision check (gross_g between 1 and 25000),
  head_id integer references heads,
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check ((kind = 'weighed') = (gross_g is not null)),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index spool_events_of_spool on spool_events (spool_id, occurred_at desc, id desc);

create table strikes (
  id bigint generated always as identity primary key,
  target text not null check (target in ('run', 'gauge', 'fitting', 'spool event')),
  target_id bigint not null,
  reason text not null check (length(trim(reason)) between 3 and 300),
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  unique (target, target_id)
);

create view standing_runs as select r.* from runs r where not exists (select from strikes s where s.target = 'run' and s.target_id = r.id);
create view standing_run_tools as select t.* from run_tools t where not exists (select from strikes s where s.target = 'run' and s.target_id = t.run_id);
create view standing_gauges as select g.* from gauges g where not exists (select from strikes s where s.target = 'gauge' and s.target_id = g.id);
create view standing_fittings as select f.* from fittings f where not exists (select from strikes s where s.target = 'fitting' and s.target_id = f.id);
create view standing_spool_events as select e.* from spool_events e where not exists (select from strikes s where s.target = 'spool event' and s.target_id = e.id);

create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception 'entries in % are never changed or deleted; strike them out', tg_table_name using errcode = 'restrict_violation';
end $$;

do $$
declare t text;
begin
  foreach t in array array['jobs', 'runs', 'run_tools', 'gauges', 'fittings', 'spool_events', 'strikes'] loop
    execute format('create trigger no_change before update or delete on %I for each row execute function refuse_change()', t);
    execute format('create trigger no_truncate before truncate on %I for each statement execute function refuse_change()', t);
  end loop;
end $$;

-- Answers already given, so that an entry that is sent twice is stored once.
create table answers (
  key text primary key check (length(key) between 8 and 100),
  route text not null,
  body_sha256 text not null,
  person_id integer not null references people,
  answer jsonb not null,
  recorded_at timestamptz not null default now()
);

-- Derived, and may be dropped and made again: what the log says of each nozzle, and what it was worked out from.
create table forecasts (
  nozzle_id integer primary key references nozzles,
  basis text not null,
  stale boolean not null default false,
  sister_term double precision[],
  wear_kg double precision not null,
  fibre_g double precision not null,
  left_kg double precision not null,
  left_low_kg double precision not null,
  left_high_kg double precision not null,
  next_gauge_kg double precision not null,
  past_chance double precision not null,
  detail jsonb not null,
  computed_at timestamptz not null default now()
);
create index forecasts_stale on forecasts (nozzle_id) where stale;
