/** Printers and demands at random: stacks with parts missing and exchanged, sensors checked and not. */
import fc from 'fast-check'
import {
  describedPrinter,
  kindsOf,
  partOf,
  START_WINDOWS,
  startWindow,
  STARTING_STACKS,
  type Demand,
  type HeadSensors,
  type Part,
  type Printer,
  type Sensors,
} from '#core/limits'
import type { Correction } from '#core/thermometry'
import { FILLERS, NOZZLE_MATERIALS } from '#core/wear'
import { asks, nozzle } from '../unit/limits-support'

/** What a check of one to three points found, in the sensor's own place or at the tip; or that nobody has checked. */
export const checks = (fromC: number, toC: number): fc.Arbitrary<Correction | null> =>
  fc.option(
    fc
      .record({
        at: fc.uniqueArray(fc.integer({ min: fromC, max: toC }), {
          minLength: 1,
          maxLength: 3,
          selector: x => Math.round(x / 20),
        }),
        off: fc.array(fc.integer({ min: -90, max: 90 }), { minLength: 3, maxLength: 3 }),
        uC: fc.constantFrom(0.3, 1, 2.5),
        own: fc.boolean(),
      })
      .map(({ at, off, uC, own }): Correction => {
        const points = [...at].sort((a, b) => a - b).map((shownC, i) => ({ shownC, cC: off[i]! / 10, uC }))
        const found = { points, from: 'its check' }
        return own ? { own: found, atLeast: null } : { own: null, atLeast: found }
      })
      // hotter shown is hotter in truth, or the check would have been refused
      .filter(c => {
        const of = (c.own ?? c.atLeast)!.points
        return of.every((p, i) => i === 0 || p.shownC + p.cC > of[i - 1]!.shownC + of[i - 1]!.cC)
      }),
  )
const sensorsOn = (p: Printer, s: HeadSensors): Sensors => ({
  heads: Object.fromEntries(p.heads.map(h => [h.id, s.hotend])),
  bed: s.bed,
  chamber: s.chamber,
})

/**
 * A starting stack with some parts left out, some exchanged for another of their role, some limits missing or moved.
 */
export const printers = fc
  .record({
    stack: fc.constantFrom(...STARTING_STACKS),
    material: fc.constantFrom(...NOZZLE_MATERIALS),
    bore: fc.constantFrom(0.25, 0.4, 0.6),
    bare: fc.double({ min: 0, max: 1, noNaN: true }),
    seed: fc.array(fc.nat(99), { minLength: 40, maxLength: 40 }),
    sensors: fc.option(fc.record({ hotend: checks(180, 420), bed: checks(40, 160), chamber: checks(20, 110) })),
  })
  .map(({ stack, material, bore, bare, seed, sensors }): Printer => {
    const p = describedPrinter('P', stack, bare < 0.05 ? [null] : [nozzle(material, bore)])
    const parts = p.parts.flatMap((x, i): Part[] => {
      const s = seed[i % 40]!
      if (s < 3) return []
      const other = kindsOf(x.role as never)
      const y = s < 25 ? { ...partOf(other[s % other.length]!.key, x.id, x.headId) } : x
      if (s < 29) return [{ ...y, limitC: null }]
      if (s < 50 && y.limitC !== null) return [{ ...y, limitC: y.limitC + (s - 40) * 3 }]
      return [y]
    })
    const dryer =
      seed[39]! < 20 ? [] : [{ ...partOf('filament dryer, 70', 'dryer'), details: { reachC: 40 + seed[39]! } }]
    return { ...p, parts, dryers: dryer, ...(sensors && { sensors: sensorsOn(p, sensors) }) }
  })
export const demands = fc
  .record({
    window: fc.constantFrom(...START_WINDOWS),
    filler: fc.constantFrom(...FILLERS),
    set: fc.nat(2),
    gap: fc.nat(30),
  })
  .map(({ window, filler, set, gap }): Demand => {
    const of = window.filled === false ? 'none' : filler
    const d = asks(window.polymer, of, 0)
    const chosen = asks(window.polymer, of, Math.min(startWindow(window.polymer, of)!.sets.length - 1, set))
    if (gap === 0) return { ...chosen, strainAtBreak: null }
    if (gap === 1) return { ...chosen, nozzleMinC: null }
    return gap === 2 ? { ...d, boreMinMm: null } : chosen
  })
