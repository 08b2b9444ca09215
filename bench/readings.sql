-- What the shop of the benchmarks has besides: a spool's life, checks before runs, warm-ups.
set session_replication_role = replica;
insert into material_values (material_id, key, value, basis, entered_by)
  select m, v.key, v.value, 'practice', 1
  from generate_series(1, 20) m, (values ('nozzleMinC', 260), ('nozzleMaxC', 290), ('lowestFlowC', 240),
    ('shortMaxC', 310)) v (key, value);
insert into dryers (name, kind, ceiling_c, basis, created_by)
  values ('dryer', 'vented', 90, 'nameplate', 1);
-- each spool is opened, dried, loaded, put in and out, weighed; all but the last 150 were finished
insert into spool_events (spool_id, kind, gross_g, occurred_at, person_id)
  select s, k.kind, case when k.kind = 'weighed' then 900 - 40 * k.n end,
    now() - (2000 - s) * interval '43 hours' - (20 - k.n) * interval '9 hours', 1
  from generate_series(1, 2000) s, (values (1, 'opened'), (3, 'in'), (4, 'out'), (6, 'weighed'), (7, 'in'),
    (9, 'out'), (11, 'weighed'), (12, 'in'), (14, 'out'), (16, 'loaded')) k (n, kind);
insert into spool_events (spool_id, kind, occurred_at, person_id)
  select s, 'finished', now() - (2000 - s) * interval '43 hours', 1
  from generate_series(1, 1850) s;
insert into dryings (spool_id, dryer_id, set_c, planned_h, gross_g, occurred_at, person_id)
  select s, 1, 70, 8, 900, now() - (2000 - s) * interval '43 hours' - (20 - 4 * k) * interval '9 hours', 1
  from generate_series(1, 2000) s, generate_series(1, 3) k;
insert into endings (target, target_id, occurred_at, gross_g, outcome, person_id)
  select 'drying', id, occurred_at + interval '8 hours', 896, 'done', 1
  from dryings;
insert into prechecks (printer_id, head_id, spool_id, material_id, name, hours, prints_from, lines, answers, may,
  occurred_at, person_id)
  select 1 + i % 60, 1 + i % 60, 1 + i % 2000, 1 + (1 + i) % 20, 'job ' || i % 97, 6, 'room', '[]', '[]', true,
    now() - (20001 - i) * interval '4 hours', 1
  from generate_series(1, 20000) i;
insert into warm_ups (printer_id, place, opening, source, bed_c, room_c, fit, readings, occurred_at, person_id)
  select 1 + i % 60, 'high', 'shut', 'live readings', 100, 23,
    '{"startC": 23, "finalC": 63, "tauS": 1500, "delayS": 0, "rmsC": 0.4, "used": 400, "reachedShare": 0.97, "dips": []}',
    (select jsonb_agg(jsonb_build_object('s', k * 20, 'c', 23 + 40 * (1 - exp(-k / 75.0)))) from
      generate_series(0, 400) k), now() - (201 - i) * interval '3 days', 1
  from generate_series(1, 200) i;
-- the shelf: 120 things with what came and went in ten years; the pins that gauges were made with, certified yearly
insert into stock_items (kind, name, unit, minimum, price, priced_on, created_by)
  select (array['belt', 'filter', 'gear', 'sheet', 'tube'])[1 + i % 5], 'thing ' || i, 'pieces', 2, 4 + i % 30,
    current_date, 1 from generate_series(1, 120) i;
insert into stock_moves (item_id, kind, quantity, occurred_at, person_id)
  select i, (array['counted', 'ordered', 'received', 'used', 'used', 'used'])[1 + k % 6],
    (array[12, 6, 6, 2, 1, 3])[1 + k % 6], now() - (300 - k) * interval '12 days' + i * interval '1 minute', 1
  from generate_series(1, 120) i, generate_series(1, 299) k;
insert into pins (mark, nominal_mm, created_by) select 'P-' || i, i / 100.0, 1 from generate_series(20, 90) i;
insert into pin_certificates (pin_id, size_mm, u_mm, due_on, occurred_at, person_id)
  select p.id, p.nominal_mm + 0.0005 * (k % 3), 0.001, current_date - 365 * k + 400, now() - k * interval '365 days', 1
  from pins p, generate_series(0, 9) k;
update gauges set go_pin = 'P-' || round(go_mm * 100), no_go_pin = 'P-' || round(no_go_mm * 100)
  where id % 2 = 0 and go_mm between 0.2 and 0.89 and round(go_mm * 100) = go_mm * 100
    and no_go_mm <= 0.9 and round(no_go_mm * 100) = no_go_mm * 100;
set session_replication_role = origin;
analyze;
