/** What is due at a printer: its limits against the last job, its heads, a job that failed. */
import { worstOf } from '../limits'
import { celsiusDown, zoneWord } from '../words'
import { needEach, needIfKnown } from '../numeric'
import { ANY, weightOf, type Due } from './due'
import { dueOfNozzle, type NozzleFacts } from './nozzle'
import { notReady, type Standing } from './ready'

export interface PrinterFacts {
  name: string
  /** What keeps it from being ready for work at all. */
  standing: Standing
  heads: readonly {
    id: number
    name: string
    /** What the last job asked of it, °C; null when it asked nothing. */
    askedC: number | null
    nozzle: Omit<NozzleFacts, 'jobFibreG'> | null
  }[]
  /** The parts that can decide a zone, °C with the guard band taken off, each with what is sure of it (`ceilings`). */
  limits: readonly {
    zone: 'hotend' | 'bed' | 'chamber'
    headId: number | null
    limitC: number
    fineC: number
    shortC: number
    of: 'setpoint' | 'air'
    inAir: boolean
    heaterOff: boolean
    part: string
  }[]
  last: {
    runId: number
    name: string
    outcome: 'finished' | 'failed'
    symptoms: readonly string[]
    /** Where it stopped, in words; null when it is not known. */
    stopped: string | null
    /** The nozzle that printed most of it; null when none was named. */
    nozzle: { tag: string } | null
    /** That nozzle was gauged, changed or cleared since, or what went wrong is being looked for. */
    lookedAt: boolean
    fibreG: number
    bedC: number | null
    chamberC: number | null
  } | null
}

/** All that is due at one printer, most of it first. `acceptedRisk` as in `gaugeDue`. */
export function dueOfPrinter(p: PrinterFacts, acceptedRisk: number): Due[] {
  const { last } = p
  if (last) needEach(last, ['fibreG', 'bedC', 'chamberC'], ...ANY)
  const out: Due[] = notReady(p.name, p.standing)
  for (const h of p.heads) {
    out.push(...overLimit(p, 'hotend', h.id, h.askedC))
    if (h.nozzle === null)
      out.push({
        mark: 'look',
        about: null,
        reason: `No nozzle fitted${p.heads.length > 1 ? ` (${h.name})` : ''}.`,
        action: 'Fit one',
        station: 'stores',
        open: `/stores?fit=${h.id}`,
        weight: weightOf(20),
      })
    else out.push(...dueOfNozzle({ ...h.nozzle, jobFibreG: last?.fibreG ?? null }, h.id, acceptedRisk))
  }
  out.push(...overLimit(p, 'bed', null, last?.bedC ?? null), ...overLimit(p, 'chamber', null, last?.chamberC ?? null))
  if (last?.outcome === 'failed' && !last.lookedAt)
    out.push({
      mark: 'look',
      about: null,
      reason:
        `${last.name} failed${last.stopped === null ? '' : ` ${last.stopped}`}` +
        `${last.symptoms.length > 0 ? `: ${last.symptoms.join(', ')}` : ''}.`,
      action: last.nozzle === null ? 'See the run' : 'Look at its nozzle',
      // put off, the next one that fails is told all the same
      of: `failed run ${last.runId}`,
      station: last.nozzle === null ? 'run' : 'inspect',
      open: last.nozzle === null ? `/run?show=${last.runId}` : `/inspect/${last.nozzle.tag}`,
      weight: weightOf(35),
    })
  return out
}

/** Where nothing is due: the nozzle whose gauge comes first of all heads, with the fibre until then, kg. */
export function firstGauge(p: Pick<PrinterFacts, 'heads'>): { tag: string; kg: number } | null {
  for (const h of p.heads) if (h.nozzle) needEach(h.nozzle, ['nextGaugeKg'], ...ANY, 'kg')
  const known = p.heads.flatMap(h =>
    h.nozzle && h.nozzle.nextGaugeKg !== null ? [{ tag: h.nozzle.tag, kg: h.nozzle.nextGaugeKg }] : [],
  )
  return known.length === 0 ? null : known.reduce((a, b) => (b.kg < a.kg ? b : a))
}

type Limit = PrinterFacts['limits'][number]

/**
 * A setpoint (°C) of the last job against the limits of its zone; null when it asked nothing or nothing is known.
 * Without a chamber heater set, the bed makes the air, and what stands in it counts. The same parts and rule as the
 * verdicts.
 */
export function askedAgainst(
  p: Pick<PrinterFacts, 'limits' | 'last'>,
  zone: Limit['zone'],
  headId: number | null,
  askedC: number | null,
): ReturnType<typeof worstOf<Limit>> {
  needIfKnown('askedC', askedC, ...ANY, '°C')
  needIfKnown('chamberC', p.last?.chamberC, ...ANY, '°C')
  for (const l of p.limits) needEach(l, ['limitC', 'fineC', 'shortC'], ...ANY, '°C')
  if (askedC === null) return null
  const heated = (p.last?.chamberC ?? 0) > 0
  const counts = (l: Limit) => l.zone === zone && l.headId === headId && l.of === 'setpoint' && !(l.heaterOff && heated)
  return worstOf(p.limits.filter(counts), askedC)
}

function overLimit(p: PrinterFacts, zone: Limit['zone'], headId: number | null, askedC: number | null): Due[] {
  const worst = askedAgainst(p, zone, headId, askedC)
  if (!worst || worst.grade === 'ok') return []
  const { limit } = worst
  const of = `last job, ${zone}${headId === null ? '' : ` ${headId}`}`
  const asked = `The last job asked ${askedC} °C of the ${zoneWord(zone)}; `
  const stops = limit.inAir
    ? `${celsiusDown(limit.limitC)} brings the air at the ${limit.part} to its limit`
    : `the ${limit.part} ${limit.part.endsWith('s') ? 'stop' : 'stops'} at ${celsiusDown(limit.limitC)}`
  if (worst.grade === 'short')
    return [
      {
        mark: 'stop',
        about: null,
        reason: `${asked}${stops}.`,
        action: 'Do not repeat it here; see the run',
        of,
        station: 'run',
        open: `/run?show=${p.last!.runId}`,
        isOver: true,
        weight: weightOf(95),
      },
    ]
  return [
    {
      mark: 'look',
      about: null,
      reason: `${asked}${stops}, known to ${Math.ceil(limit.limitC - limit.fineC)} °C.`,
      // what the air is there, or what the sensor is off by, is not known well enough
      action: limit.inAir ? 'Measure the air there' : 'Check its sensor',
      of,
      station: 'verify',
      open: `/verify${limit.inAir ? '/chamber' : ''}?printer=${encodeURIComponent(p.name)}`,
      weight: weightOf(30),
    },
  ]
}
