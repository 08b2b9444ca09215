-- One set of dryers: those that stacks described as parts become the shop's own, each once, unless the shop has one of
-- the kind that reaches as far. Their parts stay in the log of the printers and are read no more.
insert into dryers (name, kind, ceiling_c, basis, note, created_by, created_at)
select left(case when exists (select from dryers d where lower(d.name) = lower(x.name)) or x.alike > 1
    then x.name || ', ' || x.reach || ' °C' else x.name end, 40),
  x.dryer_kind, x.reach, x.basis, 'described with the parts of a printer until now', x.entered_by, x.entered_at
from (
  select distinct on (y.dryer_kind, y.reach) y.*, count(*) over (partition by lower(y.name)) alike from (
    select distinct on (a.id) a.name, (a.details->>'reachC')::double precision reach, a.entered_by, a.entered_at,
      case when a.basis in ('nameplate', 'data sheet', 'material property') then a.basis else 'practice' end basis,
      case when a.kind = 'vacuum dryer' then 'vacuum' when a.kind like 'drying oven%' then 'oven'
        else 'vented' end dryer_kind
    from parts a left join part_places w on w.part_id = a.id
    where a.role = 'dryer' and (w.kind in ('fit', 'shelve') or (w.kind is null and a.to_shelf))
      and (a.details->>'reachC')::double precision between 30 and 300
  ) y order by y.dryer_kind, y.reach, y.entered_at, y.name
) x
where not exists (select from dryers d where d.ceiling_c = x.reach and not d.withdrawn
  and (d.kind = x.dryer_kind or d.kind = 'desiccant'))
on conflict do nothing;
