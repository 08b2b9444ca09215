/**
 * What checks found of every sensor, as the limits take it. A check belongs to the pair of sensor and printer input: it
 * counts as long as the part that sat there still does, and has not left that place since.
 */
import { sql, type SQL } from 'drizzle-orm'
import type { Sensors } from '#core/limits'
import {
  correctionFrom,
  placementOf,
  type Allowed,
  type Correction,
  type Placement,
  type Point,
  type Reference,
  type Sensed,
} from '#core/thermometry'
import { resultOf } from '#shared/sensor-state'
import type { Connection } from '../../db/client'
import { shopDay } from '../../db/iso'

/** The role of the part that is a zone's sensor. */
export const SENSOR_ROLE: Record<Sensed, 'sensor' | 'bed sensor' | 'chamber sensor'> = {
  hotend: 'sensor',
  bed: 'bed sensor',
  chamber: 'chamber sensor',
}
const ROLE = sql.raw(
  `(case c.zone ${Object.entries(SENSOR_ROLE)
    .map(([zone, role]) => `when '${zone}' then '${role}'`)
    .join(' ')} end)`,
)

/**
 * Whether check `c` was made of the sensor that sits there now, since before it was made. One that is not described
 * went with its hotend.
 */
export const OF_THIS_SENSOR: SQL = sql`(case when c.part_id is null
  then not exists (select from part_places w join parts a on a.id = w.part_id where w.kind = 'fit'
    and w.printer_id = c.printer_id and w.head_id is not distinct from c.head_id and a.role = ${ROLE})
    and not exists (select from assembly_events v join standing_stack_changes vc on vc.id = v.change_id
      and vc.kind = 'changed' where v.head_id = c.head_id and vc.occurred_at > c.occurred_at)
  else exists (select from part_places w where w.kind = 'fit' and w.part_id = c.part_id
    and w.printer_id = c.printer_id and w.head_id is not distinct from c.head_id
    and w.occurred_at <= c.occurred_at) end)`

interface Row extends Record<string, unknown> {
  printerId: number
  zone: Sensed
  headId: number | null
  placement: Placement
  reference: Reference
  points: Point[]
  allowed: Allowed
  on: string
  at: number
}

/** Sensors of a printer, and since when the one of the bed and of the chamber sit there, ms; 0 where not described. */
export interface KnownSensors {
  sensors: Sensors
  since: { bed: number; chamber: number }
}

/** By printer; of printers without any check nothing. */
export async function knownSensors(db: Connection): Promise<Map<number, KnownSensors>> {
  const rows = await db.execute<Row>(sql`
    select distinct on (c.printer_id, c.zone, c.head_id, c.placement) c.printer_id "printerId", c.zone,
      c.head_id "headId", c.placement, c.reference, c.points, c.allowed,
      ${shopDay('c.occurred_at')} "on",
      extract(epoch from c.occurred_at)::float8 * 1000 "at"
    from standing_sensor_checks c where ${OF_THIS_SENSOR}
    order by c.printer_id, c.zone, c.head_id, c.placement, c.occurred_at desc, c.id desc`)
  if (rows.length === 0) return new Map()
  const fitted = await db.execute<{ printerId: number; role: string; since: number }>(sql`
    select w.printer_id "printerId", a.role, extract(epoch from max(w.occurred_at))::float8 * 1000 since
    from part_places w join parts a on a.id = w.part_id
    where w.kind = 'fit' and a.role in ('bed sensor', 'chamber sensor') group by w.printer_id, a.role`)
  const out = new Map<number, KnownSensors>()
  for (const printerId of new Set(rows.map(r => r.printerId))) {
    const of = (zone: Sensed, headId: number | null) =>
      correctionOf(rows.filter(r => r.printerId === printerId && r.zone === zone && r.headId === headId))
    const heads = new Set(rows.flatMap(r => (r.printerId === printerId && r.headId !== null ? [r.headId] : [])))
    const since = (role: string) => fitted.find(f => f.printerId === printerId && f.role === role)?.since ?? 0
    out.set(printerId, {
      sensors: {
        heads: Object.fromEntries([...heads].map(h => [h, of('hotend', h)])),
        bed: of('bed', null),
        chamber: of('chamber', null),
      },
      since: { bed: since(SENSOR_ROLE.bed), chamber: since(SENSOR_ROLE.chamber) },
    })
  }
  return out
}

const correctionOf = (rows: readonly Row[]): Correction | null =>
  correctionFrom(
    rows.map(r => ({
      atMs: r.at,
      own: placementOf(r.placement).own,
      points: resultOf({ ...r, referenceIs: r.reference })?.correction ?? [],
      from: `its check of ${r.on}`,
    })),
  )
