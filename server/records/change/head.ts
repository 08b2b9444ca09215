/** A head with all that changing its nozzle or its hotend is worked out from: what went through, what comes next. */
import { sql } from 'drizzle-orm'
import { torqueFor, turning, type ZWay } from '#core/changeover'
import { ceilings, nozzleKind, offsetC, stackOf, type FittedNozzle } from '#core/limits'
import type { Coming, HeadFacts } from '#core/procedures'
import type { MaterialRow } from '#shared/answers/materials'
import type { StackPrinter } from '#shared/answers/printers'
import { demandsOf } from '#shared/asking'
import { USUAL_DIAMETER_MM } from '#shared/filament'
import type { Connection } from '../../db/client'
import { notFound } from '../entry/refusal'
import { factOf, listAskings } from '../materials/materials'
import { purgeC, throughFitted } from '../prepare/changeovers'
import { shopRules } from '../printers/ceilings'
import { hotendOnHead } from '../printers/fittings'
import { listStacks } from '../printers/stack-read'
import { setOnHead, wayOfPrinter } from '../level/z-records'
import { loadedOn } from '../spools/spools'
import { nozzleRows, type NozzleRow } from './shelf'
import { underWay } from './under-way'

interface Next extends Record<string, unknown> {
  name: string
  materialId: number
  fibreG: number | null
  setC: number | null
}
/** What comes next on a head: checks that were not run yet, the spool that is loaded, jobs like the last. */
const comingRows = (db: Connection, headId: number) =>
  db.execute<Next>(sql`
    select * from (
      (select c.name, c.material_id "materialId", null::float8 "fibreG", null::float8 "setC", 0 rank, c.id::int "order"
      from prechecks c where c.head_id = ${headId} and c.may and c.occurred_at > now() - interval '3 days'
        and not exists (select from standing_runs r where r.precheck_id = c.id)
      order by c.occurred_at desc limit 3)
      union all
      (select s.tag, s.material_id, null, null, 1, s.id from spools s where s.id in (${loadedOn(headId)}))
      union all
      (select r.name, t.material_id, t.fibre_g, t.set_c, 2, t.id::int from standing_run_tools t
      join runs r on r.id = t.run_id where t.head_id = ${headId}
        and not exists (select from flow_bench_runs f where f.run_id = r.id)
      order by t.ended_at desc, t.id desc limit 1)
    ) x order by x.rank, x."order" desc`)

/** The head of a printer with all that a swap on it is worked out from. */
export async function headFor(db: Connection, headId: number) {
  const [of] = await db.execute<{ printer_id: number }>(sql`select printer_id from heads where id = ${headId}`)
  if (!of) notFound('This head')
  const [[printer], rules, materials, nozzles, through, next, hotend, [z]] = await Promise.all([
    listStacks(db, [of.printer_id]),
    shopRules(db),
    listAskings(db),
    nozzleRows(db, headId),
    throughFitted(db),
    comingRows(db, headId),
    hotendOnHead(db, headId),
    db.execute<{ way: ZWay | null; z_mm: number | null }>(sql`
      select ${wayOfPrinter(of.printer_id)} way, ${setOnHead(headId)} z_mm`),
  ])
  const old = nozzles.find(n => n.here) ?? null
  const stands = through.find(t => t.nozzleId === old?.id)
  const named = (id: number | null | undefined) => materials.find(m => m.id === id) ?? null
  const coming = next.flatMap(n => {
    const material = named(n.materialId)
    return material ? [{ ...n, material }] : []
  })
  return {
    printer: printer!,
    hotend,
    rules,
    materials,
    shelf: nozzles.filter(n => !n.here),
    old,
    through: (stands?.materialIds ?? []).flatMap(id => named(id) ?? []),
    holds: named(stands?.lastId),
    coming: coming.filter((c, i) => coming.findIndex(o => o.materialId === c.materialId) === i),
    zWay: z!.way,
    zMm: z!.z_mm,
  }
}
export type HeadFor = Awaited<ReturnType<typeof headFor>>

/** The hotend's ceiling as a setpoint, by what its weakest part stands with this nozzle; null when it is not known. */
function ceilingOf(printer: StackPrinter, headId: number, nozzle: FittedNozzle | null, h: HeadFor): number | null {
  const known = ceilingsKnown.get(h) ?? new Map<string, number | null>()
  ceilingsKnown.set(h, known)
  const key = `${headId} ${nozzle ? nozzleKind(nozzle) : ''}`
  if (!known.has(key)) {
    const heads = printer.heads.map(x => (x.id === headId ? { ...x, nozzle } : x))
    const all = ceilings({ ...printer, heads }, h.rules)
    known.set(key, all.find(c => c.zone === 'hotend' && c.headId === headId)?.limitC ?? null)
  }
  return known.get(key) ?? null
}
/** A shelf has many nozzles alike: what the hotend stands with one it stands with the others. */
const ceilingsKnown = new WeakMap<HeadFor, Map<string, number | null>>()

const demandsHere = (m: MaterialRow, enclosed: boolean) => {
  const all = demandsOf(m, USUAL_DIAMETER_MM)
  const here = all.filter(d => enclosed || !d.enclosed)
  return here.length > 0 ? here : all
}

/** What the hottest coming job sets with this nozzle, within the ceiling; null when none is hotter than turning it. */
function resnugAt(h: HeadFor, n: NozzleRow, ceilingC: number, turnC: number): HeadFacts['resnug'] {
  let hottest: { setC: number; job: string } | null = null
  for (const c of h.coming) {
    const least = factOf(c.material, 'nozzleMinC')
    const setC = c.setC ?? (least === null ? null : least + offsetC(n.material))
    if (setC !== null && (hottest === null || setC > hottest.setC)) hottest = { setC, job: c.material.name }
  }
  if (hottest === null) return null
  const setC = Math.min(hottest.setC, Math.floor(ceilingC))
  return setC > turnC ? { setC, job: hottest.job } : null
}

export const placeOf = (printer: StackPrinter, headId: number) =>
  printer.heads.length > 1 ? `${printer.name} · ${printer.heads.find(h => h.id === headId)!.name}` : printer.name

/** What each offer says of its head. */
export const offeredOn = async (db: Connection, { printer, ...h }: HeadFor, headId: number) => ({
  headId,
  place: placeOf(printer, headId),
  printer: printer.name,
  printerId: printer.id,
  under: (await underWay(db, [printer.id]))[0] ?? null,
  coming: comingWords(h),
})

/** How hot the nozzle on this head is turned, and why it may not be. */
export function turningOn(h: HeadFor, headId: number, fresh: FittedNozzle | null) {
  const { printer } = h
  const now = printer.heads.find(x => x.id === headId)!.nozzle
  const each = [now, ...(fresh ? [fresh] : [])].map(n => ceilingOf(printer, headId, n, h))
  const ceilingC = each.includes(null) ? null : Math.min(...(each as number[]))
  const sensor = stackOf(printer, headId).sensors.hotend
  const through = h.through.map(m => ({ name: m.name, swapC: factOf(m, 'swapC') }))
  return { ceilingC, sensor, t: turning(sensor, ceilingC, through) }
}

/** What comes next here, as filaments with their practices on this printer. */
export function comingTo(h: HeadFor, headId: number): Coming[] {
  const enclosed = stackOf(h.printer, headId).air.enclosure !== null
  return h.coming.map(c => ({
    name: c.material.name,
    demands: demandsHere(c.material, enclosed),
    fibreG: c.fibreG,
  }))
}
/** The same in words. */
export const comingWords = (h: Pick<HeadFor, 'coming'>) =>
  h.coming.map(c => (c.name === c.material.name ? c.name : `${c.material.name} (${c.name})`))

/** What both procedures ask of the head, with nozzle `n` in it and what it `holds`. */
export function headFacts(
  h: HeadFor,
  headId: number,
  n: NozzleRow,
  at: { ceilingC: number; turnC: number; holds: MaterialRow | null },
): HeadFacts {
  const { printer } = h
  const parts = printer.parts.filter(p => p.headId === headId)
  const sensor = stackOf(printer, headId).sensors.hotend
  const likely = h.coming.map(c => c.materialId)
  const place = (m: MaterialRow) => (likely.includes(m.id) ? likely.indexOf(m.id) : likely.length)
  return {
    place: placeOf(printer, headId),
    head: printer.heads.findIndex(x => x.id === headId),
    resnug: resnugAt(h, n, at.ceilingC, at.turnC),
    torque: torqueFor(
      { material: n.material, insert: n.insertMm !== null, channelMm: n.inletMm, makerNm: n.torqueNm },
      parts.find(p => p.role === 'block')?.kind ?? null,
    ),
    sock: parts.some(p => p.role === 'sock'),
    liner: parts.some(p => p.role === 'liner'),
    materials: [...h.materials]
      .sort((a, b) => place(a) - place(b) || a.name.localeCompare(b.name))
      .map(m => ({ id: m.id, name: m.name, purgeC: at.holds && purgeC(sensor, at.holds, m, at.ceilingC) })),
    holds: at.holds?.name ?? null,
    zWay: h.zWay,
    zMm: h.zMm,
  }
}

/** Why nothing of the kind can be worked out in this shop yet; null when it can. */
export const nothingDescribed = (h: HeadFor) =>
  h.materials.length > 0
    ? null
    : {
        says: 'No filament is described yet: how hot to turn it and what to purge with is not known.',
        where: '/equip/materials?add=1',
        action: 'Describe the first filament',
      }
