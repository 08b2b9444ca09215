/** Gauge studies: begun, read line by line, listed with what they tell. */
import { randomInt } from 'node:crypto'
import { eq, inArray, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { readBoreMm, studyList, studyReading } from '#core/study'
import { mmNumber } from '#core/words'
import type { ReadingEffect, StudyLine, StudyTurn } from '#shared/answers/studies'
import type { studyReadingSchema, studySchema } from '#shared/entries/studies'
import type { Question } from '#shared/problem'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { nozzles, people, studies, studyReadings } from '../../db/schema'
import { ask, notInFuture, refuseField } from '../entry/refusal'
import { struckOf, type Strike } from '../entry/struck'
import { markMethod } from '../nozzles/forecasts'
import { boreLimitMm } from '../nozzles/history'
import { setupOf } from '../pictures/setups'
import { counting, setBy, setsMm, standingStudies, type StandingStudy } from './scatter'

/** Begins a study: its list is drawn now, once. */
export async function addStudy(
  tx: Connection,
  s: z.output<typeof studySchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', s.occurredAt)
  if (s.setupId !== null) await setupOf(tx, s.setupId, 'setupId')
  const known = await tx.select({ id: people.id }).from(people).where(inArray(people.id, s.personIds))
  if (known.length < s.personIds.length) refuseField('personIds', 'One of these people is not known')
  const gauged = await tx.select({ id: nozzles.id }).from(nozzles).where(inArray(nozzles.id, s.nozzleIds))
  if (gauged.length < s.nozzleIds.length) refuseField('nozzleIds', 'One of these nozzles is not known')
  const list = studyList(s.personIds.length, s.nozzleIds.length, s.repeats, randomInt(2 ** 32))
  const lines = list.map((l): [number, number, number] => [s.personIds[l.person]!, s.nozzleIds[l.nozzle]!, l.round])
  const { name, method, setupId, repeats, note } = s
  const [row] = await tx
    .insert(studies)
    .values({ name, method, setupId, repeats, lines, note, occurredAt, personId })
    .returning({ id: studies.id })
  return row!
}

/** Reads one line. When it is the last, the study sets what gauges by its method count with. */
export async function saveStudyReading(
  tx: Connection,
  r: z.output<typeof studyReadingSchema>,
  personId: number,
): Promise<ReadingEffect> {
  const occurredAt = notInFuture('occurredAt', r.occurredAt)
  await tx.execute(sql`select id from studies where id = ${r.studyId} for no key update`)
  const standing = await standingStudies(tx)
  const study = standing.find(s => s.id === r.studyId)
  if (!study) refuseField('studyId', 'This study is not known, or struck out')
  if (r.line >= study.lines.length) refuseField('line', `This study has ${study.lines.length} lines`)
  if (study.readings[r.line] !== null)
    refuseField('line', `Line ${r.line + 1} has its reading already; strike that out to read it again`)
  if (study.method === 'picture' && r.valueMm === null)
    refuseField('valueMm', 'This study reads pictures: enter the bore')
  if (study.method === 'pins' && r.valueMm !== null) refuseField('goMm', 'This study reads pins: enter both')
  ask(await farOff(tx, study, r), r.confirmed)
  const { studyId, line, goMm, noGoMm, valueMm, note } = r
  const [row] = await tx
    .insert(studyReadings)
    .values({ studyId, line, goMm, noGoMm, valueMm, note, occurredAt, personId })
    .returning({ id: studyReadings.id })
  const beforeMm = setBy(counting(standing), study)
  study.readings[line] = studyReading(r)
  const isMm = setBy(counting(standing), study)
  return {
    id: row!.id,
    left: study.readings.filter(x => x === null).length,
    setsMm: isMm,
    beforeMm,
    nozzles: beforeMm === isMm ? 0 : await markMethod(tx, study),
  }
}

/** A reading this far from the others of its nozzle, as a share of the nominal bore, is asked about. */
const FAR = 0.15

/** Another nozzle in hand, or a slip: far from what the study has read of this nozzle, or from its nominal bore. */
async function farOff(
  tx: Connection,
  study: StandingStudy,
  r: z.output<typeof studyReadingSchema>,
): Promise<Question[]> {
  const nozzleId = study.lines[r.line]![1]
  const [nozzle] = await tx.execute<{ tag: string; bore: number }>(sql`
    select n.tag, t.nominal_bore_mm bore from nozzles n join nozzle_types t on t.id = n.type_id
    where n.id = ${nozzleId}`)
  const others = study.readings
    .flatMap((x, i) => (x !== null && study.lines[i]![1] === nozzleId ? [readBoreMm(x)] : []))
    .sort((a, b) => a - b)
  const usual = others[others.length >> 1] ?? nozzle!.bore
  const allowed = (others.length > 0 ? FAR : 0.5) * nozzle!.bore
  const read = readBoreMm(studyReading(r))
  if (Math.abs(read - usual) <= allowed) return []
  const by = others.length > 0 ? 'this study has read it as' : 'its type is'
  return [
    {
      code: 'far-off',
      field: r.valueMm === null ? 'goMm' : 'valueMm',
      message: `${mmNumber(read, 3)} mm is far from what ${by}, ${mmNumber(usual, 3)} mm. Is ${nozzle!.tag} in hand?`,
    },
  ]
}

/** All studies, the latest first, struck ones among them. */
export async function listStudies(db: Connection): Promise<StudyLine[]> {
  const rows = await db.execute<Record<string, unknown> & Strike>(sql`
    select s.id, s.name, s.method, s.setup_id, u.name setup, s.repeats, s.lines, s.note, ${iso('s.occurred_at')} "at",
      p.name person, k.reason strike_reason, kp.name struck_by
    from studies s join people p on p.id = s.person_id left join setups u on u.id = s.setup_id
    left join strikes k on k.target = 'study' and k.target_id = s.id left join people kp on kp.id = k.person_id
    order by s.occurred_at desc, s.id desc`)
  const read = await db.execute<Record<string, unknown> & Strike>(sql`
    select r.id, r.study_id, r.line, r.go_mm, r.no_go_mm, r.value_mm, ${iso('r.occurred_at')} "at", p.name person,
      r.note, k.reason strike_reason, kp.name struck_by
    from study_readings r join people p on p.id = r.person_id
    left join strikes k on k.target = 'study reading' and k.target_id = r.id
    left join people kp on kp.id = k.person_id order by r.id`)
  const names = new Map((await db.select({ id: people.id, name: people.name }).from(people)).map(p => [p.id, p.name]))
  const known = new Map((await nozzlesOf(db)).map(n => [n.id, n]))
  const standing = await standingStudies(db)
  const counts = new Set(counting(standing).map(s => s.id))
  return rows.map(s => {
    const own = read.filter(r => r.study_id === s.id)
    const lines = s.lines as [number, number, number][]
    const nozzleIds = [...new Set(lines.map(l => l[1]))].sort((a, b) => a - b)
    const allowed = nozzleIds.flatMap(id => known.get(id)!.allowanceMm ?? [])
    const self = standing.find(x => x.id === Number(s.id))
    return {
      id: Number(s.id),
      name: s.name as string,
      method: s.method as StudyLine['method'],
      setup: s.setup_id === null ? null : { id: s.setup_id as number, name: s.setup as string },
      people: [...new Set(lines.map(l => l[0]))].sort((a, b) => a - b).map(id => ({ id, name: names.get(id)! })),
      nozzles: nozzleIds.map(id => {
        const { tag, nominalBoreMm } = known.get(id)!
        return { id, tag, nominalBoreMm }
      }),
      repeats: s.repeats as number,
      lines: lines.map(([personId, nozzleId, round], line) => {
        const r = own.find(x => x.line === line && x.strike_reason === null)
        return { personId, nozzleId, round, reading: r ? readingOf(r) : null }
      }),
      struckReadings: own
        .filter(r => r.strike_reason !== null)
        .map(r => ({ ...readingOf(r), line: r.line as number, struck: struckOf(r) })),
      allowanceMm: allowed.length > 0 ? Math.min(...allowed) : null,
      setsMm: self ? setsMm(self) : null,
      counts: counts.has(Number(s.id)),
      at: s.at as string,
      person: s.person as string,
      note: s.note as string,
      struck: struckOf(s),
    }
  })
}

const readingOf = (r: Record<string, unknown>) => ({
  id: Number(r.id),
  goMm: r.go_mm as number | null,
  noGoMm: r.no_go_mm as number | null,
  valueMm: r.value_mm as number | null,
  at: r.at as string,
  person: r.person as string,
  note: r.note as string,
})

async function nozzlesOf(db: Connection) {
  const rows = await db.execute<{ id: number; tag: string; bore: number; growth: number | null }>(sql`
    select n.id, n.tag, t.nominal_bore_mm bore, t.bore_growth_limit growth
    from nozzles n join nozzle_types t on t.id = n.type_id`)
  return rows.map(({ id, tag, bore, growth }) => {
    const limitMm = boreLimitMm({ nominalBoreMm: bore, boreGrowthLimit: growth })
    return { id, tag, nominalBoreMm: bore, allowanceMm: limitMm === null ? null : limitMm - bore }
  })
}

/** Whose turn it is in the study that was begun last and is not read to its end. */
export async function studyTurn(db: Connection): Promise<StudyTurn | null> {
  const study = (await standingStudies(db)).find(s => s.readings.includes(null))
  if (!study) return null
  const line = study.readings.indexOf(null)
  const [personId, nozzleId] = study.lines[line]!
  const [named] = await db
    .select({ name: studies.name, person: people.name, tag: nozzles.tag })
    .from(studies)
    .innerJoin(people, eq(people.id, personId))
    .innerJoin(nozzles, eq(nozzles.id, nozzleId))
    .where(eq(studies.id, study.id))
  const { id: studyId, method, setupId } = study
  return { studyId, method, setupId, line, lines: study.lines.length, nozzleId, ...named! }
}
