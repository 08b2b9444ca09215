/**
 * What the end of a procedure writes, in the transaction of its ending: a finished swap its fitting, length, Z and last
 * material; one that was stopped with the nozzle out or in what was moved, and a tag that keeps the printer still.
 */
import { eq, sql } from 'drizzle-orm'
import { START_MELT_MM3, washout, type ZWay } from '#core/changeover'
import { lengthChange, portsOf, type HeadFacts, type HotendFacts, type SwapFacts, type Values } from '#core/procedures'
import { changeoverSchema } from '#shared/entries/prepare'
import { changeSchema, fittingSchema } from '#shared/entries/printers'
import { gaugeSchema } from '#shared/entries/nozzles'
import { USUAL_DIAMETER_MM } from '#shared/filament'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { materials, serviceTags, zRecords } from '../../db/schema'
import { LONGER_TIP, saveGauge } from '../nozzles/gauges'
import { saveChangeover } from '../prepare/changeovers'
import { headAt, hotendOnHead, saveFitting } from '../printers/fittings'
import { saveChange } from '../printers/stack-change'
import { listStacks } from '../printers/stack-read'
import { takeForProcedure } from '../stock/items'
import { clogOf, hotendOf, swapOf, type Endable } from './ticks'

interface Ending {
  outcome: 'done' | 'stopped early'
  note: string
  at: Date
  confirmed: string[]
}

/** Questions that were answered when it began, or at their step: they are not asked again at the end. */
const ASKED_BEFORE = ['retired', 'worn-out', 'elsewhere', 'in-hotend', 'not-fitted', LONGER_TIP]

/** When a step was done; null while it is not. */
const doneAt = (ticks: Endable['ticks']) => (step: string) => ticks.find(t => t.step === step)?.at ?? null

export async function writeEnd(tx: Connection, procedure: Endable, ending: Ending, personId: number): Promise<void> {
  const e = { ...ending, confirmed: [...new Set([...ending.confirmed, ...ASKED_BEFORE])] }
  const swap = swapOf(procedure.p)
  const hotend = hotendOf(procedure.p)
  if (swap !== null) await writeSwap(tx, procedure, swap, e, personId)
  else if (hotend !== null) await writeHotend(tx, procedure, hotend, e, personId)
  else if (clogOf(procedure.p)) await writeClog(tx, procedure, e, personId)
  else if (e.outcome === 'stopped early') await keepUnproved(tx, procedure, e, personId)
}

async function writeSwap(tx: Connection, { p, ticks, values }: Endable, facts: SwapFacts, e: Ending, personId: number) {
  const at = doneAt(ticks)
  const { confirmed } = e
  const headId = p.headId!
  const fitted = at('in')
  const out = at('out')
  if (fitted !== null) {
    await fitUnlessThere(tx, headId, facts.fresh.id, fitted, confirmed, personId)
    await keepLength(tx, facts.fresh.id, values, at('take')!, confirmed, personId)
  } else if (out !== null && facts.old !== null) await takeOff(tx, headId, facts.old.id, out, personId)
  if (e.outcome === 'done') {
    const changeMm = lengthChange(facts, values)?.mm ?? null
    const to = { nozzleId: facts.fresh.id, changeMm, turnC: facts.turn.setC }
    await writeZAndPurge(tx, { p, ticks, values }, facts, to, confirmed, personId)
    await takeForProcedure(tx, 'a nozzle swap', p.id, e.at, personId)
  } else if (fitted !== null || out !== null) await keepStill(tx, p, facts.fresh.tag, e, fitted !== null, personId)
}

/** By hand or by the strip somebody may have logged it meanwhile. */
async function fitUnlessThere(
  tx: Connection,
  headId: number,
  nozzleId: number,
  occurredAt: string,
  confirmed: string[],
  personId: number,
): Promise<void> {
  if ((await headAt(tx, headId, new Date()))?.nozzleId === nozzleId) return
  const entry = { kind: 'fit', nozzleId, headId, reason: 'swapped step by step', occurredAt, confirmed }
  await saveFitting(tx, fittingSchema.parse(entry), personId)
}

async function takeOff(tx: Connection, headId: number, nozzleId: number, occurredAt: string, personId: number) {
  if ((await headAt(tx, headId, new Date()))?.nozzleId !== nozzleId) return
  const entry = { kind: 'remove', nozzleId, headId, reason: 'the swap was stopped with it out', occurredAt }
  await saveFitting(tx, fittingSchema.parse(entry), personId)
}

async function keepLength(
  tx: Connection,
  nozzleId: number,
  values: Values,
  occurredAt: string,
  confirmed: string[],
  personId: number,
): Promise<void> {
  if (typeof values.lengthMm !== 'number') return
  const entry = { nozzleId, tipMm: values.lengthMm, note: 'by caliper, before it was fitted', occurredAt, confirmed }
  await saveGauge(tx, gaugeSchema.parse(entry), personId)
}

async function writeZAndPurge(
  tx: Connection,
  { p, ticks, values }: Endable,
  facts: HeadFacts,
  to: { nozzleId: number; changeMm: number | null; turnC: number },
  confirmed: string[],
  personId: number,
) {
  const at = doneAt(ticks)
  const before = values.zBeforeMm
  await tx.insert(zRecords).values({
    headId: p.headId!,
    nozzleId: to.nozzleId,
    procedureId: p.id,
    way: (values.zWay as ZWay | undefined) ?? facts.zWay!,
    beforeMm: typeof before === 'number' ? before : null,
    zMm: values.zAfterMm as number,
    changeMm: to.changeMm,
    occurredAt: new Date(at('z')!),
    personId,
  })
  const note = 'after the change; how much went through was not measured'
  await writePurge(tx, { p, ticks, values }, facts, { nozzleId: to.nozzleId, atC: to.turnC, note }, confirmed, personId)
}

/** What the nozzle was purged to at the end, and from what. */
async function writePurge(
  tx: Connection,
  { p, ticks, values }: Endable,
  { holds, materials: filaments }: Pick<HeadFacts, 'holds' | 'materials'>,
  to: { nozzleId: number; atC: number; note: string },
  confirmed: string[],
  personId: number,
) {
  const toMaterialId = Number(values.material)
  const [from] = holds === null ? [] : await tx.select().from(materials).where(eq(materials.name, holds))
  await saveChangeover(
    tx,
    changeoverSchema.parse({
      headId: p.headId!,
      nozzleId: to.nozzleId,
      fromMaterialId: from?.id ?? null,
      toMaterialId,
      atC: filaments.find(m => m.id === toMaterialId)?.purgeC ?? to.atC,
      volumeMm3: Math.round(washout(START_MELT_MM3.standard, USUAL_DIAMETER_MM).volumeMm3),
      clean: true,
      note: to.note,
      occurredAt: doneAt(ticks)('purge')!,
      confirmed,
    }),
    personId,
  )
}

/** A clog: what runs from the nozzle now; one that is still blocked keeps its printer still. */
async function writeClog(tx: Connection, procedure: Endable, e: Ending, personId: number): Promise<void> {
  const { p, values } = procedure
  const facts = clogOf(p)!
  const isBlocked = e.outcome === 'stopped early' || values.clearedBy === 'nothing'
  if (!isBlocked) {
    const to = { nozzleId: facts.nozzle.id, atC: facts.softC, note: 'after a clog was cleared' }
    await writePurge(tx, procedure, facts, to, e.confirmed, personId)
    return
  }
  const why = e.outcome === 'done' ? 'nothing cleared it' : e.note.trim()
  await tx.insert(serviceTags).values({
    printerId: p.printerId,
    why: `${p.title}: ${why}`.slice(0, 300),
    must: [`${facts.nozzle.tag} runs again, or another is in its place`],
    procedureId: p.id,
    occurredAt: e.at,
    personId,
  })
}

/** Stopped with the nozzle moved: the printer must not run before it is put right. */
async function keepStill(tx: Connection, p: Endable['p'], fresh: string, e: Ending, fitted: boolean, personId: number) {
  await tx.insert(serviceTags).values({
    printerId: p.printerId,
    why: `${p.title} was stopped with ${fitted ? `${fresh} in` : 'no nozzle in'}: ${e.note.trim()}`.slice(0, 300),
    must: fitted
      ? [`${fresh} is tight and does not leak`, 'Z set by feeler', 'A first layer watched']
      : ['A nozzle is fitted, and Z set by feeler'],
    procedureId: p.id,
    occurredAt: e.at,
    personId,
  })
}

async function writeHotend(tx: Connection, procedure: Endable, facts: HotendFacts, e: Ending, personId: number) {
  const { p, ticks, values } = procedure
  const at = doneAt(ticks)
  const { confirmed } = e
  const fitted = at('in')
  const out = at('out')
  const moved = fitted ?? out
  if (moved !== null) {
    const on = fitted === null ? null : facts.fresh
    await changeHotend(tx, procedure, on, { ...e, moved }, personId)
  }
  if (e.outcome === 'done') {
    const to = { nozzleId: facts.fresh.nozzle.id, changeMm: null, turnC: facts.snug.setC }
    await writeZAndPurge(tx, { p, ticks, values }, facts, to, confirmed, personId)
    await takeForProcedure(tx, 'a hotend change', p.id, e.at, personId)
  } else if (moved !== null) await keepUnproved(tx, procedure, e, personId)
}

/** The hotends as they were moved, and the ceiling that the firmware has since; unless somebody logged it meanwhile. */
async function changeHotend(
  tx: Connection,
  { p, values }: Endable,
  on: HotendFacts['fresh'] | null,
  e: Ending & { moved: string },
  personId: number,
): Promise<void> {
  const headId = p.headId!
  const here = await hotendOnHead(tx, headId)
  if ((here?.id ?? null) === (on?.id ?? null)) return
  const firmware = (await listStacks(tx, [p.printerId]))[0]!.parts.find(
    x => x.role === 'firmware' && x.headId === headId,
  )
  const ceilingC = on !== null && typeof values.ceilingC === 'number' ? values.ceilingC : null
  const raised = ceilingC !== null && ceilingC !== (firmware?.limitC ?? null)
  const says = [
    `${here ? `${here.tag} off` : 'Nothing off'}${on ? `, ${on.tag} on` : ''}, step by step`,
    portsOf(values),
    typeof values.sensorType === 'string' ? `sensor type ${values.sensorType}` : '',
    typeof values.loop === 'string' ? `loop ${values.loop}` : '',
  ]
  const entry = {
    printerId: p.printerId,
    text: says.filter(Boolean).join('; ').slice(0, 2000),
    hotends: [{ headId, hotendId: on?.id ?? null }],
    remove: raised && firmware ? [firmware.id] : [],
    add: raised
      ? [
          {
            kind: 'firmware ceiling',
            headId,
            limitC: ceilingC,
            basis: 'nameplate',
            note: 'as read when the hotend came',
          },
        ]
      : [],
    confirmed: e.confirmed,
  }
  // what was logged of this head after it was fitted is not overtaken
  const [since] = await tx.execute<{ at: string | null }>(sql`
    select ${iso('max(x.occurred_at)')} "at" from (
      select occurred_at from standing_fittings where head_id = ${headId}
      union all select occurred_at from hotend_places where head_id = ${headId} or hotend_id = ${on?.id ?? 0}) x`)
  const late = since!.at !== null && Date.parse(since!.at) > Date.parse(e.moved)
  await saveChange(tx, changeSchema.parse({ ...entry, occurredAt: late ? e.at.toISOString() : e.moved }), personId)
}

/** A commissioning or a change of a hotend that is stopped leaves what was not proved to be proved. */
async function keepUnproved(tx: Connection, { p, ticks }: Endable, e: Ending, personId: number): Promise<void> {
  const missing = p.steps.filter(s => !ticks.some(t => t.step === s.key))
  if (missing.length === 0) return
  await tx.insert(serviceTags).values({
    printerId: p.printerId,
    why: `${p.title} was stopped: ${e.note.trim()}`.slice(0, 300),
    must: missing.map(s => s.title).slice(0, 30),
    procedureId: p.id,
    occurredAt: e.at,
    personId,
  })
}
