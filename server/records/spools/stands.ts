/**
 * Stands of spools, kept: what is left on each, and where it stood and how wet it was at its last event. A row is taken
 * when it was made from the log as it is (its version), by today's model, air and factor; any other is worked out anew
 * from the log, for that spool alone.
 */
import { sql } from 'drizzle-orm'
import { DRYING_MODEL, type SpoolWater, type Wound } from '#core/drying'
import { spoolMass, type SpoolMass, type SpoolMassFacts } from '#core/materials'
import type { ShopAir, SpoolState } from '#shared/answers/spools'
import { spoolInUse } from '#shared/choices'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { spoolStands } from '../../db/schema'
import { basisOf } from '../entry/answers'
import { airAndFactor } from './factor'
import { spoolLogs, type SpoolLog } from './log'
import { standOf, stateFrom, type SpoolStand } from './moisture'

/** What a stand was worked out from, and whether anybody asks for its water. */
interface Made {
  version: number
  basis: string
  inUse: boolean
}
/** A row as it is kept, beside the version that its log has now. */
type Stored = Made & { id: number; now: number } & Record<string, unknown>
export interface KeptStand extends Made {
  spoolId: number
  leftG: number
  leftBy: SpoolMass['by']
  lastUsedAt: string | null
  stand: SpoolStand
}

/** What every stand rests on beside its log, and its name. */
interface RestsOn {
  air: ShopAir
  wound: Wound
  basis: string
}

const lastUse = ({ uses }: SpoolMassFacts) =>
  uses.length === 0 ? null : new Date(uses.reduce((last, u) => Math.max(last, u.at), -Infinity)).toISOString()

function made(s: SpoolLog, { air, wound, basis }: RestsOn, now: number): KeptStand {
  const { g, by } = spoolMass(s.mass)
  const stand = standOf(s, air, wound, now)
  const inUse = spoolInUse({ leftG: g, place: stand.event })
  return { spoolId: s.id, version: s.version, basis, inUse, leftG: g, leftBy: by, lastUsedAt: lastUse(s.mass), stand }
}

/** Forgets what this process has read; the rows in the database stand. */
export const forgetStands = (): void => read.clear()

/** Rows that this process has read, by database row: the water in one is some kilobytes, and it seldom changes. */
const read = new Map<number, KeptStand>()
const MOST_READ = 5000

const array = (m: { atAir: number; above: ArrayLike<number> }) => ({
  atAir: m.atAir,
  above: Float64Array.from(m.above),
})
const plain = (m: { atAir: number; above: ArrayLike<number> }) => ({ atAir: m.atAir, above: Array.from(m.above) })
/** Water as the core has it, from JSON, and the other way. */
const each = (w: SpoolWater, f: typeof array | typeof plain): SpoolWater =>
  ({ ...w, strand: f(w.strand), wound: f(w.wound), low: f(w.low) }) as SpoolWater
const turned = (s: SpoolStand, f: typeof array | typeof plain): SpoolStand =>
  s.water === null ? s : { ...s, water: { ...s.water, start: each(s.water.start, f) } }

const IN_USE_OR_CHANGED = sql`and (t.in_use or t.version is distinct from coalesce(v.version, 0))`

/** The stands of spools in use, or of those asked for. */
export async function freshStands(
  db: Connection,
  { air, wound }: { air: ShopAir; wound: Wound },
  ids?: readonly number[],
  now = Date.now(),
): Promise<KeptStand[]> {
  const basis = basisOf({ air, wound, model: DRYING_MODEL })
  // how much is left rests on the log alone; the water of a spool that is used up is nobody's question
  const holds = (of: Made, version: number) => of.version === version && (of.basis === basis || !of.inUse)
  const rows = await db.execute<Stored>(
    sql`select s.id, coalesce(v.version, 0)::int "now", t.version::int "version", t.basis, t.in_use "inUse"
      from spools s
      left join spool_versions v on v.spool_id = s.id left join spool_stands t on t.spool_id = s.id
      where ${idIn('s.id', ids)} ${ids === undefined ? IN_USE_OR_CHANGED : sql``}`,
  )
  const out: KeptStand[] = []
  const wanted: number[] = []
  const anew: number[] = []
  for (const r of rows) {
    const known = read.get(r.id)
    if (!holds(r, r.now)) anew.push(r.id)
    else if (known && holds(known, r.now) && lasts(known, now)) out.push(known)
    else wanted.push(r.id)
  }
  const kept = wanted.length === 0 ? [] : await db.select().from(spoolStands).where(idIn('spool_id', wanted))
  for (const { lastUsedAt, ...row } of kept) {
    const one = { ...row, lastUsedAt: lastUsedAt?.toISOString() ?? null, stand: turned(row.stand, array) }
    // another process may have renewed it meanwhile
    if (!holds(one, rows.find(r => r.id === row.spoolId)!.now) || !lasts(one, now)) anew.push(row.spoolId)
    else {
      remember(db, one)
      out.push(one)
    }
  }
  if (anew.length > 0) out.push(...(await workedOut(db, { air, wound, basis }, anew, now)))
  return ids === undefined ? out.filter(k => k.inUse) : out
}

/** It was worked out by then, and nothing that its log knew of has happened since. */
const lasts = ({ stand: { from, until } }: KeptStand, now: number) => from <= now && (until === null || until > now)

/** What a transaction sees is not kept: it may yet be rolled back, and its version be given to something else. */
function remember(db: Connection, kept: KeptStand): void {
  if ('rollback' in db) return
  if (read.size >= MOST_READ) read.clear()
  read.set(kept.spoolId, kept)
}

async function workedOut(db: Connection, on: RestsOn, ids: readonly number[], now: number): Promise<KeptStand[]> {
  const out: KeptStand[] = []
  // some at a time: the logs of all spools at once would fill the memory, and others get their turn between
  for (let from = 0; from < ids.length; from += AT_ONCE) {
    const logs = await spoolLogs(db, idIn('s.id', ids.slice(from, from + AT_ONCE)))
    const fresh = logs.map(s => made(s, on, now))
    out.push(...fresh)
    for (const k of fresh) remember(db, k)
    await db.execute(sql`
      insert into spool_stands (spool_id, version, basis, in_use, left_g, left_by, last_used_at, stand)
      select (x->>'spoolId')::int, (x->>'version')::bigint, x->>'basis', (x->>'inUse')::boolean, (x->>'leftG')::float8,
        x->>'leftBy', (x->>'lastUsedAt')::timestamptz, x->'stand'
      from jsonb_array_elements(${JSON.stringify(fresh.map(k => ({ ...k, stand: turned(k.stand, plain) })))}::jsonb) x
      order by 1
      on conflict (spool_id) do update set version = excluded.version, basis = excluded.basis,
        in_use = excluded.in_use, left_g = excluded.left_g, left_by = excluded.left_by,
        last_used_at = excluded.last_used_at, stand = excluded.stand`)
  }
  return out
}
const AT_ONCE = 50

/**
 * The background job: works out some stands that are out of date, so that after an upgrade of a large shop, or another
 * air, nobody waits for all of them. Answers how many.
 */
export async function refreshStands(db: Connection, most = 20): Promise<number> {
  const rows = await db.execute<{ id: number }>(sql`
    select s.id from spools s left join spool_versions v on v.spool_id = s.id
    left join spool_stands t on t.spool_id = s.id
    where t.version is distinct from coalesce(v.version, 0)
    order by v.version desc nulls last, s.id desc limit ${most}`)
  if (rows.length > 0)
    await freshStands(
      db,
      await airAndFactor(db),
      rows.map(r => r.id),
    )
  return rows.length
}

/** The state of every spool in use, with what it rests on. */
export async function spoolStates(
  db: Connection,
  now = Date.now(),
): Promise<{
  spools: SpoolState[]
  air: ShopAir
  wound: Awaited<ReturnType<typeof airAndFactor>>['wound']
  at: number
}> {
  const { air, wound } = await airAndFactor(db)
  const kept = await freshStands(db, { air, wound }, undefined, now)
  const ids = kept.map(k => k.spoolId)
  const [names, printers] = await Promise.all([
    db.execute<{ id: number; tag: string; materialId: number; material: string; hub: string }>(sql`
      select s.id, s.tag, s.material_id "materialId", m.name material, s.hub from spools s
      join materials m on m.id = s.material_id where ${idIn('s.id', ids)} order by s.tag`),
    db.execute<{ head: number; name: string }>(
      sql`select h.id head, p.name from heads h join printers p on p.id = h.printer_id`,
    ),
  ])
  const byId = new Map(kept.map(k => [k.spoolId, k]))
  const spools = names.flatMap(s => {
    const k = byId.get(s.id)
    if (!k) return []
    const printer = printers.find(p => p.head === k.stand.headId)?.name ?? null
    return [stateFrom({ ...s, printer }, k.stand, air, wound, now)]
  })
  return { spools, air, wound, at: now }
}
