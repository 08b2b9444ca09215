/** Cases, findings and closings as they stand in the database, and a case worked out from them. */
import { sql, type SQL } from 'drizzle-orm'
import {
  answerOf,
  countsAs,
  evidenceOf,
  posterior,
  recordsTell,
  startOf,
  type Cause,
  type Chances,
  type Closing,
  type KnownFacts,
  type Told,
} from '#core/diagnosis'
import type { CaseClosing, CaseFinding } from '#shared/answers/diagnosis'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import type { caseClosings } from '../../db/schema'
import { struckOf, type Strike } from '../entry/struck'
import { PLACE_OF_HEAD } from '../printers/fittings'
import type { CaseOf } from './known'

export interface CaseRow extends CaseOf, Strike {
  place: string
  nozzle: string | null
  material: string | null
  spool: string | null
  runName: string | null
  runAt: string | null
  afterId: number | null
  picture: string | null
  note: string
  person: string
}
export const casesOf = (db: Connection, which: SQL) =>
  db.execute<CaseRow>(sql`
    select c.id::int, c.head_id "headId", h.printer_id "printerId", ${PLACE_OF_HEAD} place, c.nozzle_id "nozzleId",
      n.tag nozzle, c.spool_id "spoolId", s.tag spool, c.material_id "materialId", m.name material,
      c.run_id::int "runId", r.name "runName", ${iso('r.ended_at')} "runAt", c.after_id::int "afterId", c.picture,
      c.note,
      ${iso('c.occurred_at')} "at", w.name person, k.reason strike_reason, kw.name struck_by
    from cases c join heads h on h.id = c.head_id join printers p on p.id = h.printer_id
    join people w on w.id = c.person_id left join nozzles n on n.id = c.nozzle_id
    left join spools s on s.id = c.spool_id left join materials m on m.id = c.material_id
    left join runs r on r.id = c.run_id left join strikes k on k.target = 'case' and k.target_id = c.id
    left join people kw on kw.id = k.person_id
    where ${which} order by c.occurred_at desc, c.id desc limit 400`)

interface FindingRow extends Omit<CaseFinding, 'struck'>, Strike {
  caseId: number
}
/** Findings of cases, in the order in which they were entered. */
export async function findingsOf(db: Connection, which: SQL): Promise<(CaseFinding & { caseId: number })[]> {
  const rows = await db.execute<FindingRow & Record<string, unknown>>(sql`
    select f.id::int, f.case_id::int "caseId", f.kind, f.key, f.state, f.note, ${iso('f.occurred_at')} "at",
      w.name person, k.reason strike_reason, kw.name struck_by
    from case_findings f join cases c on c.id = f.case_id join people w on w.id = f.person_id
    left join strikes k on k.target = 'finding' and k.target_id = f.id left join people kw on kw.id = k.person_id
    where ${which} order by f.id`)
  return (rows as FindingRow[]).map(withStruck)
}
const withStruck = <T extends Strike>({ strike_reason, struck_by, ...rest }: T) => ({
  ...rest,
  struck: struckOf({ strike_reason, struck_by }),
})

interface ClosingRow extends Omit<CaseClosing, 'struck'>, Strike {
  caseId: number
  said: typeof caseClosings.$inferSelect.said
}
export async function closingsOf(db: Connection, which: SQL, said: SQL = sql`l.said`) {
  const rows = await db.execute<ClosingRow & Record<string, unknown>>(sql`
    select l.id::int, l.case_id::int "caseId", l.cause, l.known, l.how, ${said} said, l.note,
      ${iso('l.occurred_at')} "at", w.name person, k.reason strike_reason, kw.name struck_by
    from case_closings l join cases c on c.id = l.case_id join people w on w.id = l.person_id
    left join strikes k on k.target = 'closing' and k.target_id = l.id left join people kw on kw.id = k.person_id
    where ${which} order by l.id`)
  return (rows as ClosingRow[]).map(withStruck)
}
export type ReadClosing = Awaited<ReturnType<typeof closingsOf>>[number]
/** Closings that stand, of cases that do, without all that each rested on. */
export const standingClosings = async (db: Connection, which: SQL = sql`true`): Promise<ReadClosing[]> =>
  (
    await closingsOf(
      db,
      sql`${which} and not exists (select from strikes x where x.target = 'case' and x.target_id = c.id)`,
      sql`(l.said - 'told' - 'start')`,
    )
  ).filter(l => l.struck === null)

/**
 * Clogs that were cleared step by step and are in no case: each tells how often it is that, as a repair does. One that
 * a case of its head was closed with within two days is that case.
 */
export async function clearedClogs(db: Connection): Promise<number> {
  const [row] = await db.execute<{ n: number }>(sql`
    select count(*)::int n from standing_procedures p where p.kind = 'clog' and p.outcome = 'done'
      and exists (select from standing_procedure_ticks t where t.procedure_id = p.id and t.step = 'cleared'
        and t.entered->>'clearedBy' <> 'nothing')
      and not exists (select from standing_case_closings l join cases c on c.id = l.case_id
        where c.head_id = p.head_id and l.cause = 'partial clog'
          and abs(extract(epoch from l.occurred_at - p.ended_at)) < 2 * 86400)`)
  return row!.n
}
const startFrom = (closed: readonly ReadClosing[], clogs: number): Chances =>
  startOf([
    ...closed.map((l): Closing => ({ cause: l.cause, known: countsAs(l.known) })),
    ...Array.from({ length: clogs }, (): Closing => ({ cause: 'partial clog', known: 'proved' })),
  ])

/** The case that each case follows. A case follows one that was there before it, so there is no circle. */
async function follows(db: Connection): Promise<ReadonlyMap<number, number>> {
  const rows = await db.execute<{ id: number; after: number }>(
    sql`select id::int, after_id::int "after" from cases where after_id is not null`,
  )
  return new Map(rows.map(r => [r.id, r.after]))
}
/** Causes that the cases before this one were closed with. */
async function putRight(db: Connection, of: CaseRow, closed: readonly ReadClosing[]): Promise<Cause[]> {
  if (of.afterId === null) return []
  const after = await follows(db)
  const right = new Set<Cause>()
  for (let at: number | null = of.afterId; at !== null; at = after.get(at) ?? null) {
    const closing = closed.find(l => l.caseId === at)
    if (closing && closing.cause !== 'something else') right.add(closing.cause)
  }
  return [...right]
}

/** A case worked out from what stands now. */
export async function workedOut(
  db: Connection,
  of: CaseRow,
  {
    facts,
    closed,
    clogs,
    findings,
  }: { facts: KnownFacts; closed: readonly ReadClosing[]; clogs: number; findings: readonly CaseFinding[] },
) {
  const start = startFrom(
    closed.filter(l => l.caseId !== of.id),
    clogs,
  )
  const right = await putRight(db, of, closed)
  const told: Told[] = recordsTell(facts)
  const found = findings.filter(f => f.struck === null)
  const evidence = evidenceOf(told, found, right)
  return { start, right, told, evidence, answer: answerOf(posterior(start, evidence)) }
}
