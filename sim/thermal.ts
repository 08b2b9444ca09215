/**
 * How a stand-in printer warms and cools: heaters with a power limit and a lagging sensor (so it overshoots a little),
 * a chamber warmed by its bed or by its own heater, loss to the room, and a door. Pure; numbers invented to look real.
 */
export interface Build {
  enclosed: boolean
  active: boolean
  bedShare: number
  chamberTauS: number
  heads: number
  roomC: number
}
export interface Heater {
  setC: number
  bodyC: number
  readC: number
}
export interface Machine {
  build: Build
  heads: Heater[]
  bed: Heater
  chamber: Heater
  doorOpen: boolean
}

const cold = (c: number): Heater => ({ setC: 0, bodyC: c, readC: c })
export function machine(build: Build): Machine {
  return {
    build,
    heads: Array.from({ length: build.heads }, () => cold(build.roomC)),
    bed: cold(build.roomC),
    chamber: cold(build.roomC),
    doorOpen: false,
  }
}

const STEP_S = 0.5

/**
 * A body of time constant `tau` whose heater brings at most `reach` °C above its surroundings, and its sensor `lag` s
 * behind.
 */
function heat(h: Heater, aroundC: number, tau: number, reach: number, lag: number, dt: number): void {
  const want = h.setC > 0 ? Math.min(1, Math.max(0, (h.setC - h.readC) * 0.25 + (h.setC - aroundC) / reach)) : 0
  h.bodyC += (dt * (want * reach - (h.bodyC - aroundC))) / tau
  h.readC += (dt * (h.bodyC - h.readC)) / lag
}

export function pass(m: Machine, seconds: number): void {
  const { build: b } = m
  for (let t = 0; t < seconds; t += STEP_S) {
    const dt = Math.min(STEP_S, seconds - t)
    const air = b.enclosed ? m.chamber.bodyC : b.roomC
    for (const h of m.heads) heat(h, air, 90, 620, 4, dt)
    heat(m.bed, air, 420, 260, 12, dt)
    if (b.enclosed) {
      const open = m.doorOpen ? 12 : 1 // an open door loses that much faster
      const tau = b.chamberTauS / open
      const bedPull = (b.bedShare / open) * (m.bed.bodyC - b.roomC)
      const own =
        b.active && m.chamber.setC > 0
          ? (Math.max(0, Math.min(1, (m.chamber.setC - m.chamber.readC) * 0.3 + 0.6)) * 110) / open
          : 0
      m.chamber.bodyC += (dt * (b.roomC + Math.max(bedPull, own) - m.chamber.bodyC)) / tau
      m.chamber.readC += (dt * (m.chamber.bodyC - m.chamber.readC)) / 15
    } else {
      m.chamber.bodyC = m.chamber.readC = b.roomC
    }
  }
}
