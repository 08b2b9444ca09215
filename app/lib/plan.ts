/** What a plan is reckoned with of its printer: its map, its parts, and the warm-up that it was recorded with. */
import { meanAt, type PlannedPart, type Planning } from '#core/chamber'
import {
  guardOf,
  heatAt,
  knownOf,
  PRACTICE_AIR,
  stackOf,
  standsAt,
  type AirMap,
  type Printer,
  type Rules,
} from '#core/limits'
import { ONE_SIDED_90 } from '#core/numeric'
import type { ChamberLine } from '#shared/answers/chambers'
import type { PlanSpec } from '#shared/entries/plans'
import { plansOf } from '#shared/plans'

function mapOf(printer: Printer): { map: Planning['map']; from: string } {
  const map: AirMap | null = printer.heads[0] ? stackOf(printer, printer.heads[0].id).air.map : null
  if (map === null) return { map: { bed: PRACTICE_AIR.shut, heater: PRACTICE_AIR.heater }, from: 'practice' }
  const values = (by: 'bed' | 'heater') => {
    const { low, high, bay } = map[by]
    return { low: low.value, high: high.value, bay: bay.value }
  }
  return { map: { bed: values('bed'), heater: values('heater') }, from: map.bed.high.from }
}

/** Parts that would stand in the air, each with what it takes less its guard band; and those nobody knows of. */
function partsOf(printer: Printer, rules: Rules): { parts: PlannedPart[]; unknown: string[] } {
  const guard = guardOf('chamber', rules)
  const inside = printer.parts.flatMap(part => {
    const place = standsAt(part)
    // its walls are the plan itself
    return place === null || part.role === 'enclosure' ? [] : [{ part, place }]
  })
  return {
    parts: inside.flatMap(({ part, place }) =>
      part.limitC === null ? [] : [{ name: part.name, place, allowedC: part.limitC - guard }],
    ),
    unknown: inside.flatMap(({ part }) => (part.limitC === null ? [part.name] : [])),
  }
}

/** The warm-up by the bed alone, as the mean of the air that the planner reckons with. */
function recordOf(printer: Printer, chamber: ChamberLine | null, map: Planning['map'], roomC: number) {
  const source = printer.air.find(s => s.trust === 'warm-up record' && s.by === 'bed' && s.opening === 'shut')
  if (!source || !chamber?.byBed) return null
  const bedC = heatAt(knownOf(printer).bed, chamber.byBed.bedC).trueC
  const riseC = bedC - roomC
  const at = (share: number) => meanAt(map, 'bed', source.place, roomC + share * riseC, roomC)
  const meanC = Math.min(bedC - 1, at(source.value))
  const u90 = at(source.value + ONE_SIDED_90 * source.u) - at(source.value)
  return { record: { meanC, u90, bedC, roomC, tauS: chamber.byBed.tauS }, from: source.from }
}

export interface PlannedFor {
  q: Planning
  /** Mean air for what is wanted near bed and head, °C. */
  targetMeanC: number | null
  unknown: string[]
  mapFrom: string
  recordFrom: string | null
}
export function planningOf(
  spec: PlanSpec,
  targetC: number | null,
  printer: Printer,
  chamber: ChamberLine | null,
  rules: Rules,
): PlannedFor {
  const { map, from } = mapOf(printer)
  const { parts, unknown } = partsOf(printer, rules)
  const record = recordOf(printer, chamber, map, spec.roomC)
  const { now, then } = plansOf(spec)
  return {
    q: { now, then, map, parts, record: record?.record ?? null, insideKg: spec.insideKg },
    targetMeanC: targetC === null ? null : Math.max(spec.roomC, meanAt(map, 'heater', 'low', targetC, spec.roomC)),
    unknown,
    mapFrom: from,
    recordFrom: record?.from ?? null,
  }
}
