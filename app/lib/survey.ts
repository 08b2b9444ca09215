/** A printer as a survey found its chamber: the same stack, its lid as it was then, its air by this survey alone. */
import { surveySources, type SurveyFound } from '#core/chamber'
import {
  airFrom,
  airPlaceOf,
  chamberAir,
  heatLines,
  hottestBed,
  partOf,
  stackOf,
  type AirPlace,
  type HeatSet,
  type KnownLine,
  type Part,
  type PlaceAir,
  type Printer,
  type Rules,
  type Stack,
} from '#core/limits'
import type { SurveyLine } from '#shared/answers/chambers'

function lidAs(printer: Printer, opening: SurveyLine['state']['opening']): Part[] {
  if (opening === 'off') return []
  const lid = printer.parts.find(p => p.role === 'lid') ?? partOf('lid')
  const { opening: _was, ...details } = lid.details
  return [{ ...lid, details: opening === 'shut' ? details : { ...details, opening } }]
}

function asSurveyed(printer: Printer, s: SurveyLine, found: SurveyFound): Printer {
  const state = { ...s.state, gapMm: 0 }
  // another sensor sat there then: both sides stay as they are shown
  const sensors = s.sameSensor || !printer.sensors ? printer.sensors : { ...printer.sensors, bed: null, chamber: null }
  return {
    ...printer,
    parts: [...printer.parts.filter(p => p.role !== 'lid'), ...lidAs(printer, s.state.opening)],
    air: surveySources([{ found, state, from: 'this survey' }]),
    ...(sensors && { sensors }),
  }
}

export interface InState {
  air: Record<AirPlace, PlaceAir | null>
  /** At each probe; null for one that does not count. */
  probes: (PlaceAir | null)[]
  /** Parts that stand in the air, each with its margin; the tightest first. */
  parts: { line: KnownLine; place: AirPlace }[]
  /** Parts of which nobody knows what they stand. */
  unknown: string[]
}

/** A printer in the state of a survey. */
export const stackIn = (printer: Printer, s: SurveyLine, found: SurveyFound): Stack =>
  stackOf(asSurveyed(printer, s, found), printer.heads[0]?.id ?? 0)

/** The hottest bed that stands surely, and perhaps; null where a heater makes the air, or none would do. */
export function bedsIn(
  stack: Stack,
  found: SurveyFound,
  rules: Rules,
): { sureC: number | null; perhapsC: number | null } {
  if (found.by === 'heater') return { sureC: null, perhapsC: null }
  return { sureC: hottestBed(stack, null, rules, true), perhapsC: hottestBed(stack, null, rules) }
}

/** What comes of a setting in the state of a survey, by the same rules as every limit. */
export function inState(stack: Stack, found: SurveyFound, set: HeatSet, rules: Rules): InState {
  const lines = heatLines(stack, set, rules).filter(l => l.key === 'chamber part' || l.key === 'tube heat')
  const parts = lines.flatMap(line => {
    const place = line.part && airPlaceOf(line.part)
    return line.status === 'unknown' || line.asked === null || line.allowed === null || !place ? [] : [{ line, place }]
  })
  const spare = ({ line }: (typeof parts)[number]) => line.allowed! - line.asked! - line.u90
  const { low, high, bay } = chamberAir(stack, set, rules)
  return {
    air: { low, high, bay },
    probes: found.probes.map(p => (p.value === null ? null : airFrom(stack, { value: p.value, u: p.u }, set, rules))),
    parts: parts.sort((a, b) => spare(a) - spare(b)),
    unknown: lines.flatMap(l => (l.status === 'unknown' && l.part ? [l.part.name] : [])),
  }
}
