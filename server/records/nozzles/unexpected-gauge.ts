/**
 * A bore that the other readings of its nozzle did not let expect: what was expected, and what it may mean. The
 * answers: recorded as another bore, an earlier gauge that was wrong, or as read. A misread pin and another nozzle in
 * hand change the entry itself, which the form does before it sends it again.
 */
import { mmNumber, smallChance } from '#core/words'
import { eq, sql } from 'drizzle-orm'
import {
  borePosterior,
  DOUBT,
  expectedReading,
  STANDARD_BORES_MM,
  takenForMisread,
  UNUSUAL,
  wouldExplain,
  type BoreObservation,
} from '#core/wear'
import { gaugeFoundWords } from '#shared/gauge-words'
import type { Choice, Question } from '#shared/problem'
import type { Connection } from '../../db/client'
import { nozzles, nozzleTypes } from '../../db/schema'
import { sistersPrior } from './sisters'
import { boreReading, wearHistoryOf, nozzleLogs, type NozzleLog } from './history'
import { refuseField } from '../entry/refusal'
import { saveStrike } from '../entry/strikes'

const UNEXPECTED = 'unexpected-bore'
const AS_READ = `${UNEXPECTED}:as-read`
const OTHER_TYPE = `${UNEXPECTED}:type:`
const OTHER_BORE = `${UNEXPECTED}:bore:`
const EARLIER = `${UNEXPECTED}:strike:`
const AGAIN = `${UNEXPECTED}:again`
const OTHER_NOZZLE = `${UNEXPECTED}:other-nozzle`
/**
 * Another bore is offered when this reading is usual for it, and all readings together make it at least so likely
 * beside the likeliest.
 */
const WORTH_ASKING = 0.05

/** The question, or null when the reading is usual enough. */
export async function unexpectedBore(
  tx: Connection,
  nozzleId: number,
  reading: BoreObservation,
  field: string,
): Promise<Question | null> {
  const [log] = await nozzleLogs(tx, [nozzleId])
  const { material, bore } = wearHistoryOf(log!)
  const { prior } = await sistersPrior(tx, material, nozzleId)
  const { chance, bore: expected } = expectedReading(bore, reading, prior, log!.law)
  if (chance >= UNUSUAL) return null
  const all = [...bore.observations, reading]
  const evidence = (nominalMm: number) =>
    borePosterior({ ...bore, nominalMm, observations: all, doubt: { ...DOUBT, otherBore: 0 } }, prior, log!.law)
      .logEvidence
  const isUsual = (nominalMm: number) =>
    expectedReading({ ...bore, nominalMm }, reading, prior, log!.law).chance >= UNUSUAL
  const others = await otherBores(tx, log!, b => (isUsual(b) ? evidence(b) : -Infinity), evidence(bore.nominalMm))
  const earlier = log!.gauges.filter(g => boreReading(g, log!.scatter) !== null)
  const explaining = wouldExplain(bore, reading, prior, log!.law).map(e => earlier[e.index]!)
  const before = bore.observations.length === 0 ? 'a new nozzle of its kind' : 'its other gauges'
  const outweighed = takenForMisread({ ...bore, observations: all }, prior, log!.law)[all.length - 1]!
  const shrank = log!.gauges.some(g => isBelow(reading, g)) ? ' A bore does not shrink: is it clean and cold?' : ''
  return {
    code: UNEXPECTED,
    field,
    message:
      `By ${before}, ${log!.tag} should be ${mmNumber(expected.median, 3)} mm now (95 % between ` +
      (`${mmNumber(expected.low95, 3)} and ${mmNumber(expected.high95, 3)}); this reading has a chance of ` +
        `${smallChance(chance)}.`) +
      `${shrank} What does it mean?`,
    choices: [
      ...others,
      ...explaining.map((g): Choice => ({
        code: `${EARLIER}${g.id}`,
        label: `The gauge of ${g.occurredAt.toISOString()} was wrong: strike it out`,
        hint: `${gaugeFoundWords({ ...g, tipMm: null, shape: [] })}. Without it this reading is usual`,
      })),
      { code: AGAIN, label: 'A pin or a figure was misread: gauge it again', local: true },
      { code: OTHER_NOZZLE, label: 'Another nozzle was in hand: choose which', local: true },
      {
        code: AS_READ,
        label: 'It is as read: keep it',
        hint: outweighed
          ? 'Its other gauges outweigh it: it counts as misread until another gauge bears it out'
          : 'One of them may be misread, so the range gets wider until the next gauge',
      },
    ],
  }
}

/** The new reading lies wholly below an earlier one. */
function isBelow(reading: BoreObservation, g: NozzleLog['gauges'][number]): boolean {
  const high = reading.kind === 'pins' ? reading.noGoMm : reading.valueMm
  const low = g.valueMm ?? g.goMm
  return high !== null && low !== null && high < low - 2 * Math.hypot(reading.uMm, g.uMm ?? 0)
}

/**
 * Bores that all readings together make likely, the likeliest first: types the shop knows, or a standard bore that it
 * has no type of yet.
 */
async function otherBores(
  tx: Connection,
  log: NozzleLog,
  lnEvidence: (boreMm: number) => number,
  lnRecorded: number,
): Promise<Choice[]> {
  const known = await tx.select().from(nozzleTypes).where(eq(nozzleTypes.material, log.type.material))
  const recorded = (b: number) => Math.abs(b - log.type.nominalBoreMm) < 1e-9
  const out: Choice[] = []
  const bores = [...new Set([...known.map(t => t.nominalBoreMm), ...STANDARD_BORES_MM])]
    .filter(b => !recorded(b))
    .map(b => ({ b, ln: lnEvidence(b) }))
  const best = Math.max(lnRecorded, ...bores.map(x => x.ln))
  for (const { b, ln } of bores.sort((x, y) => y.ln - x.ln)) {
    if (ln < best + Math.log(WORTH_ASKING)) break
    const types = known.filter(t => Math.abs(t.nominalBoreMm - b) < 1e-9)
    for (const t of types)
      out.push({
        code: `${OTHER_TYPE}${t.id}`,
        label: `It is a ${mmNumber(b, 3)} nozzle: record it as ${t.name}`,
        hint: 'Its bore and its limit change with it',
      })
    if (types.length === 0 && canBe(log, b))
      out.push({
        code: `${OTHER_BORE}${b}`,
        label: `It is a ${mmNumber(b, 3)} nozzle: record it as ${typeName(log, b)}`,
        hint: `A new type, copied from ${log.type.name}; check its geometry in Stores`,
      })
  }
  return out
}

const typeName = (log: NozzleLog, boreMm: number) => `${log.type.material} ${mmNumber(boreMm, 3)}`
const canBe = (log: NozzleLog, boreMm: number) => log.type.tipFlatMm > boreMm && log.type.inletMm > boreMm

/** Does what the answer asks for, before the gauge is stored. */
export async function answerUnexpected(
  tx: Connection,
  nozzleId: number,
  confirmed: readonly string[],
  at: Date,
  personId: number,
): Promise<void> {
  const rest = (prefix: string) => confirmed.find(c => c.startsWith(prefix))?.slice(prefix.length)
  const typeId = rest(OTHER_TYPE)
  const boreMm = rest(OTHER_BORE)
  const gaugeId = rest(EARLIER)
  if (typeId !== undefined) await recordAs(tx, nozzleId, Number(typeId), at)
  else if (boreMm !== undefined)
    await recordAs(tx, nozzleId, await copiedType(tx, nozzleId, Number(boreMm), personId), at)
  else if (gaugeId !== undefined)
    await saveStrike(
      tx,
      {
        target: 'gauge',
        targetId: Number(gaugeId),
        reason: `Misread: the gauge of ${at.toISOString()} does not agree with it`,
        confirmed: [],
      },
      personId,
    )
}

/** The nozzle is of another type than it was recorded as. */
async function recordAs(tx: Connection, nozzleId: number, typeId: number, at: Date): Promise<void> {
  const [found] = await tx
    .select({ nozzle: nozzles, type: nozzleTypes })
    .from(nozzles)
    .innerJoin(nozzleTypes, eq(nozzleTypes.id, nozzles.typeId))
    .where(eq(nozzles.id, nozzleId))
  const [type] = await tx.select().from(nozzleTypes).where(eq(nozzleTypes.id, typeId))
  if (!found || type?.material !== found.type.material)
    refuseField('nozzleId', 'This is no type of the same material; open the nozzle again')
  const was = `Recorded as ${found.type.name} until the gauge of ${at.toISOString()}.`
  await tx
    .update(nozzles)
    .set({
      typeId,
      note: `${found.nozzle.note}${found.nozzle.note ? ' ' : ''}${was}`.slice(0, 2000),
      version: sql`version + 1`,
    })
    .where(eq(nozzles.id, nozzleId))
}

async function copiedType(tx: Connection, nozzleId: number, boreMm: number, personId: number): Promise<number> {
  const [log] = await nozzleLogs(tx, [nozzleId])
  if (!STANDARD_BORES_MM.some(b => b === boreMm) || !canBe(log!, boreMm))
    refuseField('nozzleId', 'This nozzle cannot have such a bore; add its type in Stores')
  const { id: _id, version: _version, createdAt: _at, createdBy: _by, ...same } = log!.type
  const name = typeName(log!, boreMm)
  const [known] = await tx
    .select({ id: nozzleTypes.id })
    .from(nozzleTypes)
    .where(sql`lower(${nozzleTypes.name}) = lower(${name})`)
  if (known) return known.id
  const note = `Copied from ${log!.type.name} when a gauge showed another bore; check its geometry.`
  const [made] = await tx
    .insert(nozzleTypes)
    .values({ ...same, name, nominalBoreMm: boreMm, basis: 'practice', note, createdBy: personId })
    .returning({ id: nozzleTypes.id })
  return made!.id
}
