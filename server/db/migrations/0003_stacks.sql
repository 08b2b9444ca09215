-- A printer as a stack of parts, the log of what was changed on it, and what materials ask under each practice.
create table parts (
  id integer generated always as identity primary key,
  kind text not null check (length(kind) between 1 and 60),
  role text not null check (length(role) between 1 and 40),
  name text not null check (length(name) between 1 and 60),
  place text not null check (place in ('low', 'high', 'bay', 'outside')),
  limit_c double precision check (limit_c between 20 and 800),
  short_c double precision check (short_c between 20 and 900),
  basis text not null check (basis in ('nameplate', 'data sheet', 'material property', 'practice')),
  note text not null default '',
  details jsonb not null default '{}' check (jsonb_typeof(details) = 'object'),
  -- Came to the shelf before it went anywhere.
  to_shelf boolean not null default false,
  version integer not null default 1,
  entered_by integer not null references people,
  entered_at timestamptz not null default now(),
  check (short_c is null or limit_c is null or short_c >= limit_c)
);

create table stack_changes (
  id bigint generated always as identity primary key,
  printer_id integer not null references printers,
  kind text not null check (kind in ('described', 'changed')),
  text text not null check (length(text) between 1 and 2000),
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index stack_changes_of_printer on stack_changes (printer_id, occurred_at desc, id desc);

create table part_events (
  id bigint generated always as identity primary key,
  change_id bigint not null references stack_changes,
  part_id integer not null references parts,
  kind text not null check (kind in ('fit', 'shelve', 'scrap')),
  head_id integer references heads,
  check (kind = 'fit' or head_id is null),
  unique (change_id, part_id)
);
create index part_events_of_part on part_events (part_id);

alter table strikes drop constraint strikes_target_check;
alter table strikes add constraint strikes_target_check check (target in ('run', 'gauge', 'fitting', 'spool event', 'stack change'));
create view standing_stack_changes as select c.* from stack_changes c where not exists (select from strikes s where s.target = 'stack change' and s.target_id = c.id);
create view part_places as
  select distinct on (e.part_id) e.part_id, e.kind, c.printer_id, e.head_id, c.id change_id, c.occurred_at
  from part_events e join standing_stack_changes c on c.id = e.change_id
  order by e.part_id, c.occurred_at desc, c.id desc;

do $$
declare t text;
begin
  foreach t in array array['stack_changes', 'part_events'] loop
    execute format('create trigger no_change before update or delete on %I for each row execute function refuse_change()', t);
    execute format('create trigger no_truncate before truncate on %I for each statement execute function refuse_change()', t);
  end loop;
end $$;

-- What was one limit per zone becomes a part of that zone; the guard band, taken off before, is put back.
do $$
declare l record; made integer; change bigint;
begin
  for l in select distinct on (printer_id) printer_id, entered_by, entered_at from limits order by printer_id, id loop
    insert into stack_changes (printer_id, kind, text, occurred_at, person_id) values (l.printer_id, 'described', 'as entered before stacks', least(l.entered_at, now()), l.entered_by);
  end loop;
  for l in select * from limits order by id loop
    insert into parts (kind, role, name, place, limit_c, basis, note, entered_by, entered_at)
      values ('other ' || case l.zone when 'nozzle' then 'hotend' else l.zone end || ' part', 'other ' || case l.zone when 'nozzle' then 'hotend' else l.zone end || ' part', l.part,
        case l.zone when 'chamber' then 'high' else 'low' end, l.limit_c + case l.zone when 'nozzle' then 10 else 5 end, l.basis, l.note, l.entered_by, l.entered_at) returning id into made;
    select id into change from stack_changes where printer_id = l.printer_id;
    insert into part_events (change_id, part_id, kind, head_id) values (change, made, 'fit', l.head_id);
    -- A chamber limit well above the room's means that there is an enclosure; its map is still to be measured.
    if l.zone = 'chamber' and l.limit_c > 40 then
      for made in insert into parts (kind, role, name, place, basis, note, entered_by, entered_at)
        select k, k, k, 'high', 'practice', 'from the chamber limit; chamber map to be measured', l.entered_by, l.entered_at from unnest(array['enclosure', 'lid']) k returning id loop
        insert into part_events (change_id, part_id, kind) values (change, made, 'fit');
      end loop;
    end if;
  end loop;
end $$;
drop table limits;

-- Derived, and may be emptied and made again: the deciding part of each zone.
create table stack_ceilings (printer_id integer primary key references printers, limits jsonb not null);

alter table materials add column ventilation text check (ventilation in ('none', 'room ventilated', 'filtered', 'extracted outdoors'));

create table material_values (
  id integer generated always as identity primary key,
  material_id integer not null references materials,
  key text not null check (key in ('nozzleMinC', 'nozzleMaxC', 'lowestFlowC', 'shortMaxC', 'swapC', 'dryHighestC', 'strainAtBreak', 'curlMm', 'boreMinMm', 'boreGoodMm', 'matrixGCm3', 'glassC', 'meltC')),
  value double precision not null check (value between -100 and 10000),
  basis text not null check (basis in ('nameplate', 'data sheet', 'material property', 'practice')),
  note text not null default '',
  version integer not null default 1,
  entered_by integer not null references people,
  entered_at timestamptz not null default now(),
  unique (material_id, key)
);

create table practice_sets (
  id integer generated always as identity primary key,
  material_id integer not null references materials,
  name text not null check (length(name) between 1 and 40),
  conditions text not null default '',
  enclosed boolean not null default false,
  bed_min_c double precision check (bed_min_c between 15 and 300),
  bed_max_c double precision check (bed_max_c between 15 and 300),
  chamber text not null check (chamber in ('needs', 'helps', 'indifferent')),
  chamber_min_c double precision check (chamber_min_c between 20 and 250),
  chamber_max_c double precision check (chamber_max_c between 20 and 250),
  dry boolean not null default true,
  dry_min_c double precision check (dry_min_c between 30 and 250),
  dry_max_c double precision check (dry_max_c between 30 and 250),
  dry_hours_min double precision check (dry_hours_min between 0.1 and 200),
  dry_hours_max double precision check (dry_hours_max between 0.1 and 200),
  surfaces text[] not null default '{}',
  basis text not null check (basis in ('nameplate', 'data sheet', 'material property', 'practice')),
  note text not null default '',
  withdrawn boolean not null default false,
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now(),
  check (bed_min_c <= bed_max_c), check (chamber_min_c <= chamber_max_c), check (dry_min_c <= dry_max_c), check (dry_hours_min <= dry_hours_max),
  check (chamber <> 'needs' or chamber_min_c is not null), check (not dry or dry_min_c is not null)
);
create unique index practice_sets_name on practice_sets (material_id, lower(name));

alter table settings
  add column guard_hotend_c double precision not null default 10 check (guard_hotend_c between 0 and 100),
  add column guard_bed_c double precision not null default 5 check (guard_bed_c between 0 and 100),
  add column guard_chamber_c double precision not null default 5 check (guard_chamber_c between 0 and 100),
  add column room_c double precision not null default 23 check (room_c between 5 and 45),
  add column bend_safety double precision not null default 1.5 check (bend_safety between 1 and 10),
  add column coarse_c double precision not null default 2 check (coarse_c between 0.1 and 20),
  add column labour_per_hour double precision not null default 40 check (labour_per_hour between 0 and 10000),
  add column downtime_per_hour double precision not null default 10 check (downtime_per_hour between 0 and 10000),
  add column downtime_hours double precision not null default 0.5 check (downtime_hours between 0 and 100),
  add column scrap_per_swap double precision not null default 3 check (scrap_per_swap between 0 and 10000),
  add column currency text not null default '' check (length(currency) <= 8),
  -- Prices and minutes that differ from the catalogue's, by part kind or "nozzle" and its material.
  add column prices jsonb not null default '{}' check (jsonb_typeof(prices) = 'object');
