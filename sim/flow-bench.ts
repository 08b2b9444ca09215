/**
 * A head that extrudes: what it delivers of what is told, by what holds it back. For the stand-in balance and for
 * tests of what a bench makes of it. The bend from full delivery to a limit is smooth; the limit of melting rises by
 * half a percent per °C. Invented.
 */
export interface Head {
  /** The most that it melts at `atC`, mm³/s. */
  meltsMm3S: number
  atC: number
  /** The most that the gears push before they slip, mm³/s. */
  gripsMm3S: number
  /** The most that a partly clogged nozzle lets through at `atC`, mm³/s; null: clear. */
  clogMm3S: number | null
  /** Fed of what is told, times density and cross-section as they are over as recorded. */
  level: number
  /** How sharply full delivery bends into a limit: 4 gently, 30 like a corner. */
  bend?: number
}
const PER_C = 0.005
/** A clog gives way less to heat than melting does. */
const CLOG_PER_C = 0.002

/** Delivered share of the nominal mass at a true temperature in °C and a flow in mm³/s. */
export function delivers(h: Head, temperatureC: number, flowMm3S: number): number {
  const { bend = 8 } = h
  const hotter = temperatureC - h.atC
  const limits = [
    h.meltsMm3S * Math.max(0.1, 1 + PER_C * hotter),
    h.gripsMm3S,
    ...(h.clogMm3S === null ? [] : [h.clogMm3S * Math.max(0.1, 1 + CLOG_PER_C * hotter)]),
  ]
  const hindered = limits.reduce((t, l) => t + (flowMm3S / l) ** bend, 0)
  return h.level * (1 + hindered) ** (-1 / bend)
}

const CLEAR: Head = { meltsMm3S: 14, atC: 265, gripsMm3S: 60, clogMm3S: null, level: 1 }
/** The heads of the demo shop. The gears of Wharfe give way before its hotend does; Nidd's nozzle is partly clogged. */
export const STAND_IN_HEADS: Readonly<Record<string, Head>> = {
  Ribble: CLEAR,
  Wharfe: { ...CLEAR, meltsMm3S: 30, gripsMm3S: 11 },
  Aire: { ...CLEAR, meltsMm3S: 16, level: 0.96 },
  Nidd: { ...CLEAR, clogMm3S: 9 },
  Calder: { ...CLEAR, meltsMm3S: 18, atC: 400 },
  Swale: { ...CLEAR, meltsMm3S: 18, atC: 400 },
}
