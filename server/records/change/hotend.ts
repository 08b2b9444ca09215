/**
 * What changing a hotend is worked out from: the head as it would be with another one on it. The same facts for the
 * offer, for the procedure that begins, and to see whether they still hold.
 */
import { sameSensor, withHotend, type Hotend, type Part } from '#core/limits'
import { CEILING_C, notReadyToGo, rankHotends, type HotendFacts, type HotendThing } from '#core/procedures'
import { mmNumber } from '#core/words'
import type { HotendOffer, SwapOffer } from '#shared/answers/change'
import type { HotendNow } from '#shared/answers/hotends'
import type { Connection } from '../../db/client'
import { throughNozzle } from '../prepare/changeovers'
import { hotendsNow } from '../printers/hotends'
import { comingTo, headFacts, headFor, nothingDescribed, offeredOn, turningOn, type HeadFor } from './head'
import { nozzleRow } from './shelf'

const partIn = (parts: readonly Part[], role: Part['role']) => parts.find(p => p.role === role) ?? null

const thing = ({ id, tag, parts, nozzle }: Hotend): HotendThing => ({
  id,
  tag,
  nozzle: nozzle && {
    id: nozzle.id as number,
    tag: nozzle.tag,
    words: `${nozzle.material} ${mmNumber(nozzle.boreMm)}`,
  },
  heater: partIn(parts, 'heater')?.name ?? null,
  sensor: partIn(parts, 'sensor')?.name ?? null,
})

/** The least that a part inside is rated for, and which; null where no limit is known. */
function weakest(parts: readonly Part[]): { mostC: number; weakest: string } | null {
  let least: { mostC: number; weakest: string } | null = null
  for (const p of parts)
    if (p.limitC !== null && (least === null || p.limitC < least.mostC))
      least = { mostC: Math.floor(p.limitC), weakest: p.name }
  return least
}

type Worked = { facts: HotendFacts; refusal: null } | { facts: null; refusal: string }

/** Facts of putting this hotend of the shelf on the head, or why it may not go there. */
async function factsFor(
  db: Connection,
  h: HeadFor,
  headId: number,
  old: Hotend | null,
  fresh: HotendNow,
): Promise<Worked> {
  const no = (refusal: string): Worked => ({ facts: null, refusal })
  if (fresh.place !== null) return no(`${fresh.tag} is on ${fresh.place.words}.`)
  const lacks = notReadyToGo(fresh)
  if (lacks !== null) return no(`${fresh.tag} is not ready to go: ${lacks}.`)
  const stands = weakest(fresh.parts)
  if (stands === null) return no(`What ${fresh.tag} stands is not known: enter a limit of its parts.`)
  if (stands.mostC < CEILING_C[0])
    return no(`${fresh.tag} stands ${stands.mostC} °C by its ${stands.weakest}: no hotend does; correct that limit.`)
  const nozzleId = fresh.nozzle!.id as number
  const [n, through] = await Promise.all([nozzleRow(db, headId, nozzleId), throughNozzle(db, nozzleId)])
  const named = (id: number | null | undefined) => h.materials.find(m => m.id === id) ?? null
  const then: HeadFor = {
    ...h,
    printer: withHotend(h.printer, headId, fresh) as HeadFor['printer'],
    through: (through?.materialIds ?? []).flatMap(id => named(id) ?? []),
    holds: named(through?.lastId),
  }
  const { ceilingC, t } = turningOn(then, headId, null)
  if (t.refusal !== null || t.setC === null || ceilingC === null)
    return no(`${fresh.tag}: ${t.refusal ?? 'how hot it may get is not known.'}`)
  const own = headFacts(then, headId, n, { ceilingC, turnC: t.setC, holds: then.holds })
  const parts = h.printer.parts.filter(p => p.headId === headId)
  return {
    refusal: null,
    facts: {
      ...own,
      headId,
      old: old && thing(old),
      fresh: thing(fresh) as HotendFacts['fresh'],
      sameSensor: sameSensor(old && partIn(old.parts, 'sensor'), partIn(fresh.parts, 'sensor')),
      firmware: { wasC: partIn(parts, 'firmware')?.limitC ?? null, ...stands },
      snug: { setC: t.setC, material: t.material },
      tuneC: own.resnug?.setC ?? t.setC,
      roomC: h.rules.roomC,
    },
  }
}

/** Those on the shelf that nobody has taken for another printer, and the one on the head. */
async function hotendsFor(db: Connection, h: HeadFor) {
  const all = await hotendsNow(db)
  return {
    old: all.find(l => l.id === h.hotend?.id) ?? null,
    shelf: all.filter(l => l.place === null && l.taken === null),
  }
}

/** Facts of one hotend on a head as they are now; null with why not. */
export async function hotendFacts(db: Connection, headId: number, hotendId: number): Promise<Worked> {
  const h = await headFor(db, headId)
  const nothing = nothingDescribed(h)
  if (nothing) return { facts: null, refusal: nothing.says }
  const lines = await hotendsNow(db, [hotendId, ...(h.hotend ? [h.hotend.id] : [])])
  const fresh = lines.find(l => l.id === hotendId)
  if (!fresh) return { facts: null, refusal: 'This hotend is not known' }
  return factsFor(db, h, headId, lines.find(l => l.id === h.hotend?.id) ?? null, fresh)
}

export async function hotendOffer(db: Connection, headId: number): Promise<HotendOffer> {
  const h = await headFor(db, headId)
  const { printer } = h
  const { old, shelf } = await hotendsFor(db, h)
  const ranked = rankHotends(printer, headId, shelf, comingTo(h, headId), h.rules)
  const refusal = nothingDescribed(h)
  const choices = []
  for (const { hotend, ...c } of ranked) {
    const line = shelf.find(l => l.id === hotend.id)!
    const worked = refusal ? null : await factsFor(db, h, headId, old, line)
    const no = worked?.refusal ?? null
    choices.push({
      ...thing(hotend),
      ...c,
      good: c.good && no === null,
      refusal: no,
      facts: worked?.facts ?? null,
    })
  }
  return {
    ...(await offeredOn(db, h, headId)),
    old: old && thing(old),
    refusal,
    /** Why its nozzle may not be turned. */
    nozzle: turningOn(h, headId, null).t.refusal,
    choices,
  }
}

/** The hotend of the shelf that is proposed where a nozzle may not be turned, or none of the shelf is good. */
export async function hotendInPlaceOf(db: Connection, h: HeadFor, headId: number): Promise<SwapOffer['hotend']> {
  if (nothingDescribed(h)) return null
  const { shelf } = await hotendsFor(db, h)
  const [best] = rankHotends(h.printer, headId, shelf, comingTo(h, headId), h.rules)
  return best?.good ? { ...thing(best.hotend), says: best.says.join(' '), minutes: best.minutes } : null
}
