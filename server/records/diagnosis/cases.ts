/** Cases as they are listed, and each with all it rests on. */
import { sql } from 'drizzle-orm'
import { countsAs, reviewOf } from '#core/diagnosis'
import type { CaseClosing, CaseFinding, CaseHead, CaseLine, CaseList, CasePage } from '#shared/answers/diagnosis'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { iso } from '../../db/iso'
import { notFound } from '../entry/refusal'
import { struckOf } from '../entry/struck'
import { LAST_ON_HEAD, PLACE_OF_HEAD } from '../printers/fittings'
import { cautionsOf, knownOf } from './known'
import {
  casesOf,
  clearedClogs,
  closingsOf,
  findingsOf,
  standingClosings,
  workedOut,
  type CaseRow,
  type ReadClosing,
} from './rows'

const lineOf = (
  { runId, runName, runAt, ...c }: CaseRow,
  findings: readonly CaseFinding[],
  closing: ReadClosing | null,
  answer: CaseLine['answer'],
): CaseLine => ({
  id: c.id,
  headId: c.headId,
  place: c.place,
  nozzle: c.nozzle,
  material: c.material,
  spool: c.spool,
  run: runId === null ? null : { id: runId, name: runName!, at: runAt! },
  seen: seenOf(findings),
  answer,
  closing: closing && closingOf(closing),
  afterId: c.afterId,
  at: c.at,
  person: c.person,
  note: c.note,
  struck: struckOf(c),
})
const closingOf = ({ said: _, caseId: _c, ...l }: ReadClosing): CaseClosing => l
/** Signs that are there by what was found last. */
function seenOf(findings: readonly CaseFinding[]): string[] {
  const last = new Map<string, string>()
  for (const f of findings) if (f.kind === 'sign' && f.struck === null) last.set(f.key, f.state)
  return [...last].flatMap(([key, state]) => (state === 'there' ? [key] : []))
}

/** So many open cases are worked out for the list, the latest; the others say so on their own page. */
const MOST_WORKED_OUT = 12
const CLOSED = sql`exists (select from standing_case_closings l where l.case_id = c.id)`

/** Open cases first, the latest of them with what can be said now, then closed ones with what was said. */
export async function listCases(db: Connection): Promise<CaseList> {
  const rows = await casesOf(
    db,
    sql`not ${CLOSED} or c.id in (select id from cases order by occurred_at desc, id desc limit 100)`,
  )
  const ids = rows.map(r => r.id)
  const [closed, clogs, findings] = await Promise.all([
    standingClosings(db),
    clearedClogs(db),
    findingsOf(db, idIn('c.id', ids)),
  ])
  const lines: CaseLine[] = []
  let worked = 0
  for (const r of rows) {
    const closing = closed.find(l => l.caseId === r.id) ?? null
    const isOpen = closing === null && r.strike_reason === null && worked < MOST_WORKED_OUT
    if (isOpen) worked++
    const own = findings.filter(f => f.caseId === r.id)
    const now = isOpen ? await workedOut(db, r, { facts: await knownOf(db, r), closed, clogs, findings: own }) : null
    const answer = now?.answer ?? closing?.said.answer ?? null
    lines.push(lineOf(r, own, closing, answer))
  }
  const isOpen = (l: CaseLine) => l.closing === null && l.struck === null
  return {
    cases: [...lines.filter(isOpen), ...lines.filter(l => !isOpen(l))],
    review: reviewOf(
      closed.map(l => ({
        cause: l.cause,
        known: countsAs(l.known),
        said: l.said.answer.cause,
        ledBefore: l.said.ledBefore,
      })),
    ),
    heads: await headsOf(db),
  }
}

/** Heads in use with their last runs: what a case is opened from. */
async function headsOf(db: Connection): Promise<CaseHead[]> {
  return await db.execute<CaseHead & Record<string, unknown>>(sql`
    select h.id "headId", p.id "printerId", ${PLACE_OF_HEAD} place,
      (select n.tag from ${LAST_ON_HEAD} e join nozzles n on n.id = e.nozzle_id where e.kind = 'fit') nozzle,
      coalesce((select json_agg(json_build_object('id', r.id, 'name', r.name, 'at', ${iso('r.ended_at')},
          'finished', r.outcome = 'finished', 'symptoms', r.symptoms, 'nozzle', n.tag, 'material', t.material_name,
          'spool', s.tag) order by r.ended_at desc, r.id desc)
        from (select * from standing_run_tools t where t.head_id = h.id
          order by t.ended_at desc, t.run_id desc limit 8) t
        join runs r on r.id = t.run_id join nozzles n on n.id = t.nozzle_id
        left join spools s on s.id = t.spool_id), '[]') runs
    from heads h join printers p on p.id = h.printer_id where not p.out_of_use order by p.id, h.position, h.id`)
}

export async function casePage(db: Connection, id: number): Promise<CasePage> {
  const [c] = await casesOf(db, sql`c.id = ${id}`)
  if (!c) notFound('This case')
  const [findings, closings, closed, clogs, facts, [next]] = await Promise.all([
    findingsOf(db, sql`f.case_id = ${id}`),
    closingsOf(db, sql`l.case_id = ${id}`),
    standingClosings(db),
    clearedClogs(db),
    knownOf(db, c),
    db.execute<{ id: number }>(sql`select id::int from standing_cases where after_id = ${id} order by id desc limit 1`),
  ])
  const closing = closings.find(l => l.struck === null) ?? null
  const now = await workedOut(db, c, { facts, closed, clogs, findings })
  return {
    ...lineOf(c, findings, closing, closing ? closing.said.answer : now.answer),
    printerId: c.printerId,
    nozzleId: c.nozzleId,
    spoolId: c.spoolId,
    materialId: c.materialId,
    picture: c.picture,
    // of a closed case what it rested on then
    start: closing?.said.start ?? now.start,
    told: closing?.said.told ?? now.told,
    findings: findings.map(({ caseId: _, ...f }) => f),
    right: now.right,
    nextId: next?.id ?? null,
    struckClosings: closings.filter(l => l.struck !== null).map(closingOf),
    cautions: cautionsOf(facts),
  }
}
