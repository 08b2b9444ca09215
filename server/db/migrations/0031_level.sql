-- Beds as they are screwed down, what was measured of them, and the Z number as it was found by hand.
create table beds (
  id integer generated always as identity primary key,
  printer_id integer not null unique references printers,
  width_mm double precision not null check (width_mm between 50 and 2000),
  depth_mm double precision not null check (depth_mm between 50 and 2000),
  screws jsonb not null,
  pitch_mm double precision not null check (pitch_mm between 0.2 and 2),
  clockwise text not null check (clockwise in ('lowers', 'raises')),
  basis text not null check (basis in ('nameplate', 'data sheet', 'material property', 'practice')),
  note text not null default '',
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now()
);

create table levels (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  measured jsonb not null check (measured ->> 'how' in ('feeler', 'mesh')),
  bed_c double precision not null check (bed_c between -50 and 400),
  soaked_min double precision check (soaked_min between 0 and 1440),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index levels_of_printer on levels (printer_id, occurred_at desc, id desc);

-- Until now only a change wrote one; a feeler sets it as well, and after a power-off it is read.
alter table z_records add column why text not null default 'change' check (why in ('change', 'feeler', 'power-off'));
alter table z_records add column probe_mm double precision check (probe_mm between -60 and 60);
