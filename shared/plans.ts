/** What an enclosure's plan comes to: two enclosures, reckoned alike by whoever asks. */
import type { EnclosurePlan } from '#core/chamber'
import type { PlanSpec } from './entries/plans'

/** The plan as the core takes it: as it is, and as it would be. */
export function plansOf(s: PlanSpec): { now: EnclosurePlan; then: EnclosurePlan } {
  const { size, walls, gapThenMm2, heaterNow, insideKg: _kg, ...same } = s
  const common = { ...same, heightM: size.heightMm / 1000 }
  const without = { heaterW: 0, heaterSetC: null, cutOutC: null }
  return {
    now: {
      ...common,
      walls: walls.map(({ added: _added, ...w }) => w),
      ventLMin: 0,
      ...(heaterNow ? {} : without),
    },
    then: {
      ...common,
      walls: walls.map(({ added, ...w }) => ({ ...w, layers: [...w.layers, ...added] })),
      gapMm2: gapThenMm2,
    },
  }
}
