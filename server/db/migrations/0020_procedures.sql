-- Procedures: lists of steps worked out for one head or printer, kept as they were told, and their ticks.
create table procedures (
  id bigint generated always as identity primary key,
  kind text not null,
  printer_id integer not null references printers,
  head_id integer references heads,
  title text not null check (length(title) between 1 and 200),
  -- what it was worked out from, and the steps as they are read
  facts jsonb not null check (jsonb_typeof(facts) = 'object'),
  steps jsonb not null check (jsonb_typeof(steps) = 'array'),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index procedures_of_printer on procedures (printer_id, id desc);

-- A step that is done: once for each procedure and step, and again only after the tick before was struck out.
create table procedure_ticks (
  id bigint generated always as identity primary key,
  procedure_id bigint not null references procedures,
  step text not null check (length(step) between 1 and 60),
  again integer not null default 0 check (again between 0 and 100),
  entered jsonb not null default '{}' check (jsonb_typeof(entered) = 'object'),
  -- what the heater of a wait showed, °C, and whether the printer told it or a person read it
  read_c double precision check (read_c between -60 and 700),
  read_by text check (read_by in ('printer', 'person')),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  unique (procedure_id, step, again),
  check ((read_c is null) = (read_by is null)),
  check (occurred_at <= recorded_at + interval '5 minutes')
);

-- Where the head stops: the printer's own Z number, and which way it counts.
create table z_records (
  id bigint generated always as identity primary key,
  head_id integer not null references heads,
  nozzle_id integer not null references nozzles,
  procedure_id bigint references procedures,
  way text not null check (way in ('larger is higher', 'larger is lower')),
  before_mm double precision check (before_mm between -60 and 60),
  z_mm double precision not null check (z_mm between -60 and 60),
  -- new length less old, as far as it was known
  change_mm double precision check (change_mm between -100 and 100),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index z_records_of_head on z_records (head_id, occurred_at desc);

-- A printer that must not run, why, and what must be proved before it goes back.
create table service_tags (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  why text not null check (length(trim(why)) between 3 and 300),
  must text[] not null default '{}',
  procedure_id bigint references procedures,
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index service_tags_of on service_tags (printer_id, id desc);

-- What the next shift must read before it works on a printer.
create table shift_notes (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  says text not null check (length(trim(says)) between 3 and 1000),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index shift_notes_of on shift_notes (printer_id, id desc);

-- How each thing that had to be proved was proved.
alter table endings add column proved jsonb;

-- The maker's torque for a nozzle, where its sheet gives one.
alter table nozzle_types add column torque_nm double precision check (torque_nm between 0.1 and 10);

-- New or rebuilt: it is commissioned before it runs.
alter table printers add column to_commission boolean not null default false;
