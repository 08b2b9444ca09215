/**
 * What the Floor shows: every printer with its limits, fitted nozzles, what the last job asked, and what is next at the
 * bench.
 */
import type { BenchLine, Floor, FloorHead, FloorNozzle, FloorPrinter } from '#shared/answers/bench'
import type { Mark } from '#shared/answers/parts'
import type { ZoneLimit } from '#shared/answers/printers'
import { sql } from 'drizzle-orm'
import type { NozzleMaterial } from '#core/wear'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { boreLimitMm } from '../nozzles/history'

export const FLOOR_QUERY = sql`
  select p.id, p.name, p.kind, coalesce((select c.limits from stack_ceilings c where c.printer_id = p.id), '[]') limits,
    (select coalesce(json_agg(json_build_object('id', h.id, 'name', h.name, 'askedC', (select max(t.set_c)
    from run_tools t where t.run_id = lr.id and t.head_id = h.id),
        'nozzle', (
          select json_build_object('id', n.id, 'tag', n.tag, 'typeName', y.name, 'material', y.material,
          'nominalBoreMm', y.nominal_bore_mm, 'boreGrowthLimit', y.bore_growth_limit,
            'fibreG', f.fibre_g, 'leftKg', f.left_kg, 'lowKg', f.left_low_kg, 'highKg', f.left_high_kg,
            'nextKg', f.next_gauge_kg, 'pastChance', f.past_chance, 'stale', f.stale,
            'last', (select json_build_object('abrasivity', t.abrasivity, 'material', t.material_name)
            from standing_run_tools t
              where t.nozzle_id = n.id and t.filler_fraction > 0 order by t.ended_at desc, t.run_id desc limit 1),
            'shape', (select g.shape from standing_gauges g where g.nozzle_id = n.id
            order by g.occurred_at desc, g.id desc limit 1))
          from (select * from standing_fittings e where e.head_id = h.id order by e.occurred_at desc, e.id desc
          limit 1) e
          join nozzles n on n.id = e.nozzle_id join nozzle_types y on y.id = n.type_id left
          join forecasts f on f.nozzle_id = n.id where e.kind = 'fit'
        )) order by h.position, h.id), '[]') from heads h where h.printer_id = p.id) heads,
    lr.run last
  from printers p
  left join lateral (
    select r.id, json_build_object('runId', r.id, 'name', r.name, 'endedAt', ${iso('r.ended_at')}, 'outcome', r.outcome,
    'symptoms', r.symptoms, 'bedC', r.bed_set_c, 'chamberC', r.chamber_set_c,
      'stoppedKind', r.stopped_kind, 'stoppedValue', r.stopped_value,
      'material', (select t.material_name from run_tools t where t.run_id = r.id order by t.tool
      limit 1), 'fibreG', (select sum(t.fibre_g) from run_tools t where t.run_id = r.id)) run
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

export async function floor(db: Connection): Promise<Floor> {
  const [set] = await db.execute<{ shop_name: string; time_zone: string; accepted_risk: number }>(
    sql`select shop_name, time_zone, accepted_risk from settings`,
  )
  const rows = await db.execute<Row>(FLOOR_QUERY)
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
      verdict: 'fine',
    }
    const lines = linesOf(p, set!.accepted_risk)
    p.verdict = (['stop', 'look'] as const).find(v => lines.some(l => l.verdict === v)) ?? 'fine'
    bench.push(...lines)
    return p
  })
  bench.sort((a, b) => b.weight - a.weight)
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
    limitMm:
      n.boreGrowthLimit === null
        ? null
        : boreLimitMm({ nominalBoreMm: n.nominalBoreMm as number, boreGrowthLimit: n.boreGrowthLimit as number }),
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
    shape: (n.shape as FloorNozzle['shape'] | null) ?? [],
  }
}

const percent = (v: number) => (v > 0.99 ? 'over 99 %' : `${Math.max(1, Math.round(v * 100))} %`)
const kg = (v: number) => (v >= 1 ? `${v.toPrecision(2)} kg` : `${Number((v * 1000).toPrecision(2))} g`)
const SOFT: NozzleMaterial[] = ['brass', 'plated copper']

/**
 * What there is to do on one printer, each line with its reason and one action. The weight is chance × consequence, 0
 * to 100.
 */
function linesOf(p: FloorPrinter, risk: number): BenchLine[] {
  const lines: BenchLine[] = []
  const add = (verdict: Mark, nozzle: string | null, reason: string, action: string, to: string, weight: number) =>
    lines.push({ verdict, printer: p.name, nozzle, reason, action, to, weight })
  const over = (zone: ZoneLimit['zone'], headId: number | null, asked: number | null) => {
    const limit = p.limits.find(l => l.zone === zone && l.headId === headId)
    if (!limit || asked === null || asked <= limit.limitC) return
    const by = asked - limit.limitC
    add(
      zone === 'hotend' || by > 5 ? 'stop' : 'look',
      null,
      `The last job asked ${asked} °C of the ${zone === 'hotend' ? 'nozzle' : zone}; ` +
        `the ${limit.part} stops at ${limit.limitC} °C.`,
      'Do not repeat it here; see the run',
      `/run?show=${p.last!.runId}`,
      95,
    )
  }
  for (const h of p.heads) {
    over('hotend', h.id, h.askedC)
    const n = h.nozzle
    const place = p.heads.length > 1 ? ` (${h.name})` : ''
    if (!n) {
      add('look', null, `No nozzle fitted${place}.`, 'Fit one', `/stores?fit=${h.id}`, 20)
      continue
    }
    const gauge = `/inspect/${n.tag}?gauge=1`
    const broken = n.shape.filter(s => s === 'loose insert' || s === 'cracked plating' || s === 'chipped')
    if (broken.length > 0)
      add('stop', n.tag, `Last gauge found: ${broken.join(', ')}.`, 'Retire it', `/inspect/${n.tag}`, 92)
    if (n.pastChance > 0.5)
      add(
        'stop',
        n.tag,
        `${percent(n.pastChance)} chance that it is past ` +
          `${n.limitMm === null ? 'its limit' : `${n.limitMm.toFixed(2)} mm`} after ${kg(n.fibreG / 1000)} of fibre.`,
        'Gauge it before the next job',
        gauge,
        60 + 30 * n.pastChance,
      )
    else if (n.pastChance >= risk)
      add(
        'look',
        n.tag,
        `${kg(n.fibreG / 1000)} fibre through; ${percent(n.pastChance)} chance that it is past ` +
          `${n.limitMm === null ? 'its limit' : `${n.limitMm.toFixed(2)} mm`}.`,
        'Gauge it before the next filled job',
        gauge,
        30 + 60 * n.pastChance,
      )
    else if (n.nextGaugeKg !== null && p.last && n.nextGaugeKg * 1000 < p.last.fibreG * 1.5)
      add(
        'look',
        n.tag,
        `Gauge due in ${kg(n.nextGaugeKg)} of fibre; a job like the last takes ${kg(p.last.fibreG / 1000)}.`,
        'Gauge it after this job',
        gauge,
        28,
      )
    else if (SOFT.includes(n.material) && n.lastMaterial)
      add(
        'look',
        n.tag,
        `${n.material[0]!.toUpperCase()}${n.material.slice(1)} wears fast with ${n.lastMaterial}.`,
        'Fit a hard nozzle',
        `/stores?fit=${h.id}`,
        25,
      )
  }
  const bed = p.last?.bedC ?? null,
    chamber = p.last?.chamberC ?? null
  over('bed', null, bed)
  over('chamber', null, chamber)
  if (p.last?.outcome === 'failed')
    add(
      'look',
      null,
      `${p.last.name} failed${p.last.stopped ? ` ${p.last.stopped}` : ''}` +
        `${p.last.symptoms.length ? `: ${p.last.symptoms.join(', ')}` : ''}.`,
      'Look at its nozzle',
      p.heads[0]?.nozzle ? `/inspect/${p.heads[0].nozzle.tag}` : `/run?show=${p.last.runId}`,
      35,
    )
  if (lines.length === 0) {
    const next = p.heads.map(h => h.nozzle?.nextGaugeKg).filter(v => v != null)
    add(
      'fine',
      p.heads[0]?.nozzle?.tag ?? null,
      next.length > 0 ? `Gauge due in ${kg(Math.min(...next))} of fibre.` : 'Nothing due.',
      p.heads[0]?.nozzle ? 'Open the nozzle' : 'Log a run',
      p.heads[0]?.nozzle ? `/inspect/${p.heads[0].nozzle.tag}` : '/run',
      1,
    )
  }
  return lines
}
