-- Preparing a run: dryers, drying and wet-out, soaks and warm-ups, changeovers, anneals, and the check before a run.
alter table settings
  add column room_rh double precision not null default 50 check (room_rh between 0 and 100),
  add column dry_box_rh double precision not null default 10 check (dry_box_rh between 0 and 100);

alter table material_values drop constraint material_values_key_check;
alter table material_values add constraint material_values_key_check check (key in (
  'nozzleMinC', 'nozzleMaxC', 'lowestFlowC', 'shortMaxC', 'swapC', 'dryHighestC', 'strainAtBreak', 'curlMm', 'boreMinMm', 'boreGoodMm', 'matrixGCm3', 'glassC', 'meltC',
  'waterAt50', 'diffusion80', 'diffusionEa', 'printableWater', 'annealMinC', 'annealMaxC', 'annealMinH', 'annealMaxH', 'annealRamp'));

create table dryers (
  id integer generated always as identity primary key,
  name text not null check (length(name) between 1 and 40),
  kind text not null check (kind in ('vented', 'desiccant', 'bed under a cover', 'oven')),
  ceiling_c double precision not null check (ceiling_c between 30 and 300),
  time_out_h double precision check (time_out_h between 0.1 and 200),
  printer_id integer references printers,
  basis text not null check (basis in ('nameplate', 'data sheet', 'material property', 'practice')),
  note text not null default '',
  withdrawn boolean not null default false,
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now(),
  check (kind <> 'bed under a cover' or printer_id is not null)
);
create unique index dryers_name on dryers (lower(name));

-- The air a spool was put into, where it differs from the shop's usual; and how a drying elsewhere was done.
alter table spool_events
  add column room_c double precision check (room_c between -20 and 60),
  add column rh double precision check (rh between 0 and 100),
  add column at_c double precision check (at_c between 30 and 250),
  add column hours double precision check (hours between 0.1 and 500),
  add constraint spool_events_dried check (kind = 'dried' or (at_c is null and hours is null));

create table dryings (
  id bigint generated always as identity primary key,
  spool_id integer not null references spools,
  dryer_id integer not null references dryers,
  set_c double precision not null check (set_c between 30 and 250),
  planned_h double precision not null check (planned_h between 0.1 and 500),
  target_wt double precision check (target_wt between 0 and 100),
  gross_g double precision check (gross_g between 1 and 25000),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index dryings_of_spool on dryings (spool_id, occurred_at desc, id desc);

create table soaks (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  material_id integer references materials,
  target_c double precision check (target_c between 20 and 250),
  bed_c double precision not null check (bed_c between 0 and 300),
  part text not null check (part in ('small', 'large or flat')),
  minutes double precision not null check (minutes between 0 and 1440),
  basis text not null check (basis in ('warm-up record', 'practice')),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index soaks_of_printer on soaks (printer_id, occurred_at desc, id desc);

create table warm_ups (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  place text not null check (length(place) between 1 and 60),
  source text not null check (source in ('live readings', 'probe file')),
  bed_c double precision not null check (bed_c between 0 and 300),
  chamber_set_c double precision check (chamber_set_c between 20 and 250),
  room_c double precision not null check (room_c between -20 and 60),
  fit jsonb not null check (jsonb_typeof(fit) = 'object'),
  readings jsonb not null check (jsonb_typeof(readings) = 'array'),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index warm_ups_of_printer on warm_ups (printer_id, occurred_at desc, id desc);

create table changeovers (
  id bigint generated always as identity primary key,
  head_id integer not null references heads,
  nozzle_id integer not null references nozzles,
  from_material_id integer references materials,
  to_material_id integer references materials,
  at_c double precision not null check (at_c between 100 and 600),
  volume_mm3 double precision not null check (volume_mm3 between 0 and 100000),
  -- Nothing of the old filament is left: purged clear, or pulled cold.
  clean boolean not null,
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index changeovers_of_nozzle on changeovers (nozzle_id, occurred_at desc, id desc);

create table anneals (
  id bigint generated always as identity primary key,
  name text not null check (length(name) between 1 and 120),
  material_id integer not null references materials,
  dryer_id integer not null references dryers,
  at_c double precision not null check (at_c between 30 and 300),
  hold_h double precision not null check (hold_h between 0 and 200),
  ramp_c_per_h double precision not null check (ramp_c_per_h between 1 and 600),
  thickness_mm double precision not null check (thickness_mm between 1 and 300),
  total_h double precision not null check (total_h between 0 and 1000),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);

-- The end of what was started: drying, soak, anneal. One standing end each.
create table endings (
  id bigint generated always as identity primary key,
  target text not null check (target in ('drying', 'soak', 'anneal')),
  target_id bigint not null,
  outcome text not null check (outcome in ('done', 'stopped early')),
  actual_c double precision check (actual_c between 0 and 300),
  gross_g double precision check (gross_g between 1 and 25000),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  unique (target, target_id),
  check (occurred_at <= recorded_at + interval '5 minutes')
);

create table prechecks (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  head_id integer not null references heads,
  spool_id integer references spools,
  material_id integer not null references materials,
  name text not null check (length(name) between 1 and 255),
  content_sha256 text check (content_sha256 ~ '^[0-9a-f]{64}$'),
  hours double precision check (hours between 0 and 2000),
  prints_from text not null check (prints_from in ('room', 'dry box', 'dryer')),
  lines jsonb not null check (jsonb_typeof(lines) = 'array'),
  answers jsonb not null check (jsonb_typeof(answers) = 'array'),
  may boolean not null,
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index prechecks_of_printer on prechecks (printer_id, occurred_at desc, id desc);
alter table runs add column precheck_id bigint references prechecks;

alter table strikes drop constraint strikes_target_check;
alter table strikes add constraint strikes_target_check check (target in ('run', 'gauge', 'fitting', 'spool event', 'stack change', 'drying', 'soak', 'warm-up', 'changeover', 'anneal'));
-- A view keeps the columns it was made with; these are made anew with the new ones.
create or replace view standing_runs as select r.* from runs r where not exists (select from strikes s where s.target = 'run' and s.target_id = r.id);
create or replace view standing_spool_events as select e.* from spool_events e where not exists (select from strikes s where s.target = 'spool event' and s.target_id = e.id);
create view standing_dryings as select d.*, e.occurred_at ended_at, e.actual_c, e.gross_g after_g, e.outcome from dryings d left join endings e on e.target = 'drying' and e.target_id = d.id
  where not exists (select from strikes s where s.target = 'drying' and s.target_id = d.id);
create view standing_soaks as select k.*, e.occurred_at ended_at, e.outcome from soaks k left join endings e on e.target = 'soak' and e.target_id = k.id
  where not exists (select from strikes s where s.target = 'soak' and s.target_id = k.id);
create view standing_anneals as select a.*, e.occurred_at ended_at, e.outcome from anneals a left join endings e on e.target = 'anneal' and e.target_id = a.id
  where not exists (select from strikes s where s.target = 'anneal' and s.target_id = a.id);
create view standing_warm_ups as select w.* from warm_ups w where not exists (select from strikes s where s.target = 'warm-up' and s.target_id = w.id);
create view standing_changeovers as select c.* from changeovers c where not exists (select from strikes s where s.target = 'changeover' and s.target_id = c.id);

do $$
declare t text;
begin
  foreach t in array array['dryings', 'soaks', 'warm_ups', 'changeovers', 'anneals', 'endings', 'prechecks'] loop
    execute format('create trigger no_change before update or delete on %I for each row execute function refuse_change()', t);
    execute format('create trigger no_truncate before truncate on %I for each statement execute function refuse_change()', t);
  end loop;
end $$;

-- What printers report while a soak is running: one row each ten seconds, whichever process wrote it first.
create table readings (
  printer_id integer not null references printers,
  at timestamptz not null,
  bed_c double precision,
  chamber_c double precision,
  primary key (printer_id, at)
);
