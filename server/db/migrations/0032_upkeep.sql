-- What each printer is kept up by, what was found when it was done, and what a printer may not be used for.
create table upkeep_tasks (
  id integer generated always as identity primary key,
  printer_id integer not null references printers,
  kind text not null,
  name text not null check (length(trim(name)) between 1 and 80),
  every_hours double precision check (every_hours between 1 and 20000),
  every_kg double precision check (every_kg between 0.05 and 5000),
  every_days double precision check (every_days between 1 and 3650),
  guard text,
  basis text not null check (basis in ('nameplate', 'data sheet', 'material property', 'practice')),
  note text not null default '',
  withdrawn boolean not null default false,
  version integer not null default 1,
  created_by integer not null references people,
  created_at timestamptz not null default now(),
  check (coalesce(every_hours, every_kg, every_days) is not null),
  check ((guard is not null) = (kind = 'cut-out test')),
  check (guard is null or every_days is not null)
);
create index upkeep_tasks_of on upkeep_tasks (printer_id);
create unique index upkeep_tasks_guard on upkeep_tasks (printer_id, guard) where guard is not null and not withdrawn;

create table upkeep_entries (
  id bigint generated always as identity primary key,
  task_id integer not null references upkeep_tasks,
  printer_id integer not null references printers,
  found text not null check (found in ('in order', 'put right', 'replaced', 'needs work')),
  says text not null default '',
  note text not null default '',
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now(),
  check (occurred_at <= recorded_at + interval '5 minutes')
);
create index upkeep_entries_of on upkeep_entries (task_id, occurred_at desc, id desc);

alter table printers add column restrictions text[] not null default '{}';

-- What a printer did by day, so that no reading grows with the log: worked out from the runs, made anew with them.
create table printer_days (
  day date not null,
  printer_id integer not null references printers,
  runs integer not null,
  failed integer not null,
  hours double precision not null,
  -- runs of which nobody knows how long they took
  without_hours integer not null,
  extruded_g double precision not null,
  filled_g double precision not null,
  fibre_g double precision not null,
  primary key (printer_id, day)
);
create function printer_days_changed(of_runs bigint[]) returns void language plpgsql as $$
declare
  days date[];
  printers integer[];
begin
  select coalesce(array_agg(x.day), '{}'), coalesce(array_agg(x.printer_id), '{}') into days, printers
    from (select distinct day_of(r.ended_at) as day, r.printer_id from runs r where r.id = any (of_runs)
      order by 1, 2) x;
  -- one after the other: the second sees what the first has committed. A lock each while they are few; the years of a
  -- large shop would not fit into the table of locks
  if cardinality(days) > 500 then
    lock table printer_days in share row exclusive mode;
  else
    for i in 1 .. cardinality(days) loop
      perform pg_advisory_xact_lock(720419, hashtext(days[i] || ' ' || printers[i]));
    end loop;
  end if;
  execute 'delete from printer_days d using unnest($1, $2) x(day, printer_id)
    where d.day = x.day and d.printer_id = x.printer_id' using days, printers;
  execute $of$
    insert into printer_days
      select x.day, x.printer_id, count(*), count(*) filter (where r.outcome = 'failed'), coalesce(sum(r.hours), 0),
        count(*) filter (where r.hours is null), coalesce(sum(t.extruded_g), 0), coalesce(sum(t.filled_g), 0),
        coalesce(sum(t.fibre_g), 0)
      from unnest($1, $2) x(day, printer_id)
      join standing_runs r on r.printer_id = x.printer_id and r.ended_at >= x.day::timestamp at time zone 'UTC'
        and r.ended_at < (x.day + 1)::timestamp at time zone 'UTC'
      cross join lateral (select sum(t.extruded_g) extruded_g,
        sum(t.extruded_g) filter (where t.filler_fraction > 0) filled_g,
        sum(t.fibre_g) filter (where t.filler_fraction > 0) fibre_g from run_tools t where t.run_id = r.id) t
      group by x.day, x.printer_id $of$ using days, printers;
end $$;
alter function days_changed(bigint[]) rename to material_days_changed;
create function days_changed(of_runs bigint[]) returns void language plpgsql as $$
begin
  perform material_days_changed(of_runs);
  perform printer_days_changed(of_runs);
end $$;
select printer_days_changed(array(select id from runs));
