-- The shop's own lines of the check before a run: for all, or for one printer, one filament, or both.
create table check_lines (
  id integer generated always as identity primary key,
  says text not null check (length(says) between 3 and 200),
  printer_id integer references printers,
  material_id integer references materials,
  withdrawn boolean not null default false,
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now()
);
