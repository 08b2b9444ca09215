/**
 * Procedures as they are read. What is shown comes from the entries alone, so whoever opens one, on whatever device,
 * finds it where it was left.
 */
import { sql } from 'drizzle-orm'
import { progress, type ClogFacts, type HotendFacts, type Step, type SwapFacts } from '#core/procedures'
import type { ProcedureLine, ProcedurePage, Tick } from '#shared/answers/change'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { iso } from '../../db/iso'
import { notFound } from '../entry/refusal'
import { proofOf } from './proofs'
import { clogFacts } from './clog'
import { swapFacts } from './swap'
import { hotendFacts } from './hotend'
import { clogOf, hotendOf, swapOf, type Procedure } from './ticks'

interface Row extends Record<string, unknown> {
  id: number
  kind: Procedure['kind']
  title: string
  printer: string
  printerId: number
  headId: number | null
  begunAt: string
  by: string
  note: string
  steps: Step[]
  facts: Procedure['facts']
  ended: ProcedureLine['ended']
  struck: string | null
}

async function rowsOf(db: Connection, which: ReturnType<typeof sql>): Promise<Row[]> {
  return await db.execute<Row>(sql`
    select p.id::int, p.kind, p.title, r.name printer, p.printer_id "printerId", p.head_id "headId",
      ${iso('p.occurred_at')} "begunAt", u.name "by", p.note, p.steps, p.facts,
      (select json_build_object('outcome', n.outcome, 'at', ${iso('n.occurred_at')}, 'by', w.name, 'note', n.note)
        from endings n join people w on w.id = n.person_id where n.target = 'procedure' and n.target_id = p.id) ended,
      (select s.reason from strikes s where s.target = 'procedure' and s.target_id = p.id) struck
    from procedures p join printers r on r.id = p.printer_id join people u on u.id = p.person_id
    where ${which} order by p.occurred_at desc, p.id desc limit 60`)
}

async function ticksOf(db: Connection, ids: readonly number[]): Promise<Map<number, Tick[]>> {
  const out = new Map<number, Tick[]>(ids.map(id => [id, []]))
  const rows = await db.execute<Tick & { procedureId: number } & Record<string, unknown>>(sql`
    select t.id::int, t.procedure_id::int "procedureId", t.step, ${iso('t.occurred_at')} at, u.name "by",
      t.entered "values", t.read_c "readC", t.read_by "readBy",
      (select s.reason from strikes s where s.target = 'procedure tick' and s.target_id = t.id) struck
    from procedure_ticks t join people u on u.id = t.person_id where ${idIn('t.procedure_id', ids)} order by t.id`)
  for (const { procedureId, ...t } of rows) out.get(procedureId)!.push(t)
  return out
}

function lineOf(r: Row, ticks: readonly Tick[]): ProcedureLine {
  const standing = ticks.filter(t => t.struck === null)
  const { done, of, open } = progress(r.steps, standing)
  const last = standing.at(-1)
  const { id, kind, title, printer, printerId, headId, begunAt, by, ended, struck } = r
  return {
    ...{ id, kind, title, printer, printerId, headId, begunAt, by, ended, struck, done, of },
    next: open[0]?.title ?? null,
    lastAt: last?.at ?? begunAt,
    lastBy: last?.by ?? by,
  }
}

/** Those under way, and the latest that ended. */
export async function listProcedures(db: Connection): Promise<ProcedureLine[]> {
  const rows = await rowsOf(db, sql`true`)
  const ticks = await ticksOf(
    db,
    rows.map(r => r.id),
  )
  return rows.map(r => lineOf(r, ticks.get(r.id)!))
}

export async function procedurePage(db: Connection, id: number): Promise<ProcedurePage> {
  const [row] = await rowsOf(db, sql`p.id = ${id}`)
  if (!row) notFound('This procedure')
  const ticks = (await ticksOf(db, [id])).get(id)!
  const open = row.ended === null && row.struck === null
  return {
    ...lineOf(row, ticks),
    swap: swapOf(row),
    hotend: hotendOf(row),
    proofs: await proofsOf(
      db,
      row,
      ticks.filter(t => t.struck === null),
    ),
    steps: row.steps,
    ticks,
    changed: open ? await changedSince(db, row) : [],
    note: row.note,
  }
}

/** What a procedure was worked out from and is so no longer. */
async function changedSince(db: Connection, row: Row): Promise<string[]> {
  const hotend = hotendOf(row)
  if (hotend !== null) return hotendChangedSince(db, hotend)
  const clog = clogOf(row)
  if (clog !== null) return clogChangedSince(db, row.headId!, clog)
  const was = swapOf(row)
  if (was === null) return []
  const { facts: is } = await swapFacts(db, row.headId!, was.fresh.id)
  if (is === null) return [`${was.fresh.tag} is not on the shelf any more, or the nozzle may not be turned now.`]
  const out: string[] = []
  if ((is.old?.id ?? null) !== (was.old?.id ?? null))
    out.push(`${is.old ? `${is.old.tag} is logged as fitted there now` : 'No nozzle is logged as fitted there now'}.`)
  if (is.turn.setC !== was.turn.setC) out.push(`It is turned at ${is.turn.setC} °C now, not at ${was.turn.setC} °C.`)
  if (is.torque.newtonMetre < was.torque.newtonMetre - 0.05)
    out.push(`It stands ${is.torque.newtonMetre.toFixed(1)} N·m now, not ${was.torque.newtonMetre.toFixed(1)} N·m.`)
  const most = (r: SwapFacts['resnug']) => r?.setC ?? 0
  if (most(is.resnug) < most(was.resnug)) out.push('The hottest coming job is cooler than it was when this began.')
  return out
}

async function clogChangedSince(db: Connection, headId: number, was: ClogFacts): Promise<string[]> {
  const { facts: is, refusal } = await clogFacts(db, headId)
  if (is === null) return [refusal.says]
  if (is.nozzle.id !== was.nozzle.id) return [`${is.nozzle.tag} is logged as fitted there now.`]
  return is.holds === was.holds
    ? []
    : [`${is.holds ?? 'Nobody knows what'} stands in it now, not ${was.holds ?? 'that'}.`]
}

async function hotendChangedSince(db: Connection, was: HotendFacts): Promise<string[]> {
  const { facts: is, refusal } = await hotendFacts(db, was.headId, was.fresh.id)
  if (is === null) return [refusal]
  const out: string[] = []
  if ((is.old?.id ?? null) !== (was.old?.id ?? null))
    out.push(`${is.old ? `${is.old.tag} is logged as sitting there now` : 'No hotend is logged there now'}.`)
  if (is.fresh.nozzle.id !== was.fresh.nozzle.id)
    out.push(`${is.fresh.nozzle.tag} is in ${is.fresh.tag} now, not ${was.fresh.nozzle.tag}.`)
  if (is.firmware.mostC < was.firmware.mostC)
    out.push(`${is.fresh.tag} stands ${is.firmware.mostC} °C now, not ${was.firmware.mostC} °C.`)
  if (is.fresh.sensor !== was.fresh.sensor) out.push(`Its sensor is ${is.fresh.sensor} now, not ${was.fresh.sensor}.`)
  return out
}

/** Which record proves each step that asks for one. */
async function proofsOf(db: Connection, row: Row, ticks: readonly Tick[]): Promise<ProcedurePage['proofs']> {
  const of = { printerId: row.printerId, occurredAt: new Date(row.begunAt) }
  const found = row.steps.flatMap(({ key, proof }) =>
    proof === null ? [] : [proofOf(db, of, proof, ticks).then(says => [key, says] as const)],
  )
  return Object.fromEntries(await Promise.all(found))
}
