/** What a flow bench on a head with a spool rests on: its limits, its filament, and what was printed there. */
import { sql } from 'drizzle-orm'
import { cautionsFor, printing } from '#core/cautions'
import { hottestCellC, type BenchLimits } from '#core/flow'
import { ceilings, demandOfJob, offsetC, stackOf } from '#core/limits'
import { NOTHING_STANDS, notReady } from '#core/schedule'
import type { BenchPlanFacts } from '#shared/answers/flow'
import { demandsOf } from '#shared/asking'
import { filamentOfSpool } from '#shared/filament'
import type { Connection } from '../../db/client'
import { standings } from '../change/under-way'
import { notFound, refuseField } from '../entry/refusal'
import { factOf, listAskings } from '../materials/materials'
import { shopRules } from '../printers/ceilings'
import { loadedOn } from '../spools/spools'
import { listStacks } from '../printers/stack-read'

interface Spool extends Record<string, unknown> {
  id: number
  tag: string
  materialId: number
  diameterMm: number
  densityGCm3: number | null
  fillerFraction: number | null
}

/** All of it, with the head's place and tool, for who shows it and who begins one. */
export async function benchOn(db: Connection, headId: number, spoolId: number) {
  const [of] = await db.execute<{ printer_id: number }>(sql`select printer_id from heads where id = ${headId}`)
  if (!of) notFound('This head')
  const [[printer], rules, materials, [spool], [used], stand] = await Promise.all([
    listStacks(db, [of.printer_id]),
    shopRules(db),
    listAskings(db),
    db.execute<Spool>(sql`select id, tag, material_id "materialId", diameter_mm "diameterMm",
      density_g_cm3 "densityGCm3", filler_fraction "fillerFraction" from spools where id = ${spoolId}`),
    db.execute<{ highest: number | null; set_c: number | null }>(sql`
      select max(t.peak_flow_mm3_s) highest,
        (select l.set_c from standing_run_tools l where l.head_id = ${headId} and l.set_c is not null
          and l.material_id = (select material_id from spools where id = ${spoolId})
          order by l.ended_at desc, l.id desc limit 1) set_c
      from standing_run_tools t join standing_runs r on r.id = t.run_id
      where t.head_id = ${headId} and r.outcome = 'finished'
        and t.material_id = (select material_id from spools where id = ${spoolId})`),
    standings(db, [of.printer_id]),
  ])
  if (!spool) refuseField('spoolId', 'This spool is not known')
  const material = materials.find(m => m.id === spool.materialId)!
  const at = printer!.heads.findIndex(h => h.id === headId)
  const head = printer!.heads[at]!
  const limits: BenchLimits = {
    ceilingSetC: ceilings(printer!, rules).find(c => c.zone === 'hotend' && c.headId === headId)?.limitC ?? null,
    sensor: stackOf(printer!, headId).sensors.hotend,
    material: material.name,
    shortMaxC: factOf(material, 'shortMaxC'),
    lowestFlowC: factOf(material, 'lowestFlowC'),
  }
  const least = factOf(material, 'nozzleMinC')
  const byWindow = least === null ? null : least + (head.nozzle ? offsetC(head.nozzle.material) : 0)
  const hottestC = hottestCellC(limits)
  const usualC = used?.set_c ?? byWindow
  const stack = stackOf(printer!, headId)
  const base = demandsOf(material, spool.diameterMm)[0] ?? null
  const demand = demandOfJob('flow bench', { nozzleC: usualC, bedC: null, chamberC: null }, base)
  const several = printer!.heads.length > 1
  return {
    spool,
    material,
    nozzle: head.nozzle,
    place: several ? `${printer!.name} · ${head.name}` : printer!.name,
    tool: several ? at : null,
    limits,
    hottestC,
    filament: filamentOfSpool(spool, material),
    highestMm3S: used?.highest ?? null,
    usualC: usualC === null || hottestC === null ? usualC : Math.min(usualC, hottestC),
    notReady: notReady(printer!.name, stand.get(printer!.id) ?? NOTHING_STANDS)[0]?.reason ?? null,
    cautions: cautionsFor(printing(stack, demand, rules)).map(({ key, hazard, what }) => ({ key, hazard, what })),
  }
}

export async function spoolOn(db: Connection, headId: number): Promise<number | null> {
  const [s] = await db.execute<{ id: number | null }>(sql`
    select coalesce(
      (${loadedOn(headId)} order by l.occurred_at desc limit 1),
      (select t.spool_id from standing_run_tools t where t.head_id = ${headId} and t.spool_id is not null
        order by t.ended_at desc, t.id desc limit 1)) id`)
  return s!.id
}

/** With the spool that is asked about; without one the one that is loaded there, or that ran there last. */
export async function benchPlan(db: Connection, headId: number, asked: number | null): Promise<BenchPlanFacts> {
  const spoolId = asked ?? (await spoolOn(db, headId)) ?? refuseField('spoolId', 'Choose the spool')
  const b = await benchOn(db, headId, spoolId)
  const { place, limits, hottestC, highestMm3S, usualC, cautions } = b
  const [n] = b.nozzle
    ? await db.execute<{ id: number; name: string }>(sql`
        select n.id, y.name from nozzles n join nozzle_types y on y.id = n.type_id where n.id = ${b.nozzle.id}`)
    : []
  return {
    headId,
    spoolId,
    place,
    nozzle: n ? { id: n.id, tag: b.nozzle!.tag, typeName: n.name } : null,
    notReady: b.notReady,
    limits,
    hottestC,
    filament: { diameterMm: b.filament.diameterMm, densityGCm3: b.filament.densityGCm3 },
    highestMm3S,
    usualC,
    cautions,
  }
}
