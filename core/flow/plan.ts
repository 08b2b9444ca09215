/**
 * What a flow bench extrudes: temperatures by flows by repeats, one blob each, in a stated order. Temperatures go from
 * the coolest to the hottest, so that the head never waits to cool; within each, flows rise in the first round and fall
 * in the next, so that what drifts (pan, clog, room) weighs on slow and fast blobs alike.
 * Source: common practice, no source.
 */
import { DENSITY_G_CM3, DIAMETER_MM, filamentAreaMm2, massG } from '../materials'
import { InputError, need, needIfKnown } from '../numeric'

/** Flow of a cell, mm³/s. */
export const BENCH_FLOW_MM3S = [0.5, 80] as const
/** Nominal length of a blob, mm: a metre at least, or the balance tells nothing. */
export const BLOB_MM = [1000, 5000] as const
/** Flows of a bench. Two show a step, three where it begins. */
export const BENCH_FLOWS = [3, 10] as const
/** Temperatures of a bench. */
export const BENCH_TEMPERATURES = [1, 4] as const
/** Blobs of each cell. */
export const BENCH_REPEATS = [1, 5] as const
/** Blobs of a bench: more than an afternoon's work. */
export const MOST_BLOBS = 60
/** Setpoint of a cell, °C. */
export const BENCH_C = [150, 550] as const

/** Pushed out and thrown away at each new temperature, mm: the melt that stood at the other one. */
export const PRIME_MM = 40
/** To take a blob off, weigh it and press on, s; common practice, no source. */
export const HANDLING_S = 30
/** A hotend warms about this fast, °C/s; common practice, no source. */
export const WARMS_C_PER_S = 1
/** And then settles, s; common practice, no source. */
export const SETTLES_S = 60
/** Melt that follows the gears, waited for before a blob is taken, s. */
export const FOLLOWS_S = 3
/** What a bench asks for unless told otherwise stays under these. */
export const USUAL_MOST = { minutes: 60, grams: 80 }
/** Flow of the priming length, mm³/s: slow enough for any head. */
export const PRIME_MM3S = 3

export interface BenchSet {
  /** Setpoints, °C. */
  temperaturesC: readonly number[]
  flowsMm3S: readonly number[]
  repeats: number
  /** Nominal length of a blob, mm. */
  lengthMm: number
  /** Of the filament. */
  diameterMm: number
  densityGCm3: number
}
/** One blob: setpoint in °C, flow in mm³/s, round from 0. */
export interface BenchLine {
  temperatureC: number
  flowMm3S: number
  round: number
}
export interface BenchPlan {
  lines: BenchLine[]
  /** Nominal mass of one blob, and of all with what is primed, g. */
  blobG: number
  grams: number
  /** With heating, priming and taking off. */
  minutes: number
}

/**
 * The blobs of a bench in the order of the work, with what they take. °C, mm³/s, mm, g/cm³. Throws InputError.
 *
 * @example
 * const cells = { temperaturesC: [265], flowsMm3S: [8, 12, 16], repeats: 2 }
 * const plan = planBench({ ...cells, lengthMm: 1000, diameterMm: 1.75, densityGCm3: 1.2 })
 * plan.lines.map(l => l.flowMm3S).join(' ') // "8 12 16 16 12 8"
 */
export function planBench(s: BenchSet): BenchPlan {
  checkBench(s)
  const temperatures = [...s.temperaturesC].sort((a, b) => a - b)
  const rising = [...s.flowsMm3S].sort((a, b) => a - b)
  const falling = [...rising].reverse()
  const lines = temperatures.flatMap(temperatureC =>
    Array.from({ length: s.repeats }, (_, round) =>
      (round % 2 === 0 ? rising : falling).map(flowMm3S => ({ temperatureC, flowMm3S, round })),
    ).flat(),
  )
  const blobs = lines.reduce((t, l) => t + blobSeconds(l.flowMm3S, s.lengthMm, s.diameterMm), 0)
  const primes = temperatures.length * (blobSeconds(PRIME_MM3S, PRIME_MM, s.diameterMm) + SETTLES_S)
  const warming = (temperatures.at(-1)! - ROOM_C) / WARMS_C_PER_S
  const blobG = massG(s.lengthMm, s.diameterMm, s.densityGCm3)
  return {
    lines,
    blobG,
    grams: blobG * lines.length + temperatures.length * massG(PRIME_MM, s.diameterMm, s.densityGCm3),
    minutes: (blobs + primes + warming) / 60,
  }
}
const ROOM_C = 23

/** Seconds that a length in mm takes at a flow in mm³/s, taken off and pressed on. `diameterMm` of the filament. */
export function blobSeconds(flowMm3S: number, lengthMm: number, diameterMm: number): number {
  need('flowMm3S', flowMm3S, ...BENCH_FLOW_MM3S, 'mm³/s')
  need('lengthMm', lengthMm, 0, BLOB_MM[1], 'mm')
  return (lengthMm * filamentAreaMm2(diameterMm)) / flowMm3S + FOLLOWS_S + HANDLING_S
}

function checkBench(s: BenchSet): void {
  needSeveral('temperaturesC', s.temperaturesC, BENCH_TEMPERATURES, BENCH_C, '°C')
  needSeveral('flowsMm3S', s.flowsMm3S, BENCH_FLOWS, BENCH_FLOW_MM3S, 'mm³/s')
  need('repeats', s.repeats, ...BENCH_REPEATS)
  if (!Number.isInteger(s.repeats)) throw new InputError('repeats', s.repeats, 'a whole number')
  need('lengthMm', s.lengthMm, ...BLOB_MM, 'mm')
  need('diameterMm', s.diameterMm, ...DIAMETER_MM, 'mm')
  need('densityGCm3', s.densityGCm3, ...DENSITY_G_CM3, 'g/cm³')
  const blobs = s.temperaturesC.length * s.flowsMm3S.length * s.repeats
  if (blobs > MOST_BLOBS) throw new InputError('repeats', s.repeats, `at most ${MOST_BLOBS} blobs in all, not ${blobs}`)
}

type Span = readonly [number, number]
function needSeveral(field: string, values: readonly number[], [least, most]: Span, range: Span, unit: string): void {
  if (values.length < least || values.length > most)
    throw new InputError(field, values.length, `${least} to ${most} of them`)
  for (const v of values) need(field, v, ...range, unit)
  if (new Set(values).size !== values.length) throw new InputError(field, values.join(', '), 'each once')
}

/**
 * A bench to begin from: five flows around the highest that is printed here (mm³/s; null: not known), at one
 * temperature, twice, as far as that stays under an hour and 80 g. `diameterMm` and `densityGCm3` of the filament.
 *
 * @example
 * usualBench(12, 265, 1.75, 1.2).flowsMm3S.join(' ') // "8 10 12 14 16"
 */
export function usualBench(
  highestMm3S: number | null,
  temperatureC: number,
  diameterMm: number,
  densityGCm3: number,
): BenchSet {
  needIfKnown('highestMm3S', highestMm3S, 0, 1e6, 'mm³/s')
  const most = BENCH_FLOW_MM3S[1]
  const step = Math.min(most / 10, Math.max(1, Math.round((highestMm3S ?? USUAL_FLOW_MM3S) / 6)))
  const middle = Math.min(most - 3 * step, Math.max(3 * step, Math.round(highestMm3S ?? USUAL_FLOW_MM3S)))
  const set = (up: number, from: number, repeats: number): BenchSet => ({
    temperaturesC: [temperatureC],
    flowsMm3S: [-2, -1, 0, 1, 2].slice(from).map(k => middle + (k + up) * step),
    repeats,
    lengthMm: BLOB_MM[0],
    diameterMm,
    densityGCm3,
  })
  const isShort = (s: BenchSet) => {
    const { minutes, grams } = planBench(s)
    return minutes < USUAL_MOST.minutes && grams < USUAL_MOST.grams
  }
  // slow flows of thick filament take for ever: fewer of them first, then faster ones
  const highest = Math.floor((most - middle) / step) - 2
  for (let up = 0; up <= highest; up++) {
    const fits = [set(up, 0, 2), set(up, 1, 2), set(up, 0, 1), set(up, 1, 1), set(up, 2, 1)].find(isShort)
    if (fits) return fits
  }
  return set(0, 2, 1)
}
/** Where nothing was printed yet: the middle of what heads of the trade pass; common practice, no source. */
const USUAL_FLOW_MM3S = 12
