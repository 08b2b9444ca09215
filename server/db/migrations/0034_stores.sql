-- Pin gauges with their certificates; what is counted on the shelf, and what came and went of it.
create table pins (
  id integer generated always as identity primary key,
  mark text not null check (length(trim(mark)) between 1 and 20),
  nominal_mm double precision not null check (nominal_mm between 0.05 and 3),
  note text not null default '',
  withdrawn boolean not null default false,
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now()
);
create unique index pins_mark on pins (lower(mark));

create table pin_certificates (
  id bigint generated always as identity primary key,
  pin_id integer not null references pins,
  size_mm double precision not null check (size_mm between 0.05 and 3),
  u_mm double precision not null check (u_mm between 0.00001 and 0.05),
  due_on date,
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index pin_certificates_of on pin_certificates (pin_id, occurred_at desc, id desc);
create index gauges_go_pin on gauges (lower(go_pin)) where go_pin is not null;
create index gauges_no_go_pin on gauges (lower(no_go_pin)) where no_go_pin is not null;

create table stock_items (
  id integer generated always as identity primary key,
  kind text not null,
  name text not null check (length(trim(name)) between 1 and 80),
  unit text not null,
  -- what is counted by tags: nozzles of this type
  nozzle_type_id integer references nozzle_types,
  minimum double precision check (minimum between 0 and 1000000),
  used_by text,
  price double precision check (price between 0 and 1000000),
  priced_on date,
  note text not null default '',
  withdrawn boolean not null default false,
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now(),
  check ((price is null) = (priced_on is null)),
  check ((nozzle_type_id is not null) = (kind = 'nozzle'))
);
create unique index stock_items_type on stock_items (nozzle_type_id) where nozzle_type_id is not null and not withdrawn;

create table stock_moves (
  id bigint generated always as identity primary key,
  item_id integer not null references stock_items,
  kind text not null,
  quantity double precision not null check (quantity between 0 and 1000000),
  -- what took it
  upkeep_id bigint references upkeep_entries,
  procedure_id bigint references procedures,
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index stock_moves_of on stock_moves (item_id, occurred_at desc, id desc);
create index stock_moves_upkeep on stock_moves (upkeep_id) where upkeep_id is not null;
create index stock_moves_recent on stock_moves (occurred_at desc, id desc);

alter table upkeep_tasks add column stock_item_id integer references stock_items;
alter table upkeep_tasks add column stock_quantity double precision check (stock_quantity between 0 and 1000000);
alter table upkeep_tasks add check ((stock_item_id is null) = (stock_quantity is null));

-- What stands of each item, worked out from its moves: since the last count, and what was ordered and has not come.
create table stock_stands (
  item_id integer primary key references stock_items,
  on_hand double precision not null,
  counted_at timestamptz,
  on_order double precision not null
);
create function stock_stand(items integer[]) returns void language plpgsql as $$
begin
  perform pg_advisory_xact_lock(720420, i) from (select distinct unnest(items) i order by 1) x;
  execute 'delete from stock_stands where item_id = any ($1)' using items;
  -- what is on its way is never less than nothing: more came than was ordered, then it came without an order
  execute $of$
    insert into stock_stands
      select i.id, coalesce(c.quantity, 0) + coalesce((select sum(case when m.kind = 'received' then m.quantity
          else -m.quantity end) from standing_stock_moves m where m.item_id = i.id
          and m.kind in ('received', 'used', 'scrapped')
          and (c.id is null or (m.occurred_at, m.id) > (c.occurred_at, c.id))), 0),
        c.occurred_at, greatest(0, o.last - least(0, o.lowest))
      from unnest($1) x(id) join (select distinct id from stock_items) i on i.id = x.id
      left join lateral (select m.id, m.quantity, m.occurred_at from standing_stock_moves m
        where m.item_id = i.id and m.kind = 'counted' order by m.occurred_at desc, m.id desc limit 1) c on true
      cross join lateral (select coalesce((array_agg(s.run order by s.occurred_at desc, s.id desc))[1], 0) as last,
        coalesce(min(s.run), 0) as lowest from (select m.id, m.occurred_at,
          sum(case when m.kind = 'ordered' then m.quantity else -m.quantity end)
            over (order by m.occurred_at, m.id) run
          from standing_stock_moves m where m.item_id = i.id and m.kind in ('ordered', 'received')) s) o
      group by i.id, c.id, c.quantity, c.occurred_at, o.last, o.lowest $of$ using items;
end $$;
create function stock_moved() returns trigger language plpgsql as $$
begin
  if tg_table_name = 'strikes' then
    perform stock_stand(array(select m.item_id from fresh s join stock_moves m on m.id = s.target_id
      where s.target = 'stock move'));
  else
    perform stock_stand(array(select item_id from fresh));
  end if;
  return null;
end $$;
create trigger derive_stock after insert on stock_moves referencing new table as fresh
  for each statement execute function stock_moved();
create trigger derive_stock after insert on strikes referencing new table as fresh
  for each statement execute function stock_moved();
