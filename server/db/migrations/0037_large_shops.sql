-- The days of a large shop at once: joined by day and printer, where the span of each day had the planner compare every
-- run with every day of its printer (ten years of 60 printers: many minutes; now seconds). Of a few days their span is
-- what the index knows.
create or replace function printer_days_changed(of_runs bigint[]) returns void language plpgsql as $$
declare
  days date[];
  printers integer[];
  found text;
begin
  select coalesce(array_agg(x.day), '{}'), coalesce(array_agg(x.printer_id), '{}') into days, printers
    from (select distinct day_of(r.ended_at) as day, r.printer_id from runs r where r.id = any (of_runs)
      order by 1, 2) x;
  -- one after the other: the second sees what the first has committed. A lock each while they are few; the years of a
  -- large shop would not fit into the table of locks
  if cardinality(days) > 500 then
    lock table printer_days in share row exclusive mode;
    found := 'day_of(r.ended_at) = x.day';
  else
    for i in 1 .. cardinality(days) loop
      perform pg_advisory_xact_lock(720419, hashtext(days[i] || ' ' || printers[i]));
    end loop;
    found := $of$r.ended_at >= x.day::timestamp at time zone 'UTC'
      and r.ended_at < (x.day + 1)::timestamp at time zone 'UTC'$of$;
  end if;
  execute 'delete from printer_days d using unnest($1, $2) x(day, printer_id)
    where d.day = x.day and d.printer_id = x.printer_id' using days, printers;
  execute format($of$
    insert into printer_days
      select x.day, x.printer_id, count(*), count(*) filter (where r.outcome = 'failed'), coalesce(sum(r.hours), 0),
        count(*) filter (where r.hours is null), coalesce(sum(t.extruded_g), 0), coalesce(sum(t.filled_g), 0),
        coalesce(sum(t.fibre_g), 0)
      from unnest($1, $2) x(day, printer_id)
      join standing_runs r on r.printer_id = x.printer_id and %s
      cross join lateral (select sum(t.extruded_g) extruded_g,
        sum(t.extruded_g) filter (where t.filler_fraction > 0) filled_g,
        sum(t.fibre_g) filter (where t.filler_fraction > 0) fibre_g from run_tools t where t.run_id = r.id) t
      group by x.day, x.printer_id $of$, found) using days, printers;
end $$;

-- The latest of the upkeep of all printers, for the page that lists them.
create index upkeep_entries_recent on upkeep_entries (occurred_at desc, id desc);
