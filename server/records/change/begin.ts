/** A procedure begins: its steps are worked out from how things stand, and kept as they are read. */
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { clogSteps, commissionFacts, commissionSteps, hotendSteps, swapSteps } from '#core/procedures'
import type { procedureSchema } from '#shared/entries/change'
import type { Connection } from '../../db/client'
import { heads, nozzles, procedures } from '../../db/schema'
import { ask, notInFuture, refuseField } from '../entry/refusal'
import { shopRules } from '../printers/ceilings'
import { askAboutFitting } from '../printers/fittings'
import { lockedHotend } from '../printers/hotends'
import { listStacks } from '../printers/stack-read'
import { clogFacts } from './clog'
import { hotendFacts } from './hotend'
import { swapFacts } from './swap'
import { underWay } from './under-way'

type Begin = z.output<typeof procedureSchema>

/** One printer has one procedure under way. */
async function refuseSecond(tx: Connection, printerId: number, field: string): Promise<void> {
  await tx.execute(sql`select id from printers where id = ${printerId} for no key update`)
  const [under] = await underWay(tx, [printerId])
  if (under) refuseField(field, `${under.title} is under way there: finish it, or stop it`)
}

/** The printer of a head on which something can begin. */
async function freeHead(tx: Connection, headId: number): Promise<number> {
  const [head] = await tx.select().from(heads).where(eq(heads.id, headId))
  if (!head) refuseField('headId', 'This head is not known')
  await refuseSecond(tx, head.printerId, 'headId')
  return head.printerId
}

async function swap(tx: Connection, p: Extract<Begin, { kind: 'swap' }>, at: Date) {
  const printerId = await freeHead(tx, p.headId)
  const [nozzle] = await tx.select().from(nozzles).where(eq(nozzles.id, p.nozzleId))
  if (!nozzle) refuseField('nozzleId', 'This nozzle is not known')
  const { facts, refusal } = await swapFacts(tx, p.headId, p.nozzleId)
  if (facts === null) {
    const taken = `${nozzle.tag} is not on the shelf: it is fitted, retired, or taken for another head`
    refuseField('nozzleId', refusal?.says ?? taken)
  }
  ask(await askAboutFitting(tx, nozzle, p.headId, at), p.confirmed)
  const title = `Swap on ${facts.place}: ${facts.old ? `${facts.old.tag} out, ` : ''}${facts.fresh.tag} in`
  return { printerId, headId: p.headId, title, facts, steps: swapSteps(facts) }
}

async function hotend(tx: Connection, p: Extract<Begin, { kind: 'hotend' }>, at: Date) {
  const printerId = await freeHead(tx, p.headId)
  const line = await lockedHotend(tx, p.hotendId)
  if (line?.taken) refuseField('hotendId', `${line.tag} is taken: ${line.taken.title}`)
  const { facts, refusal } = await hotendFacts(tx, p.headId, p.hotendId)
  if (facts === null) refuseField('hotendId', refusal)
  const [nozzle] = await tx.select().from(nozzles).where(eq(nozzles.id, facts.fresh.nozzle.id))
  const questions = await askAboutFitting(tx, nozzle!, p.headId, at)
  // it goes along in its hotend
  const worn = questions.filter(q => q.code !== 'in-hotend').map(q => ({ ...q, field: 'hotendId' }))
  ask(worn, p.confirmed)
  const title = `Hotend on ${facts.place}: ${facts.old ? `${facts.old.tag} off, ` : ''}${facts.fresh.tag} on`
  return { printerId, headId: p.headId, title, facts, steps: hotendSteps(facts) }
}

async function clog(tx: Connection, p: Extract<Begin, { kind: 'clog' }>) {
  const printerId = await freeHead(tx, p.headId)
  const { facts, refusal } = await clogFacts(tx, p.headId)
  if (facts === null) refuseField('headId', refusal.says)
  const title = `Clog on ${facts.place}: ${facts.nozzle.tag}`
  return { printerId, headId: p.headId, title, facts, steps: clogSteps(facts) }
}

async function commission(tx: Connection, p: Extract<Begin, { kind: 'commission' }>) {
  const [printer] = await listStacks(tx, [p.printerId])
  if (!printer) refuseField('printerId', 'This printer is not known')
  await refuseSecond(tx, p.printerId, 'printerId')
  const facts = commissionFacts(printer, await shopRules(tx))
  const title = `Commissioning of ${printer.name}`
  return { printerId: p.printerId, headId: null, title, facts, steps: commissionSteps(facts) }
}

function begun(tx: Connection, p: Begin, at: Date) {
  if (p.kind === 'swap') return swap(tx, p, at)
  if (p.kind === 'clog') return clog(tx, p)
  return p.kind === 'hotend' ? hotend(tx, p, at) : commission(tx, p)
}

export async function beginProcedure(tx: Connection, p: Begin, personId: number): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', p.occurredAt)
  const made = await begun(tx, p, occurredAt)
  const [row] = await tx
    .insert(procedures)
    .values({ kind: p.kind, ...made, note: p.note, occurredAt, personId })
    .returning({ id: procedures.id })
  return row!
}
