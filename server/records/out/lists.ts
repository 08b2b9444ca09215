/**
 * The lists of a shop as tables for other programs: one question each, whose columns are the headings, with their
 * units. Headings are those by which a table is taken in (`core/intake`), so that what was written out can be pasted in
 * again. Times stand on the shop's clock.
 */
import { sql, type SQL } from 'drizzle-orm'
import type { ListName } from '#shared/lists'
import { PLACE_OF_HEAD } from '../printers/fittings'

/** A time of a row as a spreadsheet reads it. */
const at = (column: string): SQL =>
  sql`to_char(${sql.raw(column)} at time zone (select time_zone from settings), 'YYYY-MM-DD HH24:MI')`
/** Who entered it, when, and why it counts no more. */
const entered = (e: string, target: string): SQL => sql`
  (select w.name from people w where w.id = ${sql.raw(e)}.person_id) "by", ${at(`${e}.recorded_at`)} "entered",
  (select k.reason from strikes k where k.target = ${target} and k.target_id = ${sql.raw(e)}.id) "struck out because"`
/** A share of 1 as wt%, without what binary figures add to it. */
const wt = (column: string): SQL => sql`round((${sql.raw(column)} * 100)::numeric, 6)::float8`

export const LISTS: Record<ListName, SQL> = {
  'printers': sql`
    select p.name "name", p.kind "kind", (select string_agg(h.name, ', ' order by h.position, h.id) from heads h
      where h.printer_id = p.id) "heads", p.out_of_use "out of use", p.note "note" from printers p order by p.id`,
  'parts': sql`
    select coalesce(p.name, 'shelf') "printer", h.name "head", a.role "role", a.name "name", a.limit_c "limit, °C",
      a.short_c "for a short while, °C", a.basis "basis", w.kind "kind", a.note "note"
    from part_places w join parts a on a.id = w.part_id left join printers p on p.id = w.printer_id
    left join heads h on h.id = w.head_id where w.kind <> 'scrap' order by w.printer_id, a.id`,
  'nozzle-types': sql`
    select y.name "name", y.material "material", y.nominal_bore_mm "bore, mm", y.length_mm "length, mm",
      y.cone_deg "cone, °", y.tip_flat_mm "tip flat, mm", y.land_mm "land, mm", y.inlet_mm "inlet, mm",
      y.insert_mm "insert, mm", round((y.bore_growth_limit * 100)::numeric, 6)::float8 "bore growth limit, %",
      y.tip_loss_limit_mm "tip loss limit, mm", y.mass_limit_kg "fibre limit, kg", y.torque_nm "torque, N·m",
      y.basis "basis", y.note "note" from nozzle_types y order by y.id`,
  'nozzles': sql`
    select n.tag "tag", y.name "type", y.nominal_bore_mm "nominal bore, mm", n.was_used "came used",
      case when s.kind = 'fit' then p.name end "on printer", case when s.kind = 'fit' then h.name end "head",
      case when s.kind = 'fit' then ${at('s.since')} end "fitted since",
      case when s.kind = 'retire' then coalesce(nullif(s.reason, ''), 'retired') end "retired because",
      f.fibre_g "fibre through it, g", f.past_chance "chance past its limit",
      ${at('s.last_gauged_at')} "last gauged", n.note "note"
    from nozzles n join nozzle_types y on y.id = n.type_id left join nozzle_stands s on s.nozzle_id = n.id
    left join heads h on h.id = s.head_id left join printers p on p.id = h.printer_id
    left join forecasts f on f.nozzle_id = n.id order by n.tag`,
  'hotends': sql`
    select t.tag "tag", case when w.kind = 'fit' then ${PLACE_OF_HEAD} else 'shelf' end "on", t.note "note"
    from hotends t left join hotend_places w on w.hotend_id = t.id left join heads h on h.id = w.head_id
    left join printers p on p.id = h.printer_id order by t.tag`,
  'materials': sql`
    select m.name "name", m.polymer "polymer", m.filler "filler", ${wt('m.filler_fraction')} "filler share, wt%",
      m.density_g_cm3 "density, g/cm³", m.abrasivity "abrasivity", m.basis "basis", m.note "note"
    from materials m order by m.id`,
  'material-values': sql`
    select m.name "material", v.key "value of", v.value "value", v.basis "basis", v.note "note"
    from material_values v join materials m on m.id = v.material_id order by m.id, v.id`,
  'spools': sql`
    select s.tag "tag", m.name "material", s.diameter_mm "diameter, mm", s.net_g "filament when full, g",
      s.tare_g "empty spool, g", t.left_g "left, g", t.left_by "left by", nullif(s.hub, '') "hub",
      coalesce(s.density_g_cm3, m.density_g_cm3) "density, g/cm³",
      ${wt('coalesce(s.filler_fraction, m.filler_fraction)')} "filler share, wt%", s.note "note"
    from spools s join materials m on m.id = s.material_id left join spool_stands t on t.spool_id = s.id
    order by s.tag`,
  'people': sql`select name "name", role "role", out_of_use "out of use" from people order by id`,
  'runs': sql`
    select p.name "printer", ${at('r.ended_at')} "ended", r.name "what", t.material_name "material", s.tag "spool",
      n.tag "nozzle", t.extruded_g "printed, g", t.extruded_mm / 1000 "length, m", t.before_g "spool before, g",
      t.after_g "spool after, g", t.fibre_g "fibre, g", r.hours "took, h", r.outcome "outcome", h.name "head",
      t.set_c "nozzle set, °C", r.bed_set_c "bed set, °C", r.chamber_set_c "chamber set, °C",
      r.surface "sheet and adhesive",
      nullif(array_to_string(r.symptoms, ', '), '') "seen", r.note "note", ${entered('r', 'run')}
    from runs r join run_tools t on t.run_id = r.id join printers p on p.id = r.printer_id
    join nozzles n on n.id = t.nozzle_id join heads h on h.id = t.head_id left join spools s on s.id = t.spool_id
    order by r.ended_at, r.id, t.tool`,
  'gauges': sql`
    select n.tag "nozzle", ${at('g.occurred_at')} "gauged", g.value_mm "bore measured, mm",
      case when g.value_mm is not null then g.u_mm end "bore give or take, mm", g.go_mm "largest pin that goes, mm",
      g.no_go_mm "smallest that does not, mm", g.tip_mm "length, mm", g.kind "kind",
      nullif(array_to_string(g.shape, ', '), '') "shape", g.note "note", ${entered('g', 'gauge')}
    from gauges g join nozzles n on n.id = g.nozzle_id order by g.occurred_at, g.id`,
  'fittings': sql`
    select n.tag "nozzle", ${at('f.occurred_at')} "at", f.kind "what", p.name "printer", h.name "head",
      f.reason "reason", ${entered('f', 'fitting')}
    from fittings f join nozzles n on n.id = f.nozzle_id left join heads h on h.id = f.head_id
    left join printers p on p.id = h.printer_id order by f.occurred_at, f.id`,
  'spool-events': sql`
    select s.tag "spool", ${at('e.occurred_at')} "at", e.kind "what", e.gross_g "on the balance, g",
      p.name "printer", e.room_c "room, °C", e.rh "relative humidity, %", e.at_c "at, °C", e.hours "for, h",
      e.note "note", ${entered('e', 'spool event')}
    from spool_events e join spools s on s.id = e.spool_id left join heads h on h.id = e.head_id
    left join printers p on p.id = h.printer_id order by e.occurred_at, e.id`,
  'weighings': sql`
    select s.tag "spool", ${at('e.occurred_at')} "weighed", e.gross_g "on the balance, g", e.note "note",
      ${entered('e', 'spool event')}
    from spool_events e join spools s on s.id = e.spool_id where e.kind = 'weighed' order by e.occurred_at, e.id`,
  'dryings': sql`
    select s.tag "spool", y.name "dryer", ${at('d.occurred_at')} "from", ${at('x.occurred_at')} "to",
      d.set_c "set, °C", x.actual_c "actual, °C", d.planned_h "planned, h", d.gross_g "before, g",
      x.gross_g "after, g", x.outcome "outcome", d.note "note", ${entered('d', 'drying')}
    from dryings d join spools s on s.id = d.spool_id join dryers y on y.id = d.dryer_id
    left join endings x on x.target = 'drying' and x.target_id = d.id order by d.occurred_at, d.id`,
  'sensor-checks': sql`
    select p.name "printer", h.name "head", c.zone "sensor", ${at('c.occurred_at')} "checked", c.placement "placement",
      r.name "reference", (q.value ->> 'shownC')::float8 "shown, °C", (q.value ->> 'reading')::float8 "reference read",
      c.note "note", ${entered('c', 'sensor check')}
    from sensor_checks c join printers p on p.id = c.printer_id left join heads h on h.id = c.head_id
    join reference_probes r on r.id = c.reference_id cross join lateral jsonb_array_elements(c.points) q
    order by c.occurred_at, c.id`,
  'procedures': sql`
    select p.name "printer", c.title "procedure", c.kind "kind", ${at('c.occurred_at')} "begun",
      ${at('x.occurred_at')} "ended", x.outcome "outcome", c.note "note", ${entered('c', 'procedure')}
    from procedures c join printers p on p.id = c.printer_id
    left join endings x on x.target = 'procedure' and x.target_id = c.id order by c.occurred_at, c.id`,
  'cases': sql`
    select p.name "printer", h.name "head", ${at('c.occurred_at')} "seen", n.tag "nozzle", s.tag "spool",
      k.cause "cause", k.known "known", c.note "note", ${entered('c', 'case')}
    from cases c join heads h on h.id = c.head_id join printers p on p.id = h.printer_id
    left join nozzles n on n.id = c.nozzle_id left join spools s on s.id = c.spool_id
    left join lateral (select l.cause, l.known from standing_case_closings l where l.case_id = c.id
      order by l.id desc limit 1) k on true order by c.occurred_at, c.id`,
}
