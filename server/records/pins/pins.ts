/** Pin gauges: added, certified, listed; what a new certificate makes of the gauges made before. */
import { asc, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { dueOfPin, type Due } from '#core/schedule'
import { mmNumber } from '#core/words'
import type { PinLine } from '#shared/answers/pins'
import type { pinCertificateSchema, pinFields } from '#shared/entries/pins'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { pinCertificates, pins } from '../../db/schema'
import { notInFuture, refuseField } from '../entry/refusal'
import { unused } from '../entry/unused'

const DAY_MS = 86_400_000
/** A certificate further from the nominal than this is of another pin, mm. */
const OTHER_PIN_MM = 0.05

export async function addPin(
  tx: Connection,
  p: z.output<typeof pinFields>,
  personId: number,
): Promise<{ id: number; tag: string }> {
  await unused(tx, pins, 'mark', p.mark, 'a pin')
  const [row] = await tx
    .insert(pins)
    .values({ ...p, createdBy: personId })
    .returning({ id: pins.id })
  await markPins(tx, [p.mark])
  return { id: row!.id, tag: p.mark }
}

export async function saveCertificate(
  tx: Connection,
  { confirmed: _, expandedUm, ...c }: z.output<typeof pinCertificateSchema>,
  personId: number,
): Promise<{ id: number; mark: string; gauges: number; nozzles: string[] }> {
  const occurredAt = notInFuture('occurredAt', c.occurredAt)
  const [pin] = await tx.execute<{ mark: string; nominal: number }>(
    sql`select mark, nominal_mm nominal from pins where id = ${c.pinId} for no key update`,
  )
  if (!pin) refuseField('pinId', 'This pin is not known')
  if (Math.abs(c.sizeMm - pin.nominal) > OTHER_PIN_MM)
    refuseField('sizeMm', `Pin ${pin.mark} is ${mmNumber(pin.nominal)} mm: is this the certificate of another?`)
  const [row] = await tx
    .insert(pinCertificates)
    .values({ ...c, uMm: expandedUm / 2000, occurredAt, personId })
    .returning({ id: pinCertificates.id })
  return { id: row!.id, mark: pin.mark, ...(await markPins(tx, [pin.mark])) }
}

/**
 * A pin's error is the error of every gauge made with it: the nozzles that were gauged with these marks are worked out
 * anew. Answers how many gauges, and of which nozzles.
 */
export async function markPins(
  tx: Connection,
  marks: readonly string[],
): Promise<{ gauges: number; nozzles: string[] }> {
  const keys = sql.join(
    marks.map(m => sql`lower(trim(${m}))`),
    sql`, `,
  )
  const rows = await tx.execute<{ id: number; tag: string; gauges: number }>(sql`
    select n.id, n.tag, count(*)::int gauges from standing_gauges g join nozzles n on n.id = g.nozzle_id
    where lower(g.go_pin) in (${keys}) or lower(g.no_go_pin) in (${keys}) group by n.id, n.tag order by n.tag`)
  await tx.execute(sql`
    update forecasts set stale = true, moved = null where nozzle_id in (
      select g.nozzle_id from standing_gauges g where lower(g.go_pin) in (${keys}) or lower(g.no_go_pin) in (${keys}))`)
  return { gauges: rows.reduce((s, r) => s + r.gauges, 0), nozzles: rows.map(r => r.tag) }
}

/** The pin that a certificate is of. */
export async function markOfCertificate(tx: Connection, id: number): Promise<string> {
  const [row] = await tx.execute<{ mark: string }>(
    sql`select p.mark from pin_certificates c join pins p on p.id = c.pin_id where c.id = ${id}`,
  )
  return row!.mark
}

/** Days until a certificate has run out: it holds to the end of its day. */
const leftDays = (dueOn: string) => (Date.parse(dueOn) + DAY_MS - Date.now()) / DAY_MS

/** What is due of a pin in use: its latest certificate ran out, or does soon. */
const dueOf = (mark: string, dueOn: string | null): Due | null =>
  dueOn === null ? null : dueOfPin(mark, leftDays(dueOn))

interface Stand extends Record<string, unknown> {
  mark: string
  dueOn: string | null
}
/** What is due of the pins, each with the day that its certificate runs out. */
export async function pinsDue(db: Connection): Promise<{ due: Due; on: string | null }[]> {
  const rows = await db.execute<Stand>(sql`
    select p.mark, c.due_on::text "dueOn" from pins p
    cross join lateral (select c.due_on from standing_pin_certificates c where c.pin_id = p.id
      order by c.occurred_at desc, c.id desc limit 1) c where not p.withdrawn order by p.id`)
  return rows.flatMap(r => {
    const due = dueOf(r.mark, r.dueOn)
    if (due === null || r.dueOn === null) return []
    const day = new Date(Date.parse(r.dueOn) + DAY_MS)
    return [{ due, on: day.getTime() > Date.now() ? day.toISOString() : null }]
  })
}

type CertificateRow = PinLine['certificates'][number] & { pinId: number } & Record<string, unknown>
/** Every pin with its certificates, those in use first. */
export async function listPins(db: Connection): Promise<PinLine[]> {
  const [rows, certificates, uses] = await Promise.all([
    db.select().from(pins).orderBy(asc(pins.withdrawn), asc(pins.nominalMm), asc(pins.id)),
    db.execute<CertificateRow>(sql`
      select c.id::int, c.pin_id "pinId", c.size_mm "sizeMm", c.u_mm "uMm", c.due_on::text "dueOn", c.note,
        ${iso('c.occurred_at')} at, u.name "by",
        (select s.reason from strikes s where s.target = 'pin certificate' and s.target_id = c.id) struck
      from pin_certificates c join people u on u.id = c.person_id order by c.occurred_at desc, c.id desc`),
    db.execute<{ id: number; gauges: number; nozzles: number }>(sql`
      select p.id, count(distinct g.id)::int gauges, count(distinct g.nozzle_id)::int nozzles
      from pins p cross join lateral (
        select g.id, g.nozzle_id from standing_gauges g where lower(g.go_pin) = lower(p.mark)
        union all select g.id, g.nozzle_id from standing_gauges g where lower(g.no_go_pin) = lower(p.mark)) g
      group by p.id`),
  ])
  return rows.map(({ createdBy: _by, createdAt: _at, ...p }) => {
    const own = certificates.filter(c => c.pinId === p.id).map(({ pinId: _, ...c }) => c)
    const used = uses.find(u => u.id === p.id)
    return {
      ...p,
      certificates: own,
      gauges: used?.gauges ?? 0,
      nozzles: used?.nozzles ?? 0,
      due: p.withdrawn ? null : dueOf(p.mark, own.find(c => c.struck === null)?.dueOn ?? null),
    }
  })
}
