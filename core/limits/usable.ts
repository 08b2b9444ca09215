/**
 * How much of a filament's window a printer can use: from what it must be set to up to where a part stops it. By the
 * same ceilings as the lanes. °C; common practice, no source.
 */
import { coolest } from './air'
import { checkAsked } from './check'
import type { Correction } from '../thermometry'
import { heatAt } from './heat'
import { operatingPoint } from './operating'
import { ceilings, stackOf, type Ceiling } from './stack'
import { offsetC } from './nozzles'
import type { Demand, Part, Printer, Rules } from './types'

/** A window as far as it can be used. `askedC` is the filament's own, a hard nozzle's offset included. */
export interface Usable {
  what: 'nozzle' | 'bed' | 'chamber'
  askedC: readonly [number, number]
  fromC: number
  toC: number
  /** What ends it before the filament does; null when nothing does. */
  part: Part | null
}
/** Setpoints that the shop's own jobs of a filament used, °C; null where none is known. */
export type Used = Partial<Record<Usable['what'], readonly [number, number]>>

/** The lowest ceiling, as the temperature that its setpoint makes. */
function made(sensor: Correction | null, of: readonly Ceiling[]): Ceiling | null {
  const c = of.reduce<Ceiling | null>((a, b) => (a === null || b.limitC < a.limitC ? b : a), null)
  return c && { ...c, limitC: heatAt(sensor, c.limitC).trueC }
}

/**
 * The usable windows of a demand on one head, as far as its windows are known; one that is short from the start is left
 * out. Throws InputError for numbers outside their ranges.
 */
export function usableWindows(printer: Printer, headId: number, demand: Demand, rules: Rules): Usable[] {
  checkAsked(demand)
  const stack = stackOf(printer, headId)
  const { sensors } = stack
  const op = operatingPoint(stack.nozzle, stack.air, demand, rules, sensors)
  const all = ceilings(printer, rules)
  const out: Usable[] = []
  const add = (what: Usable['what'], from: number | null, asked: readonly [number, number], by: Ceiling | null) => {
    const cut = by !== null && by.limitC < asked[1]
    const toC = cut ? by.limitC : asked[1]
    if (from !== null && from <= toC + 1e-9)
      out.push({ what, askedC: asked, fromC: from, toC, part: cut ? by.part : null })
  }
  const offset = stack.nozzle && !demand.exact ? offsetC(stack.nozzle.material) : 0
  if (demand.nozzleMinC !== null && demand.nozzleMaxC !== null)
    add(
      'nozzle',
      op.nozzle?.trueC ?? null,
      [demand.nozzleMinC + offset, demand.nozzleMaxC + offset],
      made(
        sensors.hotend,
        all.filter(c => c.zone === 'hotend' && c.headId === headId),
      ),
    )
  const heated = op.heater !== null
  if (demand.bedMinC !== null && demand.bedMaxC !== null)
    add(
      'bed',
      op.bed?.trueC ?? null,
      [demand.bedMinC, demand.bedMaxC],
      made(
        sensors.bed,
        all.filter(c => c.zone === 'bed' && !(c.heaterOff && heated)),
      ),
    )
  const map = stack.air.map
  if (heated && map && demand.chamberMinC !== null && demand.chamberMaxC !== null) {
    // a heater's setpoint, as the air at the coolest place
    const by = made(
      sensors.chamber,
      all.filter(c => c.zone === 'chamber'),
    )
    const offsetAir = map.heater[coolest(map.heater)].value
    add(
      'chamber',
      demand.chamberMinC,
      [demand.chamberMinC, demand.chamberMaxC],
      by && { ...by, limitC: by.limitC + offsetAir },
    )
  }
  return out
}

/** Whether the shop's own jobs went where this window does not reach. */
export const narrower = (u: Usable, used: Used): boolean => {
  const own = used[u.what]
  return own !== undefined && (own[1] > u.toC + 1e-9 || own[0] < u.fromC - 1e-9)
}

const whole = (v: number) => Math.floor(v + 1e-9)
/**
 * A usable window in words: "nozzle 230 only", "bed 100 to 103 of 100 to 110"; empty when all of it can be used.
 *
 * @example
 * const bed = { what: 'bed', askedC: [100, 110], fromC: 100, toC: 103.8, part: null }
 * usableWords(bed) // "bed 100 to 103 of 100 to 110 °C"
 */
export function usableWords(u: Usable): string {
  const [low, high] = u.askedC
  const from = Math.ceil(u.fromC - 1e-9)
  if (from <= low && u.toC >= high) return ''
  const all = `of ${low} to ${high} °C`
  return whole(u.toC) <= from ? `${u.what} ${from} only, ${all}` : `${u.what} ${from} to ${whole(u.toC)} ${all}`
}
