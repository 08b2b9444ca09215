-- Records that can be edited carry a version. Limits and start values carry basis and note.
create table people (
  id integer generated always as identity primary key,
  name text not null unique check (length(name) between 1 and 80),
  role text not null check (role in ('technician', 'lead')),
  created_at timestamptz not null default now()
);

create table settings (
  id integer primary key default 1 check (id = 1),
  shop_name text not null default 'Print shop' check (length(shop_name) between 1 and 80),
  time_zone text not null default 'UTC',
  accepted_risk double precision not null default 0.10 check (accepted_risk between 0.001 and 0.5),
  demo_anchor timestamptz,
  version integer not null default 1
);
insert into settings default values;

create table printers (
  id integer generated always as identity primary key,
  name text not null check (length(name) between 1 and 40),
  kind text not null check (length(kind) between 1 and 80),
  note text not null default '',
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now()
);
create unique index printers_name on printers (lower(name));

create table heads (
  id integer generated always as identity primary key,
  printer_id integer not null references printers,
  name text not null check (length(name) between 1 and 40),
  position integer not null default 0,
  created_by integer not null references people,
  created_at timestamptz not null default now()
);
create unique index heads_name on heads (printer_id, lower(name));

-- One limit per zone: the nozzle zone belongs to a head, bed and chamber to the printer.
create table limits (
  id integer generated always as identity primary key,
  printer_id integer not null references printers,
  head_id integer references heads,
  zone text not null check (zone in ('nozzle', 'bed', 'chamber')),
  limit_c double precision not null check (limit_c between 20 and 600),
  part text not null check (length(part) between 1 and 60),
  basis text not null check (basis in ('nameplate', 'data sheet', 'material property', 'practice')),
  note text not null default '',
  version integer not null default 1,
  entered_by integer not null references people,
  entered_at timestamptz not null default now(),
  check ((zone = 'nozzle') = (head_id is not null))
);
create unique index limits_zone on limits (printer_id, zone, coalesce(head_id, 0));

create table materials (
  id integer generated always as identity primary key,
  name text not null check (length(name) between 1 and 40),
  polymer text not null check (length(polymer) between 1 and 40),
  filler text not null check (filler in ('none', 'carbon fibre', 'glass fibre', 'glow pigment', 'metal powder', 'wood')),
  filler_fraction double precision not null check (filler_fraction between 0 and 0.8),
  density_g_cm3 double precision check (density_g_cm3 between 0.5 and 10),
  abrasivity double precision not null check (abrasivity between 0.0001 and 10),
  basis text not null check (basis in ('nameplate', 'data sheet', 'material property', 'practice')),
  note text not null default '',
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now(),
  check ((filler = 'none') = (filler_fraction = 0))
);
create unique index materials_name on materials (lower(name));

create table nozzle_types (
  id integer generated always as identity primary key,
  name text not null check (length(name) between 1 and 60),
  material text not null check (material in ('brass', 'plated copper', 'stainless steel', 'hardened steel', 'ruby tip', 'tungsten carbide', 'polycrystalline diamond')),
  nominal_bore_mm double precision not null check (nominal_bore_mm between 0.1 and 2),
  length_mm double precision not null check (length_mm between 5 and 40),
  cone_deg double precision not null check (cone_deg between 20 and 120),
  tip_flat_mm double precision not null check (tip_flat_mm between 0.2 and 6),
  land_mm double precision not null check (land_mm between 0.1 and 10),
  inlet_mm double precision not null check (inlet_mm between 1 and 5),
  insert_mm double precision check (insert_mm between 0.5 and 6),
  bore_growth_limit double precision check (bore_growth_limit between 0.01 and 1),
  tip_loss_limit_mm double precision check (tip_loss_limit_mm between 0.01 and 2),
  mass_limit_kg double precision check (mass_limit_kg between 0.001 and 1000),
  basis text not null check (basis in ('nameplate', 'data sheet', 'material property', 'practice')),
  note text not null default '',
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now(),
  check (tip_flat_mm > nominal_bore_mm),
  check (inlet_mm > nominal_bore_mm),
  check (land_mm < length_mm),
  check (bore_growth_limit is not null or tip_loss_limit_mm is not null or mass_limit_kg is not null)
);
create unique index nozzle_types_name on nozzle_types (lower(name));

create table nozzles (
  id integer generated always as identity primary key,
  tag text not null check (tag ~ '^[A-Za-z0-9][A-Za-z0-9._-]{0,19}$'),
  type_id integer not null references nozzle_types,
  was_used boolean not null default false,
  law text not null default 'sliding' check (law in ('sliding', 'linear')),
  note text not null default '',
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now()
);
create unique index nozzles_tag on nozzles (lower(tag));

create table spools (
  id integer generated always as identity primary key,
  tag text not null check (tag ~ '^[A-Za-z0-9][A-Za-z0-9._-]{0,19}$'),
  material_id integer not null references materials,
  diameter_mm double precision not null check (diameter_mm between 1 and 3.5),
  net_g double precision not null check (net_g between 10 and 20000),
  tare_g double precision check (tare_g between 0 and 5000),
  hub text not null default '' check (length(hub) <= 60),
  density_g_cm3 double precision check (density_g_cm3 between 0.5 and 10),
  filler_fraction double precision check (filler_fraction between 0 and 0.8),
  note text not null default '',
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now()
);
create unique index spools_tag on spools (lower(tag));
