-- The shop of the benchmarks, ten years old: 60 printers, 5 000 nozzles of which 60 are fitted and 120 spare, 2 000
-- spools of which 150 are in use, 20 materials, :runs runs; :model is the wear model's version. Rows are laid in bulk,
-- without the triggers that derive from them one by one; what is derived is made at the end, by the same functions.
set session_replication_role = replica;
insert into printers (name, kind, created_by)
  select 'P-' || i, 'enclosed', 1
  from generate_series(1, 60) i;
insert into heads (printer_id, name, created_by)
  select i, 'head', 1
  from generate_series(1, 60) i;
insert into parts (kind, role, name, place, limit_c, basis, entered_by)
  select r, r, 'part ' || i, 'high', 300 + i % 7, 'practice', 1
  from generate_series(1, 60 * 30) i, lateral (select (array['belts', 'motors', 'sensor', 'block',
    'bed heater', 'sheet', 'fans', 'enclosure', 'lid', 'gears'])[1 + i / 60 % 10] r) r;
insert into stack_changes (printer_id, kind, text, occurred_at, person_id)
  select i, 'described', 'x', now() - interval '3600 days', 1
  from generate_series(1, 60) i;
insert into part_events (change_id, part_id, kind, head_id)
  select 1 + i % 60, i, 'fit', 1 + i % 60
  from generate_series(1, 60 * 30) i;
insert into materials (name, polymer, filler, filler_fraction, density_g_cm3, abrasivity, basis, created_by)
  select 'PA6-CF' || i, 'PA6', 'carbon fibre', 0.2, 1.228, 1, 'practice', 1
  from generate_series(1, 20) i;
insert into nozzle_types (name, material, nominal_bore_mm, length_mm, cone_deg, tip_flat_mm, land_mm, inlet_mm,
  bore_growth_limit, basis, created_by)
  values ('hardened steel 0.4', 'hardened steel', 0.4, 12.5, 60, 1, 0.8, 2, 0.1, 'practice', 1);
insert into nozzles (tag, type_id, created_by)
  select 'N-' || i, 1, 1
  from generate_series(1, 5000) i;
-- one after the other on its head, for two months; then retired. The last 120 have not been used yet.
insert into fittings (kind, nozzle_id, head_id, occurred_at, person_id)
  select 'fit', i, 1 + i % 60, now() - (4880 - i) * interval '0.74 days' - interval '1 day', 1
  from generate_series(1, 4880) i;
insert into fittings (kind, nozzle_id, reason, occurred_at, person_id)
  select 'retire', i, 'worn', now() - (4880 - i) * interval '0.74 days' + interval '43 days', 1
  from generate_series(1, 4820) i;
insert into spools (tag, material_id, diameter_mm, net_g, tare_g, hub, created_by)
  select 'S-' || i, 1 + i % 20, 1.75, 1000, 210, 'polycarbonate', 1
  from generate_series(1, 2000) i;
insert into runs (printer_id, name, ended_at, hours, outcome, entered_as, bed_set_c, person_id)
  select 1 + i % 60, 'job ' || i % 97, now() - (:runs + 1 - i)::float8 / :runs * interval '3650 days', 6, 'finished', 'grams',
    100, 1
  from generate_series(1, :runs) i;
insert into run_tools (run_id, tool, head_id, nozzle_id, material_id, spool_id, ended_at, extruded_mm, extruded_g,
  fibre_g, wear_kg, set_c, density_g_cm3, diameter_mm, filler, filler_fraction, abrasivity, material_name)
  select id, 0, printer_id, greatest(1, ((id * 4880 / :runs - 1) / 60) * 60 + (id % 60)::int),
    1 + (1 + id * 2000 / (:runs + 1)) % 20, 1 + id * 2000 / (:runs + 1), ended_at, 100, 1.8 * 500 * 2000 / :runs,
    0.36, 0.01, 280, 1.228, 1.75, 'carbon fibre', 0.2, 1, 'PA6-CF'
  from runs;
insert into gauges (nozzle_id, kind, go_mm, no_go_mm, u_mm, occurred_at, person_id)
  select i, 'service', 0.41, 0.42, 0.003, now() - (4880 - i) * interval '0.74 days' + k * interval '7 days', 1
  from generate_series(1, 4820) i, generate_series(1, 6) k;
insert into strikes (target, target_id, reason, person_id)
  select 'run', i * 101, 'logged twice', 1
  from generate_series(1, :runs / 2000) i;
insert into forecasts (nozzle_id, basis, wear_kg, fibre_g, left_kg, left_low_kg, left_high_kg, next_gauge_kg,
  past_chance, detail, life, model, term_model)
  select i, 'bench', 1, 1000, 0.5, 0.2, 0.9, 0.2, 0.03, '{}', jsonb_build_object('wasUsed', false, 'filler',
    'carbon fibre', 'gauges', case when i % 9 = 0 then '[{"wearKg": 0.5, "isPast": false}, {"wearKg": 1, "isPast": true}]'
      else '[{"wearKg": 0.9, "isPast": false}]' end::jsonb), :model, :model
  from generate_series(1, 5000) i;
set session_replication_role = origin;
analyze;
