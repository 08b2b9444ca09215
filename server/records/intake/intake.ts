/**
 * A table that a shop brings along, saved as a whole or not at all. Each line is saved by the functions a single entry
 * is saved by; looking first does the same and takes it back, so that what is shown is what will be.
 */
import type { z } from 'zod'
import { columnsOf, isLogTable } from '#core/intake'
import type { IntakeEffect, IntakeLine } from '#shared/answers/intake'
import type { intakeSchema } from '#shared/entries/intake'
import type { Connection, Database } from '../../db/client'
import { refuseFields } from '../entry/refusal'
import { refreshForecast } from '../nozzles/forecasts'
import { insertRuns, nozzlesOf, type TakenIn } from '../runs/runs'
import { shopSettings } from '../shop/settings'
import { keepImport } from './imports'
import { struckThere, type By, type Entry, type Line } from './line'
import { SAVE_LINE } from './lines'
import { runLines } from './runs'
import { forgetStage, linesOf, telling, type Tell } from './stage'
import { refusedAs, savedAs } from './state'

type Intake = z.output<typeof intakeSchema>

/** Thrown to take back what was only looked at. */
const takenBack = new Error('taken back')

/** What each line would do; nothing is stored. */
export async function lookAt(db: Database, intake: Intake, personId: number): Promise<{ lines: IntakeLine[] }> {
  let lines: IntakeLine[] = []
  try {
    await db.transaction(async tx => {
      lines = (await eachLine(tx, intake, personId, telling(db, intake.staged))).lines
      throw takenBack
    })
  } catch (error) {
    if (error !== takenBack) throw error
  }
  return { lines }
}

/** Saves every line, or none: a line that asks or is wrong refuses all of them. `db` tells how far it has come. */
export async function takeIn(tx: Connection, intake: Intake, personId: number, db: Database): Promise<IntakeEffect> {
  const tell = telling(db, intake.staged)
  const { lines, entries, taken } = await eachLine(tx, intake, personId, tell)
  const open = lines.filter(l => l.state === 'wrong' || l.state === 'asks')
  if (open.length > 0)
    refuseFields(open.slice(0, 50).map(l => ({ field: `lines.${l.line}`, message: `Line ${l.line}: ${l.says}` })))
  const runIds = await insertRuns(tx, taken, personId)
  if (isLogTable(intake.table)) {
    const all = [...entries, ...runIds.map(id => ({ target: 'run' as const, id }))]
    await keepImport(tx, intake.table, intake.name, all, personId)
    // each nozzle once, whatever the number of lines
    const moved = new Set([...nozzlesOf(taken), ...entries.flatMap(e => e.nozzleId ?? [])])
    for (const id of [...moved].sort((a, b) => a - b)) await refreshForecast(tx, id)
  }
  if (intake.staged !== null) await forgetStage(tx, intake.staged.stage)
  return { added: lines.filter(l => l.state === 'new').length, here: lines.filter(l => l.state === 'here').length }
}

interface Each {
  lines: IntakeLine[]
  entries: Entry[]
  /** Runs, checked and not stored yet. */
  taken: TakenIn[]
}
async function eachLine(tx: Connection, intake: Intake, personId: number, tell: Tell): Promise<Each> {
  const { table } = intake
  const lines = await linesOf(tx, intake)
  const by: By = { personId, zone: (await shopSettings(tx)).timeZone, now: new Date() }
  if (table === 'runs') return { ...(await runLines(tx, lines, by, tell)), entries: [] }
  const out: IntakeLine[] = []
  const entries: Entry[] = []
  const twice = twiceIn(table)
  for (const line of lines) out.push(twice(line) ?? (await oneLine(tx, table, line, by, entries)))
  return { lines: out, entries, taken: [] }
}

/** Of things each is named once; entries of a log can be alike. */
function twiceIn(table: Intake['table']): (line: Line) => IntakeLine | null {
  if (isLogTable(table)) return () => null
  const named = new Map<string, number>()
  const key = columnsOf(table)[0]!.key
  return ({ line, values }) => {
    const name = String(values[key] ?? '')
      .trim()
      .toLowerCase()
    const first = name === '' ? undefined : named.get(name)
    if (first === undefined) {
      named.set(name, line)
      return null
    }
    const message = `The same as in line ${first}`
    return { line, state: 'wrong', says: message, errors: [{ field: key, message }], questions: [] }
  }
}

async function oneLine(
  tx: Connection,
  table: keyof typeof SAVE_LINE,
  line: Line,
  by: By,
  entries: Entry[],
): Promise<IntakeLine> {
  try {
    // what a line began is taken back where it is refused, and the next one finds the shop as it was
    const saved = struckThere(line) ?? (await tx.transaction(inner => SAVE_LINE[table](inner, line, by)))
    if (saved.entry) entries.push(saved.entry)
    return savedAs(line, saved)
  } catch (error) {
    return refusedAs(table, line, error)
  }
}
