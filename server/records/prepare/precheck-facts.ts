/**
 * The facts of a job on a printer, gathered from every subject's records: for the check before a run, and for what was
 * wrong with one.
 */
import { LONGEST_SOAK_H, NOTHING_STANDS, notReady } from '#core/schedule'
import type { MaterialRow } from '#shared/answers/materials'
import type { StackPrinter } from '#shared/answers/printers'
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import {
  ceilings,
  checkStack,
  demandOfJob,
  heatAt,
  inOrder,
  offsetC,
  reason,
  stackOf,
  type Demand,
  type FittedNozzle,
  type Line,
  type OperatingPoint,
  type Rules,
  type Stack,
} from '#core/limits'
import { wetVerdict } from '#core/drying'
import { movesH, type FullScan } from '#core/gcode'
import { fibreMassG, massG, spoolMass } from '#core/materials'
import type { LimitLine, PrecheckFacts, WindowOfMaterial } from '#core/precheck'
import { demandsOf } from '#shared/asking'
import type { precheckSchema } from '#shared/entries/prepare'
import { filamentOfSpool, readForAnother, USUAL_DIAMETER_MM } from '#shared/filament'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { iso } from '../../db/iso'
import { shopRules } from '../printers/ceilings'
import { standings } from '../change/under-way'
import { levelStands } from '../level/levels'
import { guardStates } from '../upkeep/guards'
import { zLostOn } from '../level/z-records'
import { checkLinesFor } from './check-lines'
import { drynessIn, drynessMissing } from './precheck-water'
import { purgeC, throughFitted } from './changeovers'
import { factOf, listAskings } from '../materials/materials'
import { airAndFactor } from '../spools/factor'
import { spoolLogs, type SpoolLog } from '../spools/log'
import { stateOf } from '../spools/moisture'
import { workedWith } from '../cards/cards'
import { benchFor } from '../flow/told'
import { listNozzles } from '../nozzles/nozzles'
import { notFound, refuseField } from '../entry/refusal'
import { restrictionsOf } from '../printers/printers'
import { listStacks } from '../printers/stack-read'

type Precheck = z.output<typeof precheckSchema>

const windowOf = (m: MaterialRow): WindowOfMaterial => ({
  name: m.name,
  filler: m.filler,
  nozzleMinC: factOf(m, 'nozzleMinC'),
  nozzleMaxC: factOf(m, 'nozzleMaxC'),
  beds: m.sets.flatMap(s =>
    s.withdrawn || s.bedMinC === null || s.bedMaxC === null ? [] : [[s.bedMinC, s.bedMaxC] as const],
  ),
})

/** The practice whose bed is nearest to what the file sets, among those that this printer can follow. */
function practiceFor(demands: Demand[], enclosed: boolean, bedC: number | null): Demand {
  const fit = demands.filter(d => enclosed || !d.enclosed)
  const far = (d: Demand) =>
    bedC === null || d.bedMinC === null || d.bedMaxC === null ? 0 : Math.max(0, d.bedMinC - bedC, bedC - d.bedMaxC)
  return [...(fit.length > 0 ? fit : demands)].sort((a, b) => far(a) - far(b))[0]!
}

/** Lines that the check has a line of its own for, or that a job file does not decide. */
const OWN_LINES: readonly string[] = ['surface', 'enclosure', 'dryer']
/** What the printer's stack says to the file, without what it plainly meets and what has a line of its own. */
function limitLines(lines: readonly Line[], demand: Demand, nozzle: FittedNozzle | null): LimitLine[] {
  return inOrder(lines).flatMap(l => {
    if (l.status === 'ok' || OWN_LINES.includes(l.key)) return []
    // of the chamber only what its heater reaches is the printer's; the rest is the filament's need
    if (l.key === 'chamber' && l.status !== 'short' && l.status !== 'unknown' && l.code !== 'bed the cooler') return []
    const sensor = l.status !== 'unknown' && (l.key === 'nozzle temperature' || (l.key === 'bed' && l.code === 'part'))
    return [{ status: l.status, says: reason(l, demand, nozzle), sensor, eye: l.key === 'nozzle insert' }]
  })
}
/** The air that the file makes: at the coolest place of the build, and at the head. */
function airFacts(op: OperatingPoint): PrecheckFacts['air'] {
  const { low, high } = op.air
  if (!low || !high) return null
  const cool = low.c < high.c ? low : high
  return { coolestC: cool.c, headC: low.c, u90: Math.max(cool.u90, low.u90), from: cool.from }
}

/** A printer with another nozzle on one of its heads. */
const withNozzle = (p: StackPrinter, headId: number, nozzle: FittedNozzle | null): StackPrinter => ({
  ...p,
  heads: p.heads.map(h => (h.id === headId ? { ...h, nozzle } : h)),
})

/** What is asked of a check: which job, where, with what. */
export type Asked = Omit<Precheck, 'answers' | 'seen' | 'note' | 'occurredAt' | 'contentSha256' | 'sizeBytes'>
interface Gathered {
  facts: PrecheckFacts
  material: MaterialRow
  stack: Stack
  demand: Demand
  rules: Rules
  /** Every line of the limits, those that are met among them. */
  lines: readonly Line[]
}

/**
 * The facts of a job on a printer at a time. `nozzle` is the one that is asked about where it is not the one that is
 * fitted now; null where none was.
 */
export async function gatherFacts(
  db: Connection,
  q: Asked,
  now: Date,
  nozzle?: FittedNozzle | null,
): Promise<Gathered> {
  const [found] = await listStacks(db, [q.printerId])
  if (!found) notFound('This printer')
  const printer = nozzle === undefined ? found : withNozzle(found, q.headId, nozzle)
  const head = printer.heads.find(h => h.id === q.headId)
  if (!head) refuseField('headId', 'This head is not on that printer')
  const [rules, askings, logs, { air, wound }] = await Promise.all([
    shopRules(db),
    listAskings(db),
    q.spoolId === null ? [] : spoolLogs(db, idIn('s.id', [q.spoolId])),
    airAndFactor(db),
  ])
  const material = askings.find(m => m.id === q.materialId)
  if (!material) refuseField('materialId', 'This material is not known')
  const log = q.spoolId === null ? null : (logs[0] ?? refuseField('spoolId', 'This spool is not known'))
  if (log && log.materialId !== q.materialId)
    refuseField('spoolId', `${log.tag} is ${log.material}, not ${material.name}`)
  const scan = q.scan as FullScan | null
  const job = jobOf(q, scan, material, log)
  const stack = stackOf(printer, q.headId)
  const enclosed = stack.air.enclosure !== null
  const base = practiceFor(
    demandsOf(material, log?.diameterMm ?? scan?.filamentDiameterMm ?? USUAL_DIAMETER_MM),
    enclosed,
    job.bedC,
  )
  const demand = demandOfJob(q.name, job, base)
  const checked = checkStack(stack, demand, rules)
  const state = log === null ? null : stateOf(log, air, wound, now.getTime())
  const known = state?.water && state.water.dryness !== 'unknown' ? state.water : null
  const stays = known && drynessIn(q.printsFrom, known)
  const ceiling = ceilings(printer, rules).find(c => c.zone === 'hotend' && c.headId === q.headId)?.limitC ?? null
  const purges = (from: MaterialRow) => purgeC(stack.sensors.hotend, from, material, ceiling)
  const ofNozzle = head.nozzle
    ? await nozzleFacts(db, head.nozzle, q.headId, material, askings, purges, job.nozzleC)
    : null
  const [stand, restrictions, guards, level, zLost, soak, worked, own] = await Promise.all([
    standings(db, [printer.id]),
    restrictionsOf(db, printer.id),
    guardStates(db, printer, now.getTime()),
    levelStands(db, q.printerId, job.bedC),
    zLostOn(db, q.headId),
    soakOf(db, printer, now),
    head.nozzle ? workedWith(db, q, Number(head.nozzle.id)) : null,
    checkLinesFor(db, q.printerId, q.materialId),
  ])
  const standing = stand.get(printer.id) ?? NOTHING_STANDS
  const facts: PrecheckFacts = {
    notReady: notReady(printer.name, standing),
    restrictions,
    guards,
    job,
    made: {
      nozzleC: job.nozzleC === null ? null : heatAt(stack.sensors.hotend, job.nozzleC).trueC,
      bedC: job.bedC === null ? null : heatAt(stack.sensors.bed, job.bedC).trueC,
    },
    material: {
      ...windowOf(material),
      polymer: material.polymer,
      surfaces: base.surfaces ?? [],
      chamber: base.chamber,
      chamberMinC: base.chamberMinC,
      chamberMaxC: base.chamberMaxC,
      shortMaxC: factOf(material, 'shortMaxC'),
      glassC: factOf(material, 'glassC'),
    },
    nozzleOffsetC: head.nozzle ? offsetC(head.nozzle.material) : 0,
    others: askings.map(windowOf),
    limits: limitLines(checked.lines, demand, head.nozzle),
    nozzle: ofNozzle,
    spool: log === null ? null : { tag: log.tag, leftG: spoolMass(log.mass).g },
    dryness: stays?.usual ?? null,
    clean: stays?.clean ?? null,
    wet: wetVerdict(material.polymer),
    inBox: known?.inBox ?? null,
    drynessMissing: drynessMissing(log?.tag ?? null, state, material.name),
    printsFrom: q.printsFrom,
    fittedSurface: printer.parts.find(p => p.role === 'sheet')?.details.surface ?? null,
    enclosed,
    heated: stack.air.heater !== null,
    air: enclosed && (job.bedC !== null || checked.op.heater !== null) ? airFacts(checked.op) : null,
    level,
    zLost,
    soak,
    worked,
    own,
  }
  return { facts, material, stack, demand, rules, lines: checked.lines }
}

function jobOf(q: Asked, scan: FullScan | null, material: MaterialRow, log: SpoolLog | null): PrecheckFacts['job'] {
  const tool = scan?.tools.find(t => t.index === q.tool) ?? null
  const another = readForAnother(log, scan?.filamentDiameterMm ?? null)
  if (another) refuseField('spoolId', another)
  const f = filamentOfSpool(log?.own ?? null, material, scan?.filamentDiameterMm ?? null)
  const grams = tool === null || f.densityGCm3 === null ? null : massG(tool.extrudedMm, f.diameterMm, f.densityGCm3)
  return {
    name: q.name,
    nozzleC: scan?.maxSetpointC.tools[String(q.tool)] ?? q.setC?.nozzleC ?? null,
    bedC: scan?.maxSetpointC.bed ?? q.setC?.bedC ?? null,
    chamberC: scan?.maxSetpointC.chamber ?? q.setC?.chamberC ?? null,
    peakMm3S: scan?.toolFlow?.find(t => t.index === q.tool)?.peak ?? scan?.flow?.peak ?? null,
    hours: q.hours ?? (scan ? movesH({ moveSeconds: scan.moveSeconds ?? null }) : null),
    massG: grams,
    fibreG: grams === null ? null : fibreMassG(grams, f.fillerFraction),
    fanMax: scan?.fan?.max ?? null,
    firstLayer: scan?.firstLayer ?? null,
  }
}

async function nozzleFacts(
  db: Connection,
  n: { id: number | string; tag: string; boreMm: number },
  headId: number,
  material: MaterialRow,
  all: readonly MaterialRow[],
  purges: (from: MaterialRow) => number | null,
  setC: number | null,
): Promise<NonNullable<PrecheckFacts['nozzle']>> {
  const [found] = await listNozzles(db, { ids: [Number(n.id)] })
  const line = found!
  const [proven] = await db.execute<{ flow: number | null }>(sql`
    select max(t.peak_flow_mm3_s) flow from standing_runs r join run_tools t on t.run_id = r.id
    where t.nozzle_id = ${line.id} and t.material_id = ${material.id} and r.outcome = 'finished'
    and not ('under-extruded' = any(r.symptoms))`)
  const [seen] = await db.execute<{ shape: string[] | null; fitted: boolean }>(sql`
    select (select g.shape from standing_gauges g where g.nozzle_id = ${line.id}
      order by g.occurred_at desc, g.id desc limit 1) shape,
    not exists (select from standing_run_tools t where t.head_id = ${headId} and t.ended_at > (select f.occurred_at
      from standing_fittings f where f.head_id = ${headId} and f.kind = 'fit' order by f.occurred_at desc, f.id desc
      limit 1)) fitted`)
  const lastId = (await throughFitted(db)).find(t => t.nozzleId === line.id)?.lastId ?? null
  const last = all.find(m => m.id === lastId) ?? null
  return {
    tag: n.tag,
    boreMm: n.boreMm,
    shape: seen!.shape ?? [],
    fittedSinceRun: seen!.fitted,
    holds: last && { name: last.name, same: last.id === material.id, purgeC: purges(last) },
    provenMm3S: proven!.flow,
    bench: await benchFor(db, { nozzleId: line.id, headId, materialId: material.id }, setC),
    left:
      line.leftKg === null
        ? null
        : { low80G: line.leftLowKg! * 1000, medianG: line.leftKg * 1000, high80G: line.leftHighKg! * 1000 },
    pastChance: line.pastChance,
  }
}

async function soakOf(db: Connection, printer: StackPrinter, now: Date): Promise<PrecheckFacts['soak']> {
  const at = now.toISOString()
  const [s] = await db.execute<{ from: string; minutes: number; outcome: string | null }>(sql`
    select ${iso('occurred_at')} "from", minutes,
      case when ended_at <= ${at}::timestamptz + interval '5 minutes' then outcome end outcome from standing_soaks
    where printer_id = ${printer.id} and (ended_at is null
    or ended_at > ${at}::timestamptz - interval '1 hour') and occurred_at <= ${at}::timestamptz + interval '5 minutes'
    and occurred_at > ${at}::timestamptz - ${LONGEST_SOAK_H} * interval '1 hour'
    order by occurred_at desc, id desc limit 1`)
  if (!s) return null
  const leftMin = s.minutes - (now.getTime() - Date.parse(s.from)) / 60_000
  return {
    running: s.outcome === null && leftMin > 0,
    leftMin: Math.max(0, leftMin),
    done: s.outcome === 'done' || (s.outcome === null && leftMin <= 0),
  }
}
