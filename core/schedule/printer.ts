/** What is due at a printer: its limits against the last job, its heads, a job that failed. */
import { zoneWord } from '../words'
import { weightOf, type Due } from './due'
import { dueOfNozzle, type NozzleFacts } from './nozzle'

/** More than this above a part's limit, °C, is no matter of rounding: it stops. */
export const FAR_OVER_C = 5

export interface PrinterFacts {
  heads: readonly {
    id: number
    name: string
    /** What the last job asked of it, °C; null when it asked nothing. */
    askedC: number | null
    nozzle: Omit<NozzleFacts, 'jobFibreG'> | null
  }[]
  /** The deciding part of each zone, °C with its guard band taken off. */
  limits: readonly { zone: 'hotend' | 'bed' | 'chamber'; headId: number | null; limitC: number; part: string }[]
  last: {
    runId: number
    name: string
    outcome: 'finished' | 'failed'
    symptoms: readonly string[]
    /** Where it stopped, in words; null when it is not known. */
    stopped: string | null
    fibreG: number
    bedC: number | null
    chamberC: number | null
  } | null
}

/** All that is due at one printer, most of it first. `acceptedRisk` as in `gaugeDue`. */
export function dueOfPrinter(p: PrinterFacts, acceptedRisk: number): Due[] {
  const { last } = p
  const out: Due[] = []
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
  const first = p.heads[0]?.nozzle
  if (last?.outcome === 'failed')
    out.push({
      mark: 'look',
      about: null,
      reason:
        `${last.name} failed${last.stopped === null ? '' : ` ${last.stopped}`}` +
        `${last.symptoms.length > 0 ? `: ${last.symptoms.join(', ')}` : ''}.`,
      action: 'Look at its nozzle',
      station: first ? 'inspect' : 'run',
      open: first ? `/inspect/${first.tag}` : `/run?show=${last.runId}`,
      weight: weightOf(35),
    })
  return out
}

type Zone = PrinterFacts['limits'][number]['zone']
function overLimit(p: PrinterFacts, zone: Zone, headId: number | null, askedC: number | null): Due[] {
  const limit = p.limits.find(l => l.zone === zone && l.headId === headId)
  if (!limit || askedC === null || askedC <= limit.limitC) return []
  return [
    {
      mark: zone === 'hotend' || askedC - limit.limitC > FAR_OVER_C ? 'stop' : 'look',
      about: null,
      reason:
        `The last job asked ${askedC} °C of the ${zoneWord(zone)}; the ${limit.part} ` + `stops at ${limit.limitC} °C.`,
      action: 'Do not repeat it here; see the run',
      station: 'run',
      open: `/run?show=${p.last!.runId}`,
      weight: weightOf(95),
    },
  ]
}
