/** The demo's cases of what was wrong with a print: six that were closed, two that are open. Invented. */
import { sql } from 'drizzle-orm'
import type { Cause, KnownBy, Sign, TestName } from '#core/diagnosis'
import { caseSchema, closingSchema, findingSchema } from '#shared/entries/diagnosis'
import type { Connection } from '../server/db/client'
import { addCase, saveClosing, saveFinding } from '../server/records/diagnosis/save'

interface DemoCase {
  /** The run that showed it, by its printer, and its note or symptom; null: the last one there before the case. */
  printer: string
  note?: string
  symptom?: string
  /** Hours after that run. */
  afterH: number
  seen: Sign[]
  not?: Sign[]
  says?: string
  tests?: { test: TestName; found: string; afterH: number; note?: string }[]
  closed?: { cause: Cause; known: KnownBy; how: string; afterH: number }
}

const CASES: readonly DemoCase[] = [
  {
    printer: 'Calder',
    note: 'lines twice as wide from layer 80 on',
    afterH: 0.5,
    seen: ['uneven lines', 'lines thicker than set'],
    not: ['popping', 'from the start'],
    says: 'from one layer to the next',
    tests: [{ test: 'lens', found: 'a mouth that is not round', afterH: 0.7, note: 'the insert sits askew' }],
    closed: {
      cause: 'worn nozzle',
      known: 'by a repair',
      how: 'The insert had come out; fine with a new nozzle',
      afterH: 30,
    },
  },
  {
    printer: 'Aire',
    note: 'walls not touching',
    afterH: 0.4,
    seen: ['under-extruded', 'uneven lines'],
    not: ['popping', 'gears grind or click'],
    tests: [{ test: 'gauge', found: 'past its limit', afterH: 0.6, note: 'no pin fits evenly' }],
    closed: { cause: 'worn nozzle', known: 'by a test', how: 'Gauged oval; brass met carbon fibre', afterH: 1 },
  },
  {
    printer: 'Ribble',
    symptom: 'stringing',
    afterH: 0.3,
    seen: ['stringing', 'popping', 'after some hours'],
    tests: [{ test: 'lens', found: 'bubbles in the strand', afterH: 0.5 }],
    closed: {
      cause: 'moisture',
      known: 'by a test',
      how: 'Bubbles through the lens; the spool had been out',
      afterH: 0.7,
    },
  },
  {
    printer: 'Swale',
    symptom: 'warped',
    afterH: 0.3,
    seen: ['warped corners', 'split layers'],
    not: ['bad first layer'],
    closed: { cause: 'cold or drafty chamber', known: 'assumed', how: 'The lid had been lifted for a look', afterH: 2 },
  },
  {
    printer: 'Nidd',
    afterH: 0.2,
    seen: ['bad first layer', 'from the start'],
    not: ['warped corners'],
    says: 'one corner only',
    tests: [{ test: 'feeler', found: 'Z and level are right', afterH: 0.4 }],
    closed: {
      cause: 'plate or adhesive',
      known: 'by a repair',
      how: 'Sheet washed, glue renewed; it holds since',
      afterH: 5,
    },
  },
]

/** Of days that others of the demo fixed: a bench, and how things stand today. */
export interface CaseDays {
  /** Before the flow bench on Wharfe, and after it. */
  beforeBench: string
  afterBench: string
  /** Today. */
  today: (hour: number) => string
}

export async function addCases(
  tx: Connection,
  heads: ReadonlyMap<string, number>,
  days: CaseDays,
  people: { day: number; night: number },
): Promise<void> {
  const headOf = (printer: string) =>
    heads.get(`${printer}/head`) ?? [...heads].find(([k]) => k.startsWith(printer))![1]
  for (const c of CASES) {
    const run = await runOf(tx, headOf(c.printer), c)
    if (!run) continue
    const at = (hours: number) => new Date(Date.parse(run.at) + hours * 3_600_000).toISOString()
    const id = await opened(tx, { headId: run.headId, runId: run.id, at: at(c.afterH), ...c }, people.day)
    for (const t of c.tests ?? []) await tested(tx, id, t.test, t.found, at(t.afterH), people.day, t.note)
    if (c.closed) await close(tx, id, c.closed, at(c.closed.afterH), people.day)
  }
  // gears that give way: the bench that was run then is read by itself
  const wharfe = await opened(
    tx,
    {
      headId: headOf('Wharfe'),
      runId: null,
      at: days.beforeBench,
      seen: ['under-extruded', 'gaps at speed'],
      not: ['popping', 'stringing'],
      says: 'since the new gears',
    },
    people.night,
  )
  const grip = {
    cause: 'grip' as const,
    known: 'by a test' as const,
    how: 'Fast blobs short at both heats; spring set',
  }
  await close(tx, wharfe, grip, days.afterBench, people.night)
  // and two that nobody has settled yet
  await opened(
    tx,
    {
      headId: headOf('Aire'),
      runId: (await runOf(tx, headOf('Aire'), { note: 'stopped by the night technician' }))?.id ?? null,
      at: days.today(9.7),
      seen: ['under-extruded', 'gears grind or click', 'from the start'],
      not: ['popping'],
    },
    people.night,
  )
  await opened(
    tx,
    {
      headId: headOf('Ribble'),
      runId: (await runOf(tx, headOf('Ribble'), {}))?.id ?? null,
      at: days.today(10.8),
      seen: ['uneven lines'],
      says: 'on the flat sides of the guide',
    },
    people.day,
  )
}

/** The latest run on a head with such a note or symptom. */
async function runOf(
  tx: Connection,
  headId: number,
  of: Pick<DemoCase, 'note' | 'symptom'>,
): Promise<{ id: number; headId: number; at: string } | null> {
  const [run] = await tx.execute<{ id: number; headId: number; at: string }>(sql`
    select r.id::int, t.head_id "headId", r.ended_at at from standing_runs r join run_tools t on t.run_id = r.id
    where (t.head_id = ${headId} or ${of.note ?? null}::text is not null)
      and (${of.note ?? null}::text is null or r.note = ${of.note ?? null})
      and (${of.symptom ?? null}::text is null or ${of.symptom ?? null} = any(r.symptoms))
    order by r.ended_at desc, r.id desc limit 1`)
  return run ?? null
}

interface Opening {
  headId: number
  runId: number | null
  at: string
  seen: Sign[]
  not?: Sign[]
  says?: string
}
async function opened(tx: Connection, c: Opening, person: number): Promise<number> {
  const { headId, runId, at, seen, not = [], says = '' } = c
  const entry = caseSchema.parse({ headId, runId, seen, not, note: says, occurredAt: at })
  return (await addCase(tx, entry, person)).id
}
async function tested(
  tx: Connection,
  caseId: number,
  key: TestName,
  state: string,
  occurredAt: string,
  person: number,
  note = '',
): Promise<void> {
  await saveFinding(tx, findingSchema.parse({ caseId, kind: 'test', key, state, note, occurredAt }), person)
}
async function close(
  tx: Connection,
  caseId: number,
  c: { cause: Cause; known: KnownBy; how: string },
  occurredAt: string,
  person: number,
): Promise<void> {
  const { cause, known, how } = c
  const entry = closingSchema.parse({ caseId, cause, known, how, occurredAt, confirmed: ['no-run-since'] })
  await saveClosing(tx, entry, person)
}
