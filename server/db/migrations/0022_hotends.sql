-- Hotends are things with a tag: what is inside goes along when one is moved. What sits in a hotend on a head is what
-- the log of parts and nozzles says of that head; of one on the shelf it is written at each part and nozzle.
create table hotends (
  id integer generated always as identity primary key,
  tag text not null check (length(tag) between 1 and 20),
  note text not null default '',
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now()
);
create unique index hotends_tag on hotends (lower(tag));

-- Work at the bench concerns no printer and one hotend, which stays on the shelf; 'tagged' says which hotend is which, and moves nothing.
alter table stack_changes alter column printer_id drop not null;
alter table stack_changes drop constraint stack_changes_kind_check;
alter table stack_changes add constraint stack_changes_kind_check
  check (kind in ('described', 'changed', 'tagged', 'bench'));
alter table stack_changes add constraint stack_changes_bench_check check ((kind = 'bench') = (printer_id is null));

create table assembly_events (
  id bigint generated always as identity primary key,
  change_id bigint not null references stack_changes,
  hotend_id integer not null references hotends,
  kind text not null check (kind in ('fit', 'shelve')),
  head_id integer references heads,
  check ((kind = 'fit') = (head_id is not null)),
  unique (change_id, hotend_id)
);
create index assembly_events_of_hotend on assembly_events (hotend_id);
create index assembly_events_of_head on assembly_events (head_id);
create view hotend_places as
  select distinct on (e.hotend_id) e.hotend_id, e.kind, c.printer_id, e.head_id, c.id change_id, c.occurred_at
  from assembly_events e join standing_stack_changes c on c.id = e.change_id
  order by e.hotend_id, c.occurred_at desc, c.id desc;

-- The hotend that a part sits in while neither is on a printer.
alter table part_events add column hotend_id integer references hotends;
alter table part_events add constraint part_events_hotend_check check (hotend_id is null or kind = 'shelve');
create or replace view part_places as
  select distinct on (e.part_id) e.part_id, e.kind, c.printer_id, e.head_id, c.id change_id, c.occurred_at, e.hotend_id
  from part_events e join standing_stack_changes c on c.id = e.change_id
  order by e.part_id, c.occurred_at desc, c.id desc;

-- The same of a nozzle; and the change of a hotend that moved it, with which it is struck out.
alter table fittings add column hotend_id integer references hotends;
alter table fittings add column change_id bigint references stack_changes;
alter table fittings drop constraint fittings_check;
alter table fittings add constraint fittings_head_check check ((kind <> 'fit' or head_id is not null)
  and (kind <> 'retire' or head_id is null) and (kind <> 'remove' or head_id is not null or change_id is not null));
alter table fittings add constraint fittings_hotend_check check (hotend_id is null or kind = 'remove');
create index fittings_of_change on fittings (change_id);
create or replace view standing_fittings as select f.* from fittings f
  where not exists (select from strikes s where s.target = 'fitting' and s.target_id = f.id);

-- One hotend for each head, of what stands on it; since the printer was described nobody has told them apart.
do $$
declare p record; h record; made integer; change bigint; n integer := 0;
begin
  for p in select r.id, r.created_by, coalesce((select min(c.occurred_at) from standing_stack_changes c
      where c.printer_id = r.id and c.kind = 'described'), r.created_at) since
    from printers r where exists (select from heads where printer_id = r.id) order by r.id loop
    insert into stack_changes (printer_id, kind, text, occurred_at, person_id)
      values (p.id, 'tagged', 'Its hotends got tags', p.since, p.created_by) returning id into change;
    for h in select id from heads where printer_id = p.id order by position, id loop
      n := n + 1;
      insert into hotends (tag, created_by)
        values ('H-' || lpad(n::text, greatest(2, length(n::text)), '0'), p.created_by) returning id into made;
      insert into assembly_events (change_id, hotend_id, kind, head_id) values (change, made, 'fit', h.id);
    end loop;
  end loop;
end $$;
