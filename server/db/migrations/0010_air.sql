-- Limits at their place: start values say that they are one, the air of a chamber is known by its own sources, and
-- warm-ups say where their probe was and how the lid was.

-- What nobody entered. Parts are named without the number that their limit may come to contradict.
alter table parts drop constraint parts_basis_check;
alter table parts add constraint parts_basis_check
  check (basis in ('nameplate', 'data sheet', 'material property', 'practice', 'start value'));
create temporary table start_kinds (kind text, limit_c double precision, basis text, note text) on commit drop;
insert into start_kinds values
    ('cartridge heater', 400, 'practice', 'potted leads'),
    ('high-temperature cartridge heater', 550, 'practice', 'mineral-insulated leads'),
    ('bead thermistor, 10-bit reading', 300, 'practice', 'seal, leads and drift stop it, not the bead'),
    ('bead thermistor, 12-bit reading', 300, 'practice', 'seal, leads and drift stop it, not the bead'),
    ('platinum film sensor', 500, 'material property', 'film range of class B, IEC 60751'),
    ('type K thermocouple', 700, 'practice', 'sheath and lead'),
    ('PTFE liner to the nozzle', 250, 'practice', 'creeps and fumes above; the liner makes the hotend unfit for nylon and hotter'),
    ('lined heat break', 400, 'practice', 'steel tube bored for a liner'),
    ('all-metal heat break', 500, 'practice', 'no liner in the hot part'),
    ('aluminium block', 350, 'material property', 'softens above'),
    ('plated copper block', 510, 'practice', 'keeps its threads hot'),
    ('silicone sock', 310, 'material property', 'hardens and crumbles above'),
    ('firmware ceiling', 300, 'nameplate', 'highest temperature the firmware allows'),
    ('firmware ceiling 350', 350, 'nameplate', 'raised after the sensor was changed'),
    ('firmware ceiling 480', 480, 'nameplate', 'raised after the sensor was changed'),
    ('plain steel gears', null, 'practice', 'fibre wears them'),
    ('brass gears', null, 'practice', 'fibre wears them fast'),
    ('hardened gears', null, 'practice', 'for fibre'),
    ('PTFE feed tube', 80, 'practice', 'moderate chamber heat'),
    ('PEEK feed tube', 200, 'material property', 'for a hot chamber'),
    ('PTFE feed tube led wide', 80, 'practice', 'hung from above in one wide bend'),
    ('no feed tube', null, 'practice', 'fed straight from above'),
    ('other hotend part', null, 'practice', ''),
    ('bed heater', 110, 'nameplate', 'what it reaches'),
    ('strong bed heater', 125, 'nameplate', 'what it reaches'),
    ('mains bed heater', 180, 'nameplate', 'what it reaches'),
    ('bed thermistor', 250, 'practice', 'rated 300; its glue stops it'),
    ('bed wiring', 150, 'practice', 'insulation of the leads'),
    ('silicone bed wiring', 200, 'material property', 'insulation of the leads'),
    ('foam under the bed', 130, 'practice', 'closed-cell foam'),
    ('mineral wool under the bed', 400, 'material property', 'no binder smell after the first heat'),
    ('magnets, 120 grade', 120, 'material property', 'strength falls with heat'),
    ('magnets, 180 grade', 180, 'material property', 'strength falls with heat'),
    ('no magnets, sheet clipped', null, 'practice', 'clips at the edge'),
    ('sheet glue line', 130, 'practice', 'adhesive under the sheet'),
    ('high-temperature glue line', 200, 'practice', 'silicone transfer adhesive'),
    ('PEI sheet', 180, 'material property', 'below its glass transition, 217'),
    ('epoxy-glass laminate sheet', 165, 'practice', 'G10'),
    ('glass plate', 250, 'practice', 'breaks by shock, not by heat'),
    ('polycarbonate sheet', 135, 'material property', 'below its glass transition, 147'),
    ('other bed part', null, 'practice', ''),
    ('printed parts, PETG', 70, 'material property', 'sag above'),
    ('printed parts, ABS or ASA', 90, 'material property', 'sag above'),
    ('printed parts, PC', 100, 'material property', 'sag above'),
    ('machined parts instead of printed ones', 250, 'material property', 'aluminium'),
    ('belts', 80, 'practice', 'rubber with glass cord'),
    ('high-temperature belts', 120, 'practice', 'heat-resistant rubber'),
    ('motors', 75, 'nameplate', 'air around them; the winding is hotter'),
    ('high-temperature motors', 110, 'nameplate', 'air around them'),
    ('fans', 70, 'nameplate', 'bearing grease'),
    ('high-temperature fans', 110, 'nameplate', 'bearing grease'),
    ('bearings', 110, 'practice', 'grease and seals'),
    ('acrylic glazing', 80, 'material property', 'softens above'),
    ('polycarbonate glazing', 120, 'material property', 'below its glass transition, 147'),
    ('glass glazing', 200, 'practice', 'tempered'),
    ('foam insulation', 100, 'practice', 'and it burns'),
    ('mineral wool insulation', 400, 'material property', ''),
    ('camera', 60, 'nameplate', 'its own electronics'),
    ('camera behind glass, outside', 60, 'nameplate', 'in room air'),
    ('electronics', 60, 'practice', 'fine at 50 to 60; towards 100 they go outside'),
    ('electronics moved outside', 60, 'practice', 'in room air'),
    ('other chamber part', null, 'practice', ''),
    ('enclosure', null, 'practice', 'its chamber map by practice: 65 to 70 °C near the top with the bed at 110'),
    ('enclosure kit', null, 'practice', 'its chamber map by practice, to be measured'),
    ('lid', null, 'practice', 'keeps the heat in'),
    ('chamber heater', null, 'nameplate', 'with its own cut-out'),
    ('filament dryer, 55', null, 'nameplate', 'what it reaches'),
    ('filament dryer, 70', null, 'nameplate', 'what it reaches'),
    ('filament dryer, 90', null, 'nameplate', 'what it reaches'),
    ('drying oven, 160', null, 'nameplate', 'what it reaches; never one that food goes in'),
    ('no ventilation', null, 'practice', ''),
    ('ventilated room', null, 'practice', ''),
    ('particle and carbon filter', null, 'practice', ''),
    ('extraction outdoors', null, 'practice', '');
update parts p set basis = 'start value' from start_kinds k
  where k.kind = p.kind and k.limit_c is not distinct from p.limit_c and k.basis = p.basis and k.note = p.note;

-- Bearings: those with plastic end caps stop at 80, and stand in front of a chamber heater only where they are metal.
update parts p set kind = 'bearings, metal shields' where kind = 'bearings' and (basis <> 'start value' or exists (
  select from part_places w join part_places h on h.printer_id = w.printer_id and h.kind = 'fit'
  join parts c on c.id = h.part_id and c.role = 'chamber heater' where w.part_id = p.id and w.kind = 'fit'));
update parts set kind = 'linear bearings, plastic end caps', limit_c = 80,
  note = 'the end caps and their seals stop them' where kind = 'bearings';
-- Magnets, laminate and foam of which nobody entered a limit are the ordinary ones.
update parts set kind = 'magnets, ordinary grade', limit_c = 80
  where kind = 'magnets, 120 grade' and basis = 'start value';
update parts set limit_c = 135, note = 'ordinary grade: 130 to 140 continuous'
  where kind = 'epoxy-glass laminate sheet' and basis = 'start value';
update parts set limit_c = 75, note = 'kind of foam not known, taken as polystyrene; and it burns'
  where kind = 'foam insulation' and basis = 'start value';
update parts set name = case
    when kind like 'magnets, %grade' then 'magnets'
    when kind like 'firmware ceiling%' then 'firmware ceiling'
    when kind like 'filament dryer%' then 'filament dryer'
    when kind like 'drying oven%' then 'drying oven'
    else kind end
  where name in ('magnets, 120 grade', 'magnets, 180 grade', 'firmware ceiling 350', 'firmware ceiling 480',
    'filament dryer, 55', 'filament dryer, 70', 'filament dryer, 90', 'drying oven, 160', 'bearings')
    or (name = kind and kind like 'magnets, %grade');
-- What the head carries sits near bed and head, where the air is the hotter.
update parts set place = 'low' where role in ('printed parts', 'fans', 'bearings') and place = 'high' and version = 1;

-- Shares of the air: those that still hold a start value go, and with them what a starting stack brought; the kind of
-- the enclosure has better ones now. What a person entered stays.
update parts set kind = 'heated enclosure' where kind = 'enclosure' and version = 1 and details @> '{"thetaLow": 0.5,
  "thetaHigh": 0.6, "thetaBay": 0.1, "openThetaLow": 0.15, "openThetaHigh": 0.2, "offsetLow": -4, "offsetHigh": 3,
  "offsetBay": -40}';
create temporary table start_air (kind text, key text, value double precision) on commit drop;
insert into start_air values
  ('enclosure', 'thetaLow', 0.43), ('enclosure', 'thetaHigh', 0.52), ('enclosure', 'thetaBay', 0.2),
  ('enclosure', 'openThetaLow', 0.12), ('enclosure', 'openThetaHigh', 0.18),
  ('enclosure kit', 'thetaLow', 0.35), ('enclosure kit', 'thetaHigh', 0.45), ('enclosure kit', 'thetaBay', 0.2),
  ('enclosure kit', 'openThetaLow', 0.1), ('enclosure kit', 'openThetaHigh', 0.15),
  ('heated enclosure', 'thetaLow', 0.5), ('heated enclosure', 'thetaHigh', 0.6), ('heated enclosure', 'thetaBay', 0.1),
  ('heated enclosure', 'openThetaLow', 0.15), ('heated enclosure', 'openThetaHigh', 0.2),
  ('heated enclosure', 'offsetLow', -4), ('heated enclosure', 'offsetHigh', 3), ('heated enclosure', 'offsetBay', -40);
update parts p set details = p.details - array(select a.key from start_air a
    where a.kind = p.kind and (p.details->>a.key)::double precision = a.value)
  where role = 'enclosure';
update parts set limit_c = 80, basis = 'start value', note = 'its panels; it leaks'
  where kind = 'enclosure kit' and limit_c is null;

-- Where the probe of a warm-up was: a list, read from what was typed; what it does not tell is asked.
alter table warm_ups add column at_place text generated always as (case
    when place in ('low', 'high', 'bay') then place
    when place ~* '(electronic|\mbay\M)' then 'bay'
    when place ~* '(\mtop\M|\mlid\M|ceiling|upper|\mhigh\M)' and place !~* '(\mbed\M|head|nozzle|\mlow)' then 'high'
    when place ~* '(\mbed\M|head|nozzle|\mlow)' and place !~* '(\mtop\M|\mlid\M|ceiling|upper|\mhigh\M)' then 'low'
  end) stored;
-- How the lid was. Nobody was asked before; a chamber is warmed up with its lid on.
alter table warm_ups add column opening text not null default 'shut'
  check (opening in ('shut', 'vent open', 'raised', 'off'));
alter table warm_ups alter column opening drop default;
create table warm_up_places (
  id bigint generated always as identity primary key,
  warm_up_id bigint not null references warm_ups,
  place text not null check (place in ('low', 'high', 'bay')),
  occurred_at timestamptz not null,
  person_id integer not null references people,
  recorded_at timestamptz not null default now()
);
create index warm_up_places_of on warm_up_places (warm_up_id, id desc);

alter table dryers drop constraint dryers_kind_check;
alter table dryers add constraint dryers_kind_check
  check (kind in ('vented', 'desiccant', 'vacuum', 'bed under a cover', 'oven'));
