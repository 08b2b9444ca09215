/** Sensors of the shop with their checks, and saving one. */
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { guardOf } from '#core/limits'
import { InputError } from '#core/numeric'
import {
  ALLOWED_C,
  FAR_OFF_C,
  placementOf,
  SENSED,
  sensorCheck,
  type Allowed,
  type Sensed,
  type CheckResult,
} from '#core/thermometry'
import type { ZoneLimit } from '#shared/answers/printers'
import type { SensorCheckLine, SensorLine, Verify } from '#shared/answers/sensors'
import type { sensorCheckSchema } from '#shared/entries/sensors'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { referenceProbes, sensorChecks, stackCeilings } from '../../db/schema'
import { ask, notInFuture, refuseField } from '../entry/refusal'
import { refreshCeilings, shopRules } from '../printers/ceilings'
import { OF_THIS_SENSOR, SENSOR_ROLE } from './corrections'
import { listReferences } from './references'

type Check = z.output<typeof sensorCheckSchema>

export async function verifyPage(db: Connection): Promise<Verify> {
  const [sensors, references] = await Promise.all([listSensors(db, MOST_CHECKS), listReferences(db)])
  return { sensors, references }
}

/** Checks of one input that its page shows. */
const MOST_CHECKS = 50
/** Enough of them to tell the one that counts from the one before, some struck out or made elsewhere. */
const LATEST = 6

/** Every sensor of the shop with enough checks to tell how it stands. */
export const sensorsOfShop = (db: Connection): Promise<SensorLine[]> => listSensors(db, LATEST)

/** The sensor of a head's hotend with its latest checks; null where the head is not in use. */
export const sensorOfHead = async (db: Connection, headId: number): Promise<SensorLine | null> =>
  (await sensorsOfShop(db)).find(s => s.zone === 'hotend' && s.headId === headId) ?? null

interface Input extends Record<string, unknown> {
  printerId: number
  printer: string
  headId: number | null
  head: string | null
}

/** What is looked up by input is found by this. */
const inputKey = (printerId: number, what: string, headId: number | null) => `${printerId} ${what} ${headId}`

/** Every input of every printer in use: each head's, the bed's, and the chamber's where there is an enclosure. */
async function listSensors(db: Connection, perSensor: number): Promise<SensorLine[]> {
  const [rules, heads, enclosed, parts, checks] = await Promise.all([
    shopRules(db),
    db.execute<Input>(sql`
      select p.id "printerId", p.name printer, h.id "headId", h.name head from printers p
      join heads h on h.printer_id = p.id where not p.out_of_use order by p.id, h.position, h.id`),
    db.execute<{ id: number }>(sql`
      select distinct w.printer_id id from part_places w join parts a on a.id = w.part_id
      where w.kind = 'fit' and a.role = 'enclosure'`),
    db.execute<{ printerId: number; headId: number | null; role: string; id: number; name: string }>(sql`
      select w.printer_id "printerId", w.head_id "headId", a.role, a.id, a.name from part_places w
      join parts a on a.id = w.part_id where w.kind = 'fit' and a.role in ('sensor', 'bed sensor', 'chamber sensor')
      order by a.id`),
    listChecks(db, perSensor),
  ])
  const printers = [...new Map(heads.map(h => [h.printerId, h.printer]))]
  const partAt = new Map(parts.map(p => [inputKey(p.printerId, p.role, p.headId), p]))
  const checksAt = new Map<string, SensorCheckLine[]>()
  for (const { printerId, zone, headId, ...check } of checks) {
    const key = inputKey(printerId, zone, headId)
    checksAt.set(key, [...(checksAt.get(key) ?? []), check])
  }
  return printers.flatMap(([printerId, printer]) =>
    SENSED.flatMap((zone): SensorLine[] => {
      if (zone === 'chamber' && !enclosed.some(e => e.id === printerId)) return []
      const inputs =
        zone === 'hotend' ? heads.filter(h => h.printerId === printerId) : [{ headId: null, head: null } as const]
      return inputs.map(({ headId, head }) => {
        const part = partAt.get(inputKey(printerId, SENSOR_ROLE[zone], headId))
        return {
          printerId,
          printer,
          zone,
          headId,
          head: inputs.length > 1 ? head : null,
          partId: part?.id ?? null,
          sensor: part?.name ?? null,
          guardPartC: guardOf(zone, rules) - guardOf(zone, rules, true),
          checks: checksAt.get(inputKey(printerId, zone, headId)) ?? [],
        }
      })
    }),
  )
}

/** A sensor as the stand-in thermometer names its place; null for one that is not known. */
export async function placeOfSensor(
  db: Connection,
  s: { printerId: number; zone: Sensed; headId: number | null },
): Promise<string | null> {
  const [of] = await db.execute<{ name: string; nth: number }>(sql`
    select p.name, (select count(*)::int from heads h where h.printer_id = p.id
      and (h.position, h.id) <= (select g.position, g.id from heads g where g.id = ${s.headId})) nth
    from printers p where p.id = ${s.printerId}`)
  if (!of) return null
  return `${of.name} ${s.zone}${s.zone === 'hotend' && of.nth > 1 ? ` ${of.nth}` : ''}`
}

type Listed = SensorCheckLine & Record<string, unknown> & { printerId: number; zone: string; headId: number | null }

/** The latest so many checks of each input. */
async function listChecks(db: Connection, perSensor: number): Promise<Listed[]> {
  if (perSensor === 0) return []
  return await db.execute<Listed>(sql`
    select c.id::int, c.printer_id "printerId", c.zone, c.head_id "headId", ${iso('c.occurred_at')} at, w.name person,
      c.note, r.name reference, c.reference "referenceIs", c.placement, c.points, c.allowed,
      (select json_build_object('reason', k.reason, 'person', kw.name) from strikes k
        join people kw on kw.id = k.person_id where k.target = 'sensor check' and k.target_id = c.id) struck,
      ${OF_THIS_SENSOR} "ofThisSensor",
      coalesce((select sum(n.hours) from standing_runs n where n.printer_id = c.printer_id
        and n.ended_at > c.occurred_at and (c.head_id is null or exists (select from run_tools t
          where t.run_id = n.id and t.head_id = c.head_id))), 0) "hoursSince"
    from (select *, row_number() over (partition by printer_id, zone, head_id order by occurred_at desc, id desc) nth
      from sensor_checks) c join people w on w.id = c.person_id join reference_probes r on r.id = c.reference_id
    where c.nth <= ${perSensor} order by c.occurred_at desc, c.id desc`)
}

export async function saveSensorCheck(
  tx: Connection,
  c: Check,
  personId: number,
): Promise<{ id: number; verdict: CheckResult['verdict']; before: ZoneLimit[]; after: ZoneLimit[] }> {
  const occurredAt = notInFuture('occurredAt', c.occurredAt)
  if (placementOf(c.placement).zone !== c.zone)
    refuseField('placement', `A ${c.zone} sensor is not checked ${c.placement}`)
  const sensor = (await listSensors(tx, 0)).find(
    s => s.printerId === c.printerId && s.zone === c.zone && s.headId === c.headId,
  )
  if (!sensor) refuseField('printerId', 'This printer has no such sensor')
  const [reference] = await tx.select().from(referenceProbes).where(eq(referenceProbes.id, c.referenceId))
  if (!reference || reference.withdrawn) refuseField('referenceId', 'This reference is not known')
  // what the guard band stands for is the shop's rule and not the sender's
  const allowed: Allowed =
    c.allowed.by === 'guard band'
      ? { by: 'guard band', plusMinusC: Math.max(ALLOWED_C[0], sensor.guardPartC) }
      : c.allowed
  const result = checked({ ...c, allowed }, reference.is)
  ask(doubts(result, reference.dueOn, occurredAt), c.confirmed)
  /** Of a head its own; a bed and a chamber make each other's air. */
  const ofZone = (l: ZoneLimit) => (c.zone === 'hotend' ? l.headId === c.headId : l.zone !== 'hotend')
  const [kept] = await tx.select().from(stackCeilings).where(eq(stackCeilings.printerId, c.printerId))
  const [row] = await tx
    .insert(sensorChecks)
    .values({
      printerId: c.printerId,
      zone: c.zone,
      headId: c.headId,
      partId: sensor.partId,
      referenceId: c.referenceId,
      reference: reference.is,
      placement: c.placement,
      points: c.points,
      allowed,
      note: c.note,
      occurredAt,
      personId,
    })
    .returning({ id: sensorChecks.id })
  const [after] = await refreshCeilings(tx, [c.printerId])
  return { id: row!.id, verdict: result.verdict, before: kept!.limits.filter(ofZone), after: after!.filter(ofZone) }
}

/** What the core makes of it; what it refuses is refused at its field. */
function checked(c: Check, is: (typeof referenceProbes.$inferSelect)['is']): CheckResult {
  try {
    return sensorCheck(c.points, is, c.placement, c.allowed)
  } catch (e) {
    if (e instanceof InputError) refuseField(e.field, `Enter ${e.allowed}`)
    throw e
  }
}

/** What is more likely a slip than a sensor: asked before it counts. */
function doubts(result: CheckResult, dueOn: string | null, at: Date) {
  const out = []
  const far = result.points.find(p => Math.abs(p.cC) > FAR_OFF_C)
  if (far)
    out.push({
      code: 'far-off',
      field: 'points',
      message:
        `At ${far.shownC.toFixed(0)} °C shown the reference says ${far.trueC.toFixed(0)} °C. Is it the right type, ` +
        `unit and wire, and is it in its place?`,
    })
  if (dueOn !== null && at.toISOString().slice(0, 10) > dueOn)
    out.push({
      code: 'certificate',
      field: 'referenceId',
      message: `The certificate of this reference ran out on ${dueOn}. Use it all the same?`,
    })
  return out
}
