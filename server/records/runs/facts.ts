/**
 * What the shop knows that runs rest on: read once for all of them, so that one run and ten thousand go the same way.
 * A run that was taken in adds to it, and the next is told of it.
 */
import { sql } from 'drizzle-orm'
import type { FullScan } from '#core/gcode'
import type { SpoolMassFacts } from '#core/materials'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { iso } from '../../db/iso'
import type { runs, runTools } from '../../db/schema'
import { heads, jobs, materials, nozzles, printers, spools } from '../../db/schema'
import { MASS_OF_SPOOL } from '../spools/mass'
import { shopSettings } from '../shop/settings'

/** Which things runs name. */
export interface Named {
  printerId: number
  endedAt: Date
  /** How long it took: what else went on meanwhile is looked up. */
  hours: number | null
  jobId: number | null
  tools: readonly { headId: number; nozzleId: number | null; spoolId: number | null; materialId: number | null }[]
}
/** The nozzle that sat on a head when a run ended. */
export interface Fitted extends Record<string, unknown> {
  nozzleId: number
  tag: string
  at: string
}
/** What a head has printed. */
export interface Logged {
  name: string
  person: string
  toMs: number
  hours: number | null
  extrudedG: number
  material: string
}
export interface RunFacts {
  printers: ReadonlySet<number>
  heads: ReadonlyMap<number, typeof heads.$inferSelect>
  nozzles: ReadonlyMap<number, string>
  spools: ReadonlyMap<number, typeof spools.$inferSelect>
  materials: ReadonlyMap<number, typeof materials.$inferSelect>
  scans: ReadonlyMap<number, FullScan>
  fittedAt: (headId: number, endedAt: Date) => Fitted | null
  /** By head, in the order in which they ended. */
  logged: Map<number, Logged[]>
  masses: Map<number, { tag: string; mass: Mass }>
  highestFlowMm3S: number
}
type Mass = Omit<SpoolMassFacts, 'weighings' | 'uses'> & {
  weighings: SpoolMassFacts['weighings'][number][]
  uses: SpoolMassFacts['uses'][number][]
}

const HOUR_MS = 3_600_000
/** Of what a head printed after these runs the first so many are read: one that took long may have begun before. */
const LATER = 100
const known = (ids: readonly (number | null)[]) => [...new Set(ids.filter(x => x !== null))].sort((a, b) => a - b)
const byId = <T extends { id: number }>(rows: readonly T[]) => new Map(rows.map(r => [r.id, r]))
const key = (headId: number, at: Date) => `${headId} ${at.getTime()}`

/** Two runs of one printer do not slip past each other: the second sees the first and is asked about. */
async function lockPrinters(tx: Connection, ids: readonly number[]): Promise<Set<number>> {
  const rows = await tx
    .select({ id: printers.id })
    .from(printers)
    .where(idIn('printers.id', known(ids)))
    .orderBy(printers.id)
    .for('no key update')
  return new Set(rows.map(r => r.id))
}

export async function runFacts(tx: Connection, named: readonly Named[]): Promise<RunFacts> {
  const lockedPrinters = await lockPrinters(
    tx,
    named.map(n => n.printerId),
  )
  const tools = named.flatMap(n => n.tools)
  const spoolIds = known(tools.map(t => t.spoolId))
  const ofHead = byId(
    await tx
      .select()
      .from(heads)
      .where(idIn('heads.id', known(tools.map(t => t.headId)))),
  )
  const spoolsNamed = byId(await tx.select().from(spools).where(idIn('spools.id', spoolIds)))
  const materialIds = known([...tools.map(t => t.materialId), ...[...spoolsNamed.values()].map(s => s.materialId)])
  const jobIds = known(named.map(n => n.jobId))
  const scans =
    jobIds.length === 0
      ? []
      : await tx.select({ id: jobs.id, scan: jobs.scan }).from(jobs).where(idIn('jobs.id', jobIds))
  const fitted = await fittedOf(tx, named)
  const tags = await tx
    .select({ id: nozzles.id, tag: nozzles.tag })
    .from(nozzles)
    .where(idIn('nozzles.id', known([...tools.map(t => t.nozzleId), ...[...fitted.values()].map(f => f.nozzleId)])))
  return {
    printers: lockedPrinters,
    heads: ofHead,
    nozzles: new Map(tags.map(n => [n.id, n.tag])),
    spools: spoolsNamed,
    materials: byId(await tx.select().from(materials).where(idIn('materials.id', materialIds))),
    scans: new Map(scans.map(j => [j.id, j.scan])),
    fittedAt: (headId, at) => fitted.get(key(headId, at)) ?? null,
    logged: await loggedOn(tx, named),
    masses: await massesOf(tx, spoolIds),
    highestFlowMm3S: (await shopSettings(tx)).highestFlowMm3S,
  }
}

/** Which nozzle sat on each head when each run ended: one question for all of them. */
async function fittedOf(tx: Connection, named: readonly Named[]): Promise<Map<string, Fitted>> {
  const asked = new Map(
    named.flatMap(n => n.tools.map(t => [key(t.headId, n.endedAt), [t.headId, n.endedAt]] as const)),
  )
  const pairs = JSON.stringify([...asked.values()].map(([id, at]) => [id, at.getTime()]))
  const rows = await tx.execute<Fitted & { headId: number; ms: number }>(sql`
    select x.head_id "headId", x.ms, f.nozzle_id "nozzleId", n.tag, ${iso('f.occurred_at')} at
    from (select (e->>0)::int head_id, (e->>1)::float8 ms from jsonb_array_elements(${pairs}::jsonb) e) x
    cross join lateral (select l.kind, l.nozzle_id, l.occurred_at from standing_fittings l
      where l.head_id = x.head_id and l.occurred_at <= to_timestamp(x.ms / 1000)
      order by l.occurred_at desc, l.id desc limit 1) f
    join nozzles n on n.id = f.nozzle_id where f.kind = 'fit'`)
  return new Map(rows.map(({ headId, ms, nozzleId, tag, at }) => [key(headId, new Date(ms)), { nozzleId, tag, at }]))
}

/** What the heads printed from shortly before the first of these runs began, and a little after the last ended. */
async function loggedOn(tx: Connection, named: readonly Named[]): Promise<Map<number, Logged[]>> {
  const spans = new Map<number, { from: number; to: number }>()
  for (const n of named)
    for (const { headId } of n.tools) {
      const to = n.endedAt.getTime()
      const from = to - (n.hours ?? 0) * HOUR_MS - HOUR_MS
      const s = spans.get(headId)
      spans.set(headId, { from: Math.min(from, s?.from ?? from), to: Math.max(to, s?.to ?? to) })
    }
  const asked = JSON.stringify([...spans].map(([id, { from, to }]) => [id, from, to]))
  const rows = await tx.execute<Logged & { headId: number } & Record<string, unknown>>(sql`
    select l.head_id "headId", r.name, w.name person, extract(epoch from l.ended_at) * 1000 "toMs", r.hours,
      l.extruded_g "extrudedG", l.material_name material
    from (select (e->>0)::int head_id, to_timestamp((e->>1)::float8 / 1000) lo, to_timestamp((e->>2)::float8 / 1000) hi
      from jsonb_array_elements(${asked}::jsonb) e) x
    cross join lateral (
      (select t.* from standing_run_tools t where t.head_id = x.head_id and t.ended_at > x.lo and t.ended_at <= x.hi)
      union all
      (select t.* from standing_run_tools t where t.head_id = x.head_id and t.ended_at > x.hi
        order by t.ended_at limit ${LATER})) l
    join runs r on r.id = l.run_id join people w on w.id = r.person_id order by l.ended_at, r.id`)
  const out = new Map<number, Logged[]>([...spans.keys()].map(id => [id, []]))
  for (const { headId, toMs, ...l } of rows) out.get(headId)!.push({ ...l, toMs: Number(toMs) })
  return out
}

async function massesOf(tx: Connection, spoolIds: readonly number[]): Promise<RunFacts['masses']> {
  if (spoolIds.length === 0) return new Map()
  const rows = await tx.execute<{ id: number; tag: string; mass: Mass }>(
    sql`select s.id, s.tag, ${MASS_OF_SPOOL} mass from spools s where ${idIn('s.id', spoolIds)}`,
  )
  return new Map(rows.map(({ id, tag, mass }) => [id, { tag, mass }]))
}

/** The first that ended after a moment. */
export function firstAfter(sorted: readonly Logged[], ms: number): number {
  let [low, high] = [0, sorted.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (sorted[middle]!.toMs > ms) high = middle
    else low = middle + 1
  }
  return low
}

type Row = typeof runTools.$inferInsert
/** A run that is taken in is one that the next is compared with, and what it took is gone from its spool. */
export function tookIn(
  facts: RunFacts,
  run: Pick<typeof runs.$inferInsert, 'name' | 'endedAt' | 'hours'>,
  rows: readonly Omit<Row, 'runId'>[],
): void {
  const toMs = run.endedAt.getTime()
  for (const r of rows) {
    const list = facts.logged.get(r.headId)!
    const { name, hours = null } = run
    const entry = {
      name,
      person: 'another line of this table',
      toMs,
      hours,
      extrudedG: r.extrudedG,
      material: r.materialName,
    }
    list.splice(firstAfter(list, toMs), 0, entry)
    const mass = r.spoolId === null || r.spoolId === undefined ? undefined : facts.masses.get(r.spoolId)?.mass
    if (!mass) continue
    mass.uses.push({ at: toMs, g: r.extrudedG })
    if (r.beforeG) mass.weighings.push({ at: toMs - 1, grossG: r.beforeG })
    if (r.afterG) mass.weighings.push({ at: toMs, grossG: r.afterG })
  }
}
