/**
 * Lines of past runs: what they name is looked up once for all of them, and each is then checked as a single run is,
 * as if those before it were logged already.
 */
import { sql } from 'drizzle-orm'
import { setImmediate as othersTurn } from 'node:timers/promises'
import { grams } from '#core/words'
import type { IntakeLine } from '#shared/answers/intake'
import { runSchema } from '#shared/entries/runs'
import type { Connection } from '../../db/client'
import { ask, Refusal, refuseField } from '../entry/refusal'
import { runFacts, tookIn, type Named, type RunFacts } from '../runs/facts'
import { passedThrough } from '../runs/passed'
import type { TakenIn } from '../runs/runs'
import {
  checked,
  headNamed,
  isDayAlone,
  momentIn,
  need,
  numberOf,
  struckThere,
  textOf,
  type By,
  type Line,
} from './line'
import { addMaterialNamed, newMaterial } from './lines'
import { TOLD_EVERY, type Tell } from './stage'
import { savedAs, stateOf } from './state'

/** What a line names, found in the shop. */
interface Draft extends Named {
  line: Line
  tools: [{ headId: number; nozzleId: number | null; spoolId: number | null; materialId: number | null }]
}
interface Head {
  id: number
  name: string
}
interface Names {
  printers: Map<string, { id: number; name: string; heads: Head[] }>
  nozzles: Map<string, number>
  spools: Map<string, number>
  materials: Map<string, number>
}
const low = (t: string) => t.toLowerCase()

async function idsOf(tx: Connection, table: string, column: 'name' | 'tag', said: readonly string[]) {
  const names = [...new Set(said.filter(t => t !== '').map(low))]
  const rows = await tx.execute<{ id: number; name: string }>(sql`
    select id, lower(${sql.raw(column)}) "name" from ${sql.raw(table)}
    where lower(${sql.raw(column)}) in (select jsonb_array_elements_text(${JSON.stringify(names)}::jsonb))`)
  return new Map(rows.map(r => [r.name, r.id]))
}

async function namesIn(tx: Connection, lines: readonly Line[]): Promise<Names> {
  const said = (key: string) => lines.map(l => textOf(l, key))
  const printers = await tx.execute<{ id: number; name: string; heads: Head[] }>(sql`
    select p.id, p.name, json_agg(json_build_object('id', h.id, 'name', h.name) order by h.position, h.id) heads
    from printers p join heads h on h.printer_id = p.id group by p.id`)
  return {
    printers: new Map(printers.map(p => [low(p.name), p])),
    nozzles: await idsOf(tx, 'nozzles', 'tag', said('nozzle')),
    spools: await idsOf(tx, 'spools', 'tag', said('spool')),
    materials: await idsOf(tx, 'materials', 'name', said('material')),
  }
}

function headOf(names: Names, line: Line): { printerId: number; headId: number } {
  const said = need(line, 'printer', 'the printer')
  const printer = names.printers.get(low(said)) ?? refuseField('printer', `No printer is called ${said}: add it first`)
  return { printerId: printer.id, headId: headNamed(line, printer).id }
}

/** What a line names by a tag; null where it names nothing. */
function tagged(of: Map<string, number>, line: Line, key: 'nozzle' | 'spool'): number | null {
  const tag = textOf(line, key)
  return tag === '' ? null : (of.get(low(tag)) ?? refuseField(key, `No ${key} is ${tag}: add it first`))
}

function draftOf(line: Line, names: Names, by: By): Draft {
  const { printerId, headId } = headOf(names, line)
  const endedAt = new Date(momentIn(line, 'ended', by))
  const nozzleId = tagged(names.nozzles, line, 'nozzle')
  const spoolId = tagged(names.spools, line, 'spool')
  const material = textOf(line, 'material')
  const materialId = names.materials.get(low(material)) ?? null
  if (spoolId === null && material === '') refuseField('material', 'Enter the spool, or at least the material')
  if (spoolId === null && materialId === null) ask([newMaterial(material).question], line.confirmed)
  return {
    line,
    printerId,
    endedAt,
    hours: numberOf(line, 'hours'),
    jobId: null,
    tools: [{ headId, nozzleId, spoolId, materialId: spoolId === null ? materialId : null }],
  }
}

function amountOf(line: Line) {
  const [g, m, before, after] = ['grams', 'metres', 'before', 'after'].map(key => numberOf(line, key))
  if (before !== null && after !== null) return { kind: 'weights' as const, beforeG: before!, afterG: after! }
  if (before !== null || after !== null)
    refuseField(before === null ? 'before' : 'after', 'Both weights of the spool, or none')
  if (g !== null) return { kind: 'grams' as const, grams: g! }
  if (m !== null) return { kind: 'metres' as const, metres: m! }
  return refuseField('grams', 'Enter what was printed: grams, metres, or the spool before and after')
}

const NO_NAME = 'past run'
/** Of a day alone nobody knows what went on at once, or whether the nozzle was fitted in the middle. */
const UNKNOWN_OF_A_DAY = ['overlap:0', 'fitted-late:0']

function runOf({ line, printerId, endedAt, hours, tools: [tool] }: Draft, facts: RunFacts) {
  const nozzleId =
    tool.nozzleId ??
    facts.fittedAt(tool.headId, endedAt)?.nozzleId ??
    refuseField('nozzle', 'No nozzle was on it then: say which it was')
  return checked(runSchema, {
    printerId,
    name: textOf(line, 'name') || NO_NAME,
    endedAt: endedAt.toISOString(),
    hours,
    outcome: textOf(line, 'outcome') === 'failed' ? 'failed' : 'finished',
    bedSetC: numberOf(line, 'bedC'),
    chamberSetC: numberOf(line, 'chamberC'),
    surface: textOf(line, 'surface') || null,
    note: textOf(line, 'note'),
    tools: [{ ...tool, tool: 0, nozzleId, amount: amountOf(line), setC: numberOf(line, 'nozzleC') }],
    confirmed: [...line.confirmed, ...(isDayAlone(line, 'ended') ? UNKNOWN_OF_A_DAY : [])].slice(0, 20),
  })
}

/** Runs that are logged already, counted: a table with two that are alike has both of them. */
function alreadyLogged(facts: RunFacts) {
  const key = (headId: number, ms: number, name: string, g: number) => `${headId} ${ms} ${low(name)} ${g.toFixed(3)}`
  const there = new Map<string, number>()
  for (const [headId, all] of facts.logged)
    for (const l of all) {
      const k = key(headId, l.toMs, l.name, l.extrudedG)
      there.set(k, (there.get(k) ?? 0) + 1)
    }
  return (headId: number, ms: number, name: string, g: number): boolean => {
    const k = key(headId, ms, name, g)
    const left = there.get(k) ?? 0
    if (left > 0) there.set(k, left - 1)
    return left > 0
  }
}

/** A material that was said yes to is added once, before the runs that name it; a no is said with its line. */
async function addMaterialOf(tx: Connection, line: Line, { materials }: Names, by: By): Promise<void> {
  const name = textOf(line, 'material')
  if (name === '' || materials.has(low(name)) || textOf(line, 'spool') !== '' || line.confirmed.length === 0) return
  try {
    materials.set(low(name), await tx.transaction(inner => addMaterialNamed(inner, name, line.confirmed, by)))
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
  }
}

/** What each line would do, and the runs that are to be stored. */
export async function runLines(
  tx: Connection,
  lines: readonly Line[],
  by: By,
  tell: Tell,
): Promise<{ lines: IntakeLine[]; taken: TakenIn[] }> {
  const names = await namesIn(tx, lines)
  for (const line of lines) await addMaterialOf(tx, line, names, by)
  const out = new Map<number, IntakeLine>()
  const drafts = lines.flatMap(line => {
    const struck = struckThere(line)
    if (struck !== null) {
      out.set(line.line, savedAs(line, struck))
      return []
    }
    const { state, got } = stateOf('runs', line, () => draftOf(line, names, by))
    if (got === null) out.set(line.line, state)
    return got ?? []
  })
  const facts = await runFacts(tx, drafts)
  const isLogged = alreadyLogged(facts)
  const taken: TakenIn[] = []
  for (const [i, draft] of drafts.entries()) {
    const { line } = draft
    const { state } = stateOf('runs', line, () => {
      const run = runOf(draft, facts)
      const passed = passedThrough(run, null, facts)
      const [row] = passed.rows
      const says = `${grams(row!.extrudedG)} of ${row!.materialName} through ${row!.nozzle}`
      if (isLogged(row!.headId, draft.endedAt.getTime(), run.name, row!.extrudedG)) return { isHere: true, says }
      ask(passed.questions, run.confirmed)
      tookIn(facts, { ...run, endedAt: passed.endedAt }, passed.rows)
      taken.push({ run, jobId: null, passed })
      return { isHere: false, says }
    })
    out.set(line.line, state)
    if ((i + 1) % TOLD_EVERY === 0) {
      await tell(i + 1)
      await othersTurn()
    }
  }
  return { lines: lines.map(l => out.get(l.line)!), taken }
}
