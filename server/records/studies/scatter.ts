/**
 * The random parts that gauge studies have set: of pins, and of each set-up's pictures. The latest standing study of a
 * method that sets something counts, for all gauges by that method, whenever they were made.
 */
import { sql } from 'drizzle-orm'
import { inOrder, studyReading, studyResult, type ReadLine, type StudyMethod, type StudyReading } from '#core/study'
import type { Scatter } from '#shared/answers/studies'
import type { Connection } from '../../db/client'
import { pinBook, type PinBook } from '../pins/book'

/** What gauges rest on beside themselves: random parts by method, mm, and the certificates of the pins. */
export interface MethodScatter {
  pinsMm: number | null
  setups: ReadonlyMap<number, number>
  pins: PinBook
}

/** A standing study with its standing readings, line by line. */
export interface StandingStudy {
  id: number
  method: StudyMethod
  setupId: number | null
  repeats: number
  lines: [person: number, nozzle: number, round: number][]
  readings: (StudyReading | null)[]
}

/** Standing studies, the latest first. */
export async function standingStudies(db: Connection): Promise<StandingStudy[]> {
  const rows = await db.execute<{
    id: string
    method: StudyMethod
    setup_id: number | null
    repeats: number
    lines: StandingStudy['lines']
  }>(sql`select id, method, setup_id, repeats, lines from standing_studies order by occurred_at desc, id desc`)
  if (rows.length === 0) return []
  const read = await db.execute<{
    study_id: string
    line: number
    go_mm: number | null
    no_go_mm: number | null
    value_mm: number | null
  }>(sql`select study_id, line, go_mm, no_go_mm, value_mm from standing_study_readings order by id`)
  return rows.map(s => {
    const readings: (StudyReading | null)[] = s.lines.map(() => null)
    for (const r of read)
      if (r.study_id === s.id)
        readings[r.line] = studyReading({ goMm: r.go_mm, noGoMm: r.no_go_mm, valueMm: r.value_mm })
    const { method, repeats, lines } = s
    return { id: Number(s.id), method, setupId: s.setup_id, repeats, lines, readings }
  })
}

/** Results by what they were worked out from: the same readings say the same. */
const known = new Map<string, number | null>()

/** Random part that a study sets, mm; null while it sets none. */
export function setsMm(s: StandingStudy): number | null {
  const key = JSON.stringify([s.method, s.repeats, s.lines, s.readings])
  let sets = known.get(key)
  if (sets === undefined) {
    if (known.size >= 200) known.clear()
    sets = studyResult(s.method, inOrder(linesOf(s))).setsMm
    known.set(key, sets)
  }
  return sets
}

const linesOf = (s: StandingStudy): ReadLine[] =>
  s.lines.map(([personId, nozzleId, round], i) => ({ personId, nozzleId, round, reading: s.readings[i]! }))

/** The study that counts for each method, with what it sets. */
export function counting(studies: readonly StandingStudy[]): (StandingStudy & { mm: number })[] {
  const out: (StandingStudy & { mm: number })[] = []
  for (const s of studies) {
    if (setBy(out, s) !== null) continue
    const mm = setsMm(s)
    if (mm !== null) out.push({ ...s, mm })
  }
  return out
}
type Method = Pick<StandingStudy, 'method' | 'setupId'>
/** What the studies that count set for a method, mm; null where none does. */
export const setBy = (counted: readonly (Method & { mm: number })[], { method, setupId }: Method): number | null =>
  counted.find(s => s.method === method && s.setupId === setupId)?.mm ?? null

export async function methodScatter(db: Connection): Promise<MethodScatter> {
  const [studies, pins] = await Promise.all([standingStudies(db), pinBook(db)])
  const list = counting(studies)
  return {
    pinsMm: setBy(list, { method: 'pins', setupId: null }),
    setups: new Map(list.filter(s => s.setupId !== null).map(s => [s.setupId!, s.mm])),
    pins,
  }
}

/** As it is answered. */
export const scatterAnswer = (m: MethodScatter): Scatter => ({
  pinsMm: m.pinsMm,
  setups: [...m.setups].map(([setupId, mm]) => ({ setupId, mm })),
})
