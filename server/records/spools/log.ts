/** A spool's log: what happened to it, what it was dried in, and what its material is. */
import { sql } from 'drizzle-orm'
import { filamentOf, type Filament } from '#core/drying'
import type { ValueKey } from '#core/limits'
import type { SpoolMassFacts } from '#core/materials'
import type { DryingLine, ShopAir } from '#shared/answers/spools'
import type { SpoolKind } from '#shared/choices'
import { filamentOfSpool, type MaterialFacts, type SpoolFacts } from '#shared/filament'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { MASS_OF_SPOOL } from './mass'

export interface SpoolLog extends Record<string, unknown> {
  id: number
  /** Counts what was entered of it. */
  version: number
  tag: string
  materialId: number
  material: string
  polymer: string
  filler: string
  diameterMm: number
  fillerFraction: number
  mass: SpoolMassFacts
  hub: string
  /** What is entered of the spool itself, and what its material says. */
  own: SpoolFacts
  ofMaterial: MaterialFacts
  facts: Partial<Record<ValueKey, number>>
  events: {
    id: number
    kind: Exclude<SpoolKind, 'weighed'>
    at: string
    roomC: number | null
    rh: number | null
    atC: number | null
    hours: number | null
    headId: number | null
    printer: string | null
  }[]
  dryings: DryingLine[]
}

const LOG_QUERY = (where = sql`true`) => sql`
  select s.id, coalesce((select v.version from spool_versions v where v.spool_id = s.id), 0)::int "version", s.tag,
    s.material_id "materialId", m.name material, m.polymer, m.filler,
  s.diameter_mm "diameterMm", json_build_object('diameterMm', s.diameter_mm, 'densityGCm3', s.density_g_cm3,
  'fillerFraction', s.filler_fraction) own,
    json_build_object('densityGCm3', m.density_g_cm3, 'fillerFraction', m.filler_fraction) "ofMaterial",
    s.hub, ${MASS_OF_SPOOL} mass,
    coalesce((select json_object_agg(v.key, v.value) from material_values v where v.material_id = m.id), '{}') facts,
    coalesce((select json_agg(json_build_object('id', e.id, 'kind', e.kind, 'at', ${iso('e.occurred_at')}, 'roomC',
    e.room_c, 'rh', e.rh, 'atC', e.at_c, 'hours', e.hours, 'headId', e.head_id, 'printer', (select p.name from heads h
    join printers p on p.id = h.printer_id where h.id = e.head_id)) order by e.occurred_at, e.id)
      from standing_spool_events e where e.spool_id = s.id and e.kind <> 'weighed'), '[]') events,
    coalesce((select json_agg(json_build_object('id', d.id, 'dryerId', d.dryer_id, 'dryer', y.name, 'kind',
    y.kind, 'timeOutH', y.time_out_h, 'setC', d.set_c, 'actualC', d.actual_c, 'plannedH', d.planned_h,
    'targetWt', d.target_wt,
        'from', ${iso('d.occurred_at')}, 'to',
        ${iso('d.ended_at')}, 'beforeG', d.gross_g, 'afterG', d.after_g, 'note', d.note,
        'person', u.name) order by d.occurred_at, d.id)
      from standing_dryings d join dryers y on y.id = d.dryer_id join people u on u.id = d.person_id
      where d.spool_id = s.id), '[]') dryings
  from spools s join materials m on m.id = s.material_id where ${where} order by s.tag`

export async function shopAir(db: Connection): Promise<ShopAir> {
  const [s] = await db.execute<ShopAir & Record<string, unknown>>(
    sql`select room_c "roomC", room_rh "roomRh", dry_box_rh "dryBoxRh", ${iso('dry_box_read_at')} "dryBoxReadAt"
      from settings`,
  )
  return s!
}

export async function spoolLogs(db: Connection, where = sql`true`): Promise<SpoolLog[]> {
  const rows = await db.execute<SpoolLog>(LOG_QUERY(where))
  return rows.map(r => ({ ...r, fillerFraction: filamentOfSpool(r.own, r.ofMaterial).fillerFraction }))
}

export function uptakeOfSpool(s: SpoolLog): Filament | null {
  return filamentOf(s.polymer, s.fillerFraction, s.diameterMm, {
    waterAt50: s.facts.waterAt50,
    d80E11: s.facts.diffusion80,
    eaKJMol: s.facts.diffusionEa,
    clean: s.facts.cleanWater,
    usual: s.facts.usualWater,
  })
}
