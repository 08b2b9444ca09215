-- Parts that cool on their printer after the print, as it was planned when they began to.
create table cool_downs (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  material_id integer not null references materials,
  name text not null check (length(name) between 1 and 120),
  thickness_mm double precision not null check (thickness_mm between 1 and 300),
  bed_c double precision not null check (bed_c between 0 and 300),
  surface text,
  minutes double precision not null check (minutes between 0 and 20000),
  take_off text not null check (take_off in ('warm', 'cold')),
  take_off_c double precision not null check (take_off_c between 0 and 300),
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index cool_downs_of on cool_downs (printer_id, occurred_at desc);
