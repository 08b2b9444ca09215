/**
 * What the Floor shows: every printer with its limits, fitted nozzles, what the last job asked, and what is next at the
 * bench.
 */
import type { BenchLine, Floor, FloorHead, FloorNozzle, FloorPrinter } from '#shared/answers/bench'
import type { ZoneLimit } from '#shared/answers/printers'
import { byWeight, dueOfPrinter, firstGauge, NOTHING_STANDS } from '#core/schedule'
import { kg } from '#core/words'
import { sql } from 'drizzle-orm'
import type { NozzleMaterial } from '#core/wear'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { standings } from '../change/under-way'
import { standingSnoozes } from '../due/standing-snoozes'
import { boreLimitMm } from '../nozzles/history'
import { LAST_ON_HEAD } from '../printers/fittings'

export const FLOOR_QUERY = sql`
  select p.id, p.name, p.kind, coalesce((select c.limits from stack_ceilings c where c.printer_id = p.id), '[]') limits,
    (select coalesce(json_agg(json_build_object('id', h.id, 'name', h.name, 'askedC', (select max(t.set_c)
    from run_tools t where t.run_id = lr.id and t.head_id = h.id),
        'nozzle', (
          select json_build_object('id', n.id, 'tag', n.tag, 'typeName', y.name, 'material', y.material,
          'nominalBoreMm', y.nominal_bore_mm, 'boreGrowthLimit', y.bore_growth_limit,
            'fibreG', f.fibre_g, 'leftKg', f.left_kg, 'lowKg', f.left_low_kg, 'highKg', f.left_high_kg,
            'nextKg', f.next_gauge_kg, 'pastChance', f.past_chance, 'stale', f.stale,
            'last', case when s.abrasivity is not null then
              json_build_object('abrasivity', s.abrasivity, 'material', s.material_name) end,
            'gaugedSince', coalesce(s.last_gauged_at >
              (select max(t.ended_at) from standing_run_tools t where t.nozzle_id = n.id), false),
            'shape', (select g.shape from standing_gauges g where g.nozzle_id = n.id
            order by g.occurred_at desc, g.id desc limit 1))
          from ${LAST_ON_HEAD} e join nozzles n on n.id = e.nozzle_id join nozzle_types y on y.id = n.type_id
          join nozzle_stands s on s.nozzle_id = n.id
          left join forecasts f on f.nozzle_id = n.id where e.kind = 'fit'
        )) order by h.position, h.id), '[]') from heads h where h.printer_id = p.id) heads,
    lr.run last
  from printers p
  left join lateral (
    select r.id, json_build_object('runId', r.id, 'name', r.name, 'endedAt', ${iso('r.ended_at')}, 'outcome', r.outcome,
    'symptoms', r.symptoms, 'bedC', r.bed_set_c, 'chamberC', r.chamber_set_c,
      'stoppedKind', r.stopped_kind, 'stoppedValue', r.stopped_value,
      'material', (select t.material_name from run_tools t where t.run_id = r.id order by t.tool
      limit 1), 'fibreG', (select sum(t.fibre_g) from run_tools t where t.run_id = r.id),
      'nozzle', (select json_build_object('id', n.id, 'tag', n.tag) from run_tools t
      join nozzles n on n.id = t.nozzle_id where t.run_id = r.id order by t.extruded_g desc, t.tool limit 1),
      'lookedAt', r.outcome = 'failed' and (exists (select from cases c where c.run_id = r.id)
        or exists (select from run_tools t where t.run_id = r.id and (
          exists (select from standing_gauges g where g.nozzle_id = t.nozzle_id and g.occurred_at > r.ended_at)
          or exists (select from standing_fittings f where f.nozzle_id = t.nozzle_id and f.occurred_at > r.ended_at)
          or exists (select from procedures c where c.kind = 'clog' and c.head_id = t.head_id
            and c.occurred_at > r.ended_at))))) run
    from standing_runs r where r.printer_id = p.id order by r.ended_at desc, r.id desc limit 1
  ) lr on true
  where not p.out_of_use order by p.id`

type Row = Record<string, unknown> & {
  id: number
  name: string
  kind: string
  limits: ZoneLimit[]
  heads: (Omit<FloorHead, 'nozzle'> & {
    nozzle: (Record<string, unknown> & { last: { abrasivity: number; material: string } | null }) | null
  })[]
  last:
    | (Omit<NonNullable<FloorPrinter['last']>, 'stopped'> & { stoppedKind: string | null; stoppedValue: number | null })
    | null
}

/** The Floor, with what of its bench is put off. */
export async function floor(db: Connection): Promise<Floor> {
  const [stands, snoozed] = await Promise.all([printersAndBench(db), standingSnoozes(db)])
  return { ...stands, putOff: [...snoozed.keys()] }
}

/** Every printer as it stands, and what is due there, put off or not. */
export async function printersAndBench(db: Connection): Promise<Omit<Floor, 'putOff'>> {
  const [set] = await db.execute<{ shop_name: string; time_zone: string; accepted_risk: number }>(
    sql`select shop_name, time_zone, accepted_risk from settings`,
  )
  const [rows, stand] = await Promise.all([db.execute<Row>(FLOOR_QUERY), standings(db)])
  const bench: BenchLine[] = []
  const printers = rows.map(r => {
    const p: FloorPrinter = {
      id: r.id,
      name: r.name,
      kind: r.kind,
      limits: r.limits,
      heads: r.heads.map(h => ({ id: h.id, name: h.name, askedC: h.askedC, nozzle: h.nozzle && toNozzle(h.nozzle) })),
      last: r.last && {
        ...r.last,
        stopped: r.last.stoppedKind && stoppedWords(r.last.stoppedKind, r.last.stoppedValue!),
      },
      standing: stand.get(r.id) ?? NOTHING_STANDS,
      verdict: 'fine',
    }
    const lines = linesOf(p, set!.accepted_risk)
    p.verdict = (['stop', 'look'] as const).find(v => lines.some(l => l.verdict === v)) ?? 'fine'
    bench.push(...lines)
    return p
  })
  bench.sort(byWeight)
  return {
    printers,
    bench,
    shopName: set!.shop_name,
    timeZone: set!.time_zone,
    acceptedRisk: set!.accepted_risk,
    at: new Date().toISOString(),
  }
}

function stoppedWords(kind: string, value: number): string {
  if (kind === 'percent') return `at ${value} %`
  return kind === 'height' ? `at ${value} mm height` : `after ${value} g`
}

function toNozzle(n: Record<string, unknown> & { last: { abrasivity: number; material: string } | null }): FloorNozzle {
  const perFibre = n.last ? 1 / n.last.abrasivity : null
  const open = (n.leftKg as number | null) === null || (n.leftKg as number) >= 1e9
  return {
    id: n.id as number,
    tag: n.tag as string,
    typeName: n.typeName as string,
    material: n.material as NozzleMaterial,
    nominalBoreMm: n.nominalBoreMm as number,
    limitMm: boreLimitMm({
      nominalBoreMm: n.nominalBoreMm as number,
      boreGrowthLimit: n.boreGrowthLimit as number | null,
    }),
    fibreG: (n.fibreG as number | null) ?? 0,
    leftKg:
      perFibre === null || open
        ? null
        : {
            median: (n.leftKg as number) * perFibre,
            low80: (n.lowKg as number) * perFibre,
            high80: (n.highKg as number) * perFibre,
          },
    nextGaugeKg: perFibre === null || open ? null : (n.nextKg as number) * perFibre,
    lastMaterial: n.last?.material ?? null,
    pastChance: (n.pastChance as number | null) ?? 0,
    stale: (n.stale as boolean | null) ?? true,
    gaugedSince: n.gaugedSince as boolean,
    shape: (n.shape as FloorNozzle['shape'] | null) ?? [],
  }
}

/** What there is to do at one printer; when nothing is, when the next gauge will be. */
function linesOf(p: FloorPrinter, risk: number): BenchLine[] {
  const due = dueOfPrinter(p, risk)
  if (due.length > 0)
    return due.map(({ mark, about, open, ...d }) => ({ ...d, verdict: mark, printer: p.name, nozzle: about, to: open }))
  const next = firstGauge(p)
  const nozzle = next?.tag ?? p.heads.find(h => h.nozzle)?.nozzle?.tag ?? null
  return [
    {
      verdict: 'fine',
      printer: p.name,
      nozzle,
      reason: next === null ? 'Nothing due.' : `Gauge due in ${kg(next.kg)} of fibre.`,
      action: nozzle === null ? 'Log a run' : 'Open the nozzle',
      station: nozzle === null ? 'run' : 'inspect',
      to: nozzle === null ? '/run' : `/inspect/${nozzle}`,
      weight: 1,
    },
  ]
}
