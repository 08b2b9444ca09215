-- What is read often is kept as rows that can be thrown away and made again: how much is on a spool and how wet it was
-- at its last event, where a nozzle is, what went through by day. Each row says what it was worked out from; triggers,
-- and not the code that saves, tell what a new, late or struck entry touches, so no way of writing is left out.

-- Counts what was entered of a spool, of its material and of the dryers it stood in.
create table spool_versions (
  spool_id integer primary key references spools,
  version bigint not null default 1
);
create function spools_changed(ids integer[]) returns void language sql as $$
  insert into spool_versions (spool_id) select distinct i from unnest(ids) i where i is not null order by i
  on conflict (spool_id) do update set version = spool_versions.version + 1
$$;

-- A spool after its last event, worked out by a version of the model from a version of its log and of the shop's air.
create table spool_stands (
  spool_id integer primary key references spools,
  version bigint not null,
  basis text not null,
  in_use boolean not null,
  left_g double precision not null,
  left_by text not null,
  last_used_at timestamptz,
  stand jsonb not null
);
-- The shop's wound-spool factor by the weighed dryings that it was fitted to; the latest is used.
create table wound_factors (
  basis text primary key,
  fitted jsonb not null,
  computed_at timestamptz not null default now()
);

-- Where each nozzle is by its standing fittings, when it was last gauged, and what filled filament it printed last.
create table nozzle_stands (
  nozzle_id integer primary key references nozzles,
  kind text,
  head_id integer,
  hotend_id integer,
  reason text,
  since timestamptz,
  last_gauged_at timestamptz,
  abrasivity double precision,
  material_name text,
  -- filaments that may still stand in it: all since it was last purged clean; and the last of them
  through_ids integer[],
  through_last integer
);
create index nozzle_stands_kind on nozzle_stands (kind, nozzle_id);
create index nozzle_stands_on_head on nozzle_stands (head_id) where kind = 'fit';
-- What may still stand in a nozzle, by what was logged before a time: its runs, and what it was purged from and to.
create function through_of(of_nozzle integer, before timestamptz, out ids integer[], out last_id integer)
language sql stable as $$
  select array_agg(distinct x.material_id), (array_agg(x.material_id order by x.at desc, x.rank desc))[1]
  from (values (of_nozzle)) e (nozzle_id)
  left join lateral (select c.occurred_at from standing_changeovers c where c.nozzle_id = e.nozzle_id
    and c.occurred_at < before and c.clean order by c.occurred_at desc, c.id desc limit 1) clean on true
  join lateral (
    select t.material_id, t.ended_at at, 0 rank from standing_run_tools t where t.nozzle_id = e.nozzle_id
    and t.ended_at > coalesce(clean.occurred_at, '-infinity')
    union all select c.to_material_id, c.occurred_at, 1 from standing_changeovers c
    where c.nozzle_id = e.nozzle_id and c.to_material_id is not null
    and c.occurred_at >= coalesce(clean.occurred_at, '-infinity')
    union all select c.from_material_id, c.occurred_at - interval '1 second', 0 from standing_changeovers c
    where c.nozzle_id = e.nozzle_id and c.from_material_id is not null and not c.clean
    and c.occurred_at >= coalesce(clean.occurred_at, '-infinity')
  ) x on x.at < before
$$;
create function nozzles_stand(ids integer[]) returns void language plpgsql as $$
begin
  ids := array(select distinct i from unnest(ids) i where i is not null order by i);
  insert into nozzle_stands (nozzle_id) select unnest(ids) on conflict do nothing;
  -- one after the other, each with what the one before it has committed
  perform from nozzle_stands where nozzle_id = any (ids) order by nozzle_id for update;
  update nozzle_stands s set kind = e.kind, head_id = e.head_id, hotend_id = e.hotend_id, reason = e.reason,
    since = e.occurred_at,
    last_gauged_at = (select max(g.occurred_at) from standing_gauges g where g.nozzle_id = i.id),
    abrasivity = l.abrasivity, material_name = l.material_name, through_ids = h.ids, through_last = h.last_id
  from unnest(ids) i (id)
  left join lateral (select f.kind, f.head_id, f.hotend_id, f.reason, f.occurred_at from standing_fittings f
    where f.nozzle_id = i.id order by f.occurred_at desc, f.id desc limit 1) e on true
  left join lateral (select t.abrasivity, t.material_name from standing_run_tools t
    where t.nozzle_id = i.id and t.filler_fraction > 0 order by t.ended_at desc, t.run_id desc limit 1) l on true
  left join lateral through_of(i.id, 'infinity') h on true
  where s.nozzle_id = i.id;
end $$;

-- Where each part and each hotend is by the standing changes; the views of that read it here.
create table part_stands (
  part_id integer primary key references parts,
  kind text not null,
  printer_id integer,
  head_id integer,
  change_id bigint not null,
  occurred_at timestamptz not null,
  hotend_id integer
);
create index part_stands_of_printer on part_stands (printer_id);
create index part_stands_of_head on part_stands (head_id);
create table hotend_stands (
  hotend_id integer primary key references hotends,
  kind text not null,
  printer_id integer,
  head_id integer,
  change_id bigint not null,
  occurred_at timestamptz not null
);
create index hotend_stands_of_head on hotend_stands (head_id);
create function parts_stand(ids integer[]) returns void language plpgsql as $$
begin
  ids := array(select distinct i from unnest(ids) i where i is not null order by i);
  perform from parts where id = any (ids) order by id for no key update;
  delete from part_stands where part_id = any (ids);
  insert into part_stands
    select distinct on (e.part_id) e.part_id, e.kind, c.printer_id, e.head_id, c.id, c.occurred_at, e.hotend_id
    from part_events e join standing_stack_changes c on c.id = e.change_id where e.part_id = any (ids)
    order by e.part_id, c.occurred_at desc, c.id desc;
end $$;
create function hotends_stand(ids integer[]) returns void language plpgsql as $$
begin
  ids := array(select distinct i from unnest(ids) i where i is not null order by i);
  perform from hotends where id = any (ids) order by id for no key update;
  delete from hotend_stands where hotend_id = any (ids);
  insert into hotend_stands
    select distinct on (e.hotend_id) e.hotend_id, e.kind, c.printer_id, e.head_id, c.id, c.occurred_at
    from assembly_events e join standing_stack_changes c on c.id = e.change_id where e.hotend_id = any (ids)
    order by e.hotend_id, c.occurred_at desc, c.id desc;
end $$;
create or replace view part_places as
  select part_id, kind, printer_id, head_id, change_id, occurred_at, hotend_id from part_stands;
create or replace view hotend_places as
  select hotend_id, kind, printer_id, head_id, change_id, occurred_at from hotend_stands;

-- What went through on each day (UTC), by material, of the runs that stand; benches print no job, so they set nothing.
create table material_days (
  day date not null,
  material_id integer not null references materials,
  extruded_g double precision not null,
  filled_g double precision not null,
  fibre_g double precision not null,
  -- a job finished on that day that was no bench
  sets boolean not null,
  nozzle_low double precision, nozzle_high double precision,
  bed_low double precision, bed_high double precision,
  chamber_low double precision, chamber_high double precision,
  primary key (day, material_id)
);
create function day_of(at timestamptz) returns date language sql immutable as $$ select (at at time zone 'UTC')::date $$;
create function days_changed(of_runs bigint[]) returns void language plpgsql as $$
declare one record;
begin
  for one in select distinct day_of(t.ended_at) as day, t.material_id from run_tools t where t.run_id = any (of_runs)
    order by 1, 2
  loop
    -- one after the other: the second sees what the first has committed
    perform pg_advisory_xact_lock(720418, hashtext(one.day || ' ' || one.material_id));
    delete from material_days d where d.day = one.day and d.material_id = one.material_id;
    insert into material_days
      select one.day, one.material_id, sum(t.extruded_g),
        coalesce(sum(t.extruded_g) filter (where t.filler_fraction > 0), 0),
        coalesce(sum(t.fibre_g) filter (where t.filler_fraction > 0), 0),
        bool_or(s.sets), min(t.set_c) filter (where s.sets), max(t.set_c) filter (where s.sets),
        min(r.bed_set_c) filter (where s.sets), max(r.bed_set_c) filter (where s.sets),
        min(r.chamber_set_c) filter (where s.sets), max(r.chamber_set_c) filter (where s.sets)
      from standing_run_tools t join runs r on r.id = t.run_id
      cross join lateral (select r.outcome = 'finished'
        and not exists (select from flow_bench_runs f where f.run_id = r.id) sets) s
      where t.material_id = one.material_id and t.ended_at >= one.day::timestamp at time zone 'UTC'
        and t.ended_at < (one.day + 1)::timestamp at time zone 'UTC'
      having count(*) > 0;
  end loop;
end $$;

-- What the nozzles of a material tell each other, summed: one gauge costs one nozzle's work.
create table sister_sums (
  material text primary key,
  model integer not null,
  sum double precision[],
  sisters integer not null,
  told jsonb not null
);
alter table forecasts add column moved double precision, add column life jsonb;

create function derive() returns trigger language plpgsql as $$
begin
  case tg_table_name
    when 'spool_events', 'dryings' then
      perform spools_changed(array(select spool_id from fresh));
    when 'spools' then
      perform spools_changed(array(select id from fresh));
    when 'materials' then
      perform spools_changed(array(select s.id from spools s join fresh m on m.id = s.material_id));
    when 'material_values' then
      perform spools_changed(array(select s.id from spools s join fresh v on v.material_id = s.material_id));
    when 'people' then
      -- who put a spool in its dryer is told with it
      perform spools_changed(array(select d.spool_id from dryings d join fresh p on p.id = d.person_id
        where not exists (select from endings e where e.target = 'drying' and e.target_id = d.id)));
    when 'dryers' then
      perform spools_changed(array(select d.spool_id from dryings d join fresh y on y.id = d.dryer_id));
    when 'endings' then
      perform spools_changed(array(select d.spool_id from dryings d join fresh e on e.target_id = d.id
        where e.target = 'drying'));
    when 'run_tools' then
      perform spools_changed(array(select spool_id from fresh));
      perform nozzles_stand(array(select nozzle_id from fresh));
      perform days_changed(array(select run_id from fresh));
    when 'flow_bench_runs' then
      perform days_changed(array(select run_id from fresh));
    when 'nozzles' then
      perform nozzles_stand(array(select id from fresh));
    when 'part_events' then
      perform parts_stand(array(select part_id from fresh));
    when 'assembly_events' then
      perform hotends_stand(array(select hotend_id from fresh));
    when 'gauges', 'fittings', 'changeovers' then
      perform nozzles_stand(array(select nozzle_id from fresh));
    when 'strikes' then
      perform spools_changed(array(
        select e.spool_id from spool_events e join fresh s on s.target = 'spool event' and s.target_id = e.id
        union all select d.spool_id from dryings d join fresh s on s.target = 'drying' and s.target_id = d.id
        union all select t.spool_id from run_tools t join fresh s on s.target = 'run' and s.target_id = t.run_id));
      perform nozzles_stand(array(
        select f.nozzle_id from fittings f join fresh s on s.target = 'fitting' and s.target_id = f.id
        union all select g.nozzle_id from gauges g join fresh s on s.target = 'gauge' and s.target_id = g.id
        union all select c.nozzle_id from changeovers c join fresh s on s.target = 'changeover' and s.target_id = c.id
        union all select t.nozzle_id from run_tools t join fresh s on s.target = 'run' and s.target_id = t.run_id));
      perform days_changed(array(select s.target_id from fresh s where s.target = 'run'));
      perform parts_stand(array(select e.part_id from part_events e
        join fresh s on s.target = 'stack change' and s.target_id = e.change_id));
      perform hotends_stand(array(select e.hotend_id from assembly_events e
        join fresh s on s.target = 'stack change' and s.target_id = e.change_id));
  end case;
  return null;
end $$;

do $$
declare t text;
begin
  foreach t in array array['spool_events', 'dryings', 'spools', 'endings', 'run_tools', 'flow_bench_runs', 'nozzles',
    'gauges', 'fittings', 'changeovers', 'strikes', 'material_values', 'part_events', 'assembly_events'] loop
    execute format('create trigger derive after insert on %I referencing new table as fresh
      for each statement execute function derive()', t);
  end loop;
  foreach t in array array['spools', 'materials', 'material_values', 'dryers', 'people'] loop
    execute format('create trigger derive_edit after update on %I referencing new table as fresh
      for each statement execute function derive()', t);
  end loop;
end $$;

-- Of a warm-up the few readings that a drawing shows; those from before keep all, and the long ones among them get them.
alter table warm_ups add column drawn jsonb;
alter table warm_ups disable trigger no_change;
update warm_ups w set drawn = (select jsonb_agg(r.value order by r.place) from jsonb_array_elements(w.readings)
    with ordinality r (value, place)
    where (r.place - 1) % ceil(jsonb_array_length(w.readings) / 120.0)::int = 0
      or r.place = jsonb_array_length(w.readings))
  where jsonb_array_length(w.readings) > 120;
alter table warm_ups enable trigger no_change;
create or replace view standing_warm_ups as select w.* from warm_ups w
  where not exists (select from strikes s where s.target = 'warm-up' and s.target_id = w.id);

-- What is listed by its time alone, and what is asked for by head.
create index prechecks_recent on prechecks (occurred_at desc, id desc);
create index changeovers_recent on changeovers (occurred_at desc, id desc);
create index spool_events_loaded on spool_events (head_id, occurred_at desc) where kind = 'loaded';
create index run_tools_of_head_material on run_tools (head_id, material_id, ended_at);
create index nozzle_stands_retired on nozzle_stands (since desc, nozzle_id desc) where kind = 'retire';

create index endings_weighed on endings (occurred_at desc, id desc) where target = 'drying' and gross_g is not null;

-- After a while only the key, the route and the hash of an entry are kept: enough to know it when it is sent again.
alter table answers alter column answer drop not null;
create index answers_with_words on answers (recorded_at) where answer is not null;

-- What is done once a day by one process, whichever comes first.
create table chores (
  name text primary key,
  done_on date not null
);

-- Whether it falls to who asks: the first of a day.
create function claim_chore(chore text, on_day date) returns boolean language plpgsql as $$
begin
  insert into chores (name, done_on) values (chore, on_day) on conflict (name) do update
    set done_on = excluded.done_on where chores.done_on < excluded.done_on;
  return found;
end $$;

-- what is there already
select spools_changed(array(select id from spools));
select nozzles_stand(array(select id from nozzles));
select parts_stand(array(select id from parts));
select hotends_stand(array(select id from hotends));
select days_changed(array(select id from runs));
