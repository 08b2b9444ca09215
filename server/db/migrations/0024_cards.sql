-- What a person wrote of what worked, for a material, a type of nozzle and a printer; runs that finished tell the rest.
create table cards (
  id integer generated always as identity primary key,
  material_id integer not null references materials,
  type_id integer not null references nozzle_types,
  printer_id integer not null references printers,
  nozzle_c double precision check (nozzle_c between 100 and 600),
  bed_c double precision check (bed_c between 0 and 300),
  chamber_c double precision check (chamber_c between 0 and 250),
  print_mm_s double precision check (print_mm_s between 1 and 1000),
  peak_mm3_s double precision check (peak_mm3_s between 0.1 and 200),
  first_layer_mm_s double precision check (first_layer_mm_s between 1 and 300),
  first_layer_mm double precision check (first_layer_mm between 0.02 and 3),
  fan_percent double precision check (fan_percent between 0 and 100),
  flow_percent double precision check (flow_percent between 50 and 150),
  hold_min double precision check (hold_min between 0 and 1440),
  cool_c_per_min double precision check (cool_c_per_min between 0.05 and 50),
  bond_along_n double precision check (bond_along_n between 0.1 and 100000),
  bond_across_n double precision check (bond_across_n between 0.1 and 100000),
  adhesive text not null default '' check (length(adhesive) <= 80),
  outcome text not null default '' check (length(outcome) <= 300),
  note text not null default '',
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now(),
  unique (material_id, type_id, printer_id)
);
create index run_tools_of_material on run_tools (material_id, ended_at);
