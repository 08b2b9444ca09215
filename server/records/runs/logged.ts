/** Runs as they were entered: read back from the log, to be entered again. */
import { sql, type SQL } from 'drizzle-orm'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import type { Run } from './passed'

export interface LoggedTool {
  tool: number
  headId: number
  nozzleId: number
  spoolId: number | null
  materialId: number
  extrudedMm: number | null
  extrudedG: number
  fibreG: number
  wearKg: number
  setC: number | null
  diameterMm: number
  materialName: string
  beforeG: number | null
  afterG: number | null
}
export interface LoggedRun extends Record<string, unknown> {
  id: number
  printerId: number
  jobId: number | null
  name: string
  endedAt: string
  hours: number | null
  outcome: Run['outcome']
  stopped: Run['stopped']
  symptoms: Run['symptoms']
  enteredAs: string
  bedSetC: number | null
  chamberSetC: number | null
  surface: string | null
  precheckId: number | null
  note: string
  person: string
  tools: LoggedTool[]
}

/** `which` says which, of r; struck ones are among them unless it says otherwise. */
export async function loggedRuns(db: Connection, which: SQL): Promise<LoggedRun[]> {
  return await db.execute<LoggedRun>(sql`
    select r.id::int, r.printer_id "printerId", r.job_id::int "jobId", r.name, ${iso('r.ended_at')} "endedAt", r.hours,
      r.outcome, case when r.stopped_kind is not null then json_build_object('kind', r.stopped_kind, 'value',
      r.stopped_value) end stopped, r.symptoms, r.entered_as "enteredAs", r.bed_set_c "bedSetC",
      r.chamber_set_c "chamberSetC", r.surface, r.precheck_id::int "precheckId", r.note, w.name person,
      (select json_agg(json_build_object('tool', t.tool, 'headId', t.head_id, 'nozzleId', t.nozzle_id,
        'spoolId', t.spool_id, 'materialId', t.material_id, 'extrudedMm', t.extruded_mm, 'extrudedG', t.extruded_g,
        'fibreG', t.fibre_g, 'wearKg', t.wear_kg, 'setC', t.set_c, 'diameterMm', t.diameter_mm,
        'materialName', t.material_name, 'beforeG', t.before_g, 'afterG', t.after_g) order by t.tool)
        from run_tools t where t.run_id = r.id) tools
    from runs r join people w on w.id = r.person_id where ${which}
    order by r.ended_at, r.id`)
}

/** What was known of the amount: it stays, and what is worked out from it may be something else now. */
function amountOf(enteredAs: string, t: LoggedTool): Run['tools'][number]['amount'] {
  if (t.beforeG !== null && t.afterG !== null) return { kind: 'weights', beforeG: t.beforeG, afterG: t.afterG }
  const isLength = enteredAs === 'job file' || enteredAs === 'metres'
  if (isLength && t.extrudedMm !== null) return { kind: 'metres', metres: t.extrudedMm / 1000 }
  return { kind: 'grams', grams: t.extrudedG }
}
/** Amounts of a job file as lengths: what else its file said is in its rows. */
export const runOf = ({ id: _id, enteredAs, person: _by, ...r }: LoggedRun): Run => ({
  ...r,
  job: null,
  tools: r.tools.map(t => ({
    tool: t.tool,
    headId: t.headId,
    nozzleId: t.nozzleId,
    spoolId: t.spoolId,
    materialId: t.materialId,
    setC: t.setC,
    amount: amountOf(enteredAs, t),
  })),
  confirmed: [],
})
