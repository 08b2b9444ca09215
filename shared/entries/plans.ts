/** Plans of enclosures, and tests of what stops a heater. */
import { z } from 'zod'
import {
  BED_UNDER,
  checkPlan,
  GUARDS,
  LAYER_MM,
  MOST_LAYERS,
  MOST_WALLS,
  PLAN_RANGES,
  WALL_FACES,
  WALL_M2,
  WALL_MATERIAL_NAMES,
} from '#core/chamber'
import { ANY_C } from '#core/limits'
import { plansOf } from '../plans'
import { sizeFields } from './chambers'
import { between, confirmed, coreTakes, id, maybe, name, note, when } from './fields'

const layer = z.object({
  material: z.enum(WALL_MATERIAL_NAMES, { error: 'Choose a material' }),
  mm: between(...LAYER_MM, 'mm'),
})
const R = PLAN_RANGES
/** An enclosure as it is, and what would be done to it. */
export const planSpec = z.object({
  size: sizeFields,
  walls: z
    .array(
      z.object({
        name: name(40),
        face: z.enum(WALL_FACES),
        areaM2: between(...WALL_M2, 'm²'),
        /** From the inside out, as it is. */
        layers: z.array(layer).min(1, 'A wall has at least one layer').max(MOST_LAYERS),
        /** What would be put on its outside. */
        added: z.array(layer).max(MOST_LAYERS).default([]),
      }),
    )
    .min(1, 'Enter at least one wall')
    .max(MOST_WALLS, `At most ${MOST_WALLS} walls`),
  roomC: between(...R.roomC, '°C'),
  bed: z.object({
    setC: between(...R.bedC, '°C'),
    areaM2: between(...R.bedM2, 'm²'),
    powerW: between(...R.bedW, 'W'),
    under: z.enum(BED_UNDER),
  }),
  nozzleW: between(...R.nozzleW, 'W'),
  stirred: z.boolean(),
  insideKg: between(...R.insideKg, 'kg'),
  gapMm2: between(...R.gapMm2, 'mm²'),
  gapThenMm2: between(...R.gapMm2, 'mm²'),
  ventLMin: between(...R.ventLMin, 'l/min'),
  heaterW: between(...R.heaterW, 'W'),
  heaterSetC: maybe(...R.heaterSetC, '°C').default(null),
  cutOutC: maybe(...R.cutOutC, '°C').default(null),
  /** The chamber heater is there already. */
  heaterNow: z.boolean(),
})
export type PlanSpec = z.output<typeof planSpec>

export const planSchema = planSpec
  .extend({ printerId: id, name: name(60), note, occurredAt: when, confirmed })
  .superRefine((s, ctx) => {
    const { now, then } = plansOf(s)
    coreTakes(ctx, [], () => [now, then].forEach(checkPlan))
  })

export const cutOutTestSchema = z.object({
  printerId: id,
  guard: z.enum(GUARDS, { error: 'Choose one' }),
  tripped: z.boolean({ error: 'Say whether it tripped' }),
  /** Where it tripped, by what the printer or a probe showed. */
  atC: maybe(...ANY_C, '°C').default(null),
  note,
  occurredAt: when,
  confirmed,
})
