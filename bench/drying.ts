/**
 * A year of history of 200 spools, carried through in a worker as the shells' decay modes do it, against stepping
 * shells through time (one spool, implicit five-minute steps) in the same run. Budget: 1 s.
 */
import { isMainThread, parentPort, Worker } from 'node:worker_threads'
import {
  crankUptake,
  evenly,
  filamentOf,
  meanAfter,
  meanWater,
  newSpool,
  START_WOUND,
  throughHistory,
  type Stay,
} from '#core/drying'
import { mulberry32 } from '#core/numeric'

const SPOOLS = 200,
  YEAR_H = 8760
const f = filamentOf('PA6', 0.2, 1.75)!

/** Least hours of a stay and what comes on top at random; a drying's air and the box's. */
const HOURS = { 'dryer': [8, 8], 'room': [2, 12], 'dry box': [10, 50] } as const
const DRY_RH = { 'dryer': 4.5, 'dry box': 10 }

/** Some 400 stays a year: out for a print, back into the box, a drying now and then. */
function year(seed: number): Stay[] {
  const random = mulberry32(seed)
  const after = (place?: Stay['place']) => {
    if (place === 'room') return random() < 0.15 ? 'dryer' : 'dry box'
    return place === 'dryer' ? 'dry box' : 'room'
  }
  const out: Stay[] = []
  for (let h = 0; h < YEAR_H;) {
    const last = out[out.length - 1]?.place
    const place = after(last)
    const [least, spread] = HOURS[place]
    const hours = least + spread * random()
    const to = Math.min(YEAR_H, h + hours)
    out.push({
      from: h * 3.6e6,
      to: to * 3.6e6,
      place,
      airC: place === 'dryer' ? 70 : 23,
      rh: place === 'room' ? 40 + 30 * random() : DRY_RH[place],
      fill: 1,
    })
    h = to
  }
  return out
}

/** The same cylinder stepped through time: implicit shells of equal thickness, five minutes a step. */
function stepped(stays: readonly Stay[]): number {
  const N = 30,
    dr = 1 / N,
    c = new Float64Array(N).fill(2.16),
    a = new Float64Array(N),
    b = new Float64Array(N)
  for (const s of stays) {
    const rate =
        (f.d80 * Math.exp((-f.eaJMol / 8.314462618) * (1 / (s.airC + 273.15) - 1 / 353.15))) /
        (f.diameterMm / 2000) ** 2,
      surface = (f.waterAt50 * (1 - f.fillerFraction) * s.rh) / 50
    for (let t = s.from; t < s.to; t += 300_000) {
      const k = (rate * Math.min(300, (s.to - t) / 1000)) / dr ** 2
      for (let i = 0; i < N; i++) {
        // Thomas algorithm, forward
        const r = (i + 0.5) * dr,
          inner = (k * i * dr) / r,
          outer = ((k * (i + 1) * dr) / r) * (i === N - 1 ? 2 : 1)
        const m = 1 + inner + outer - (i > 0 ? inner * a[i - 1]! : 0)
        a[i] = (i < N - 1 ? outer : 0) / m
        b[i] = (c[i]! + (i > 0 ? inner * b[i - 1]! : 0) + (i === N - 1 ? outer * surface : 0)) / m
      }
      for (let i = N - 1; i >= 0; i--) c[i] = b[i]! + (i < N - 1 ? a[i]! * c[i + 1]! : 0)
    }
  }
  let sum = 0
  for (let i = 0; i < N; i++) sum += (c[i]! * ((i + 1) ** 2 - i ** 2)) / N ** 2
  return sum
}

if (isMainThread) {
  // a worker does not inherit the loader that reads TypeScript
  const worker = new Worker(
    `import('tsx/esm/api').then(({ register }) => { register(); return import(${JSON.stringify(import.meta.url)}) })`,
    { eval: true },
  )
  worker
    .on('message', (text: string) => {
      console.log(text)
    })
    .on('error', e => {
      throw e
    })
} else {
  const histories = Array.from({ length: SPOOLS }, (_, i) => year(i + 1))
  const stays = histories.reduce((n, h) => n + h.length, 0)
  const run = () => histories.map(h => meanWater(throughHistory(newSpool(f, 50, 0), f, h, START_WOUND).strand))
  run()
  const times = [1, 2, 3, 4, 5]
    .map(() => {
      const t = performance.now()
      run()
      return performance.now() - t
    })
    .sort((x, y) => x - y)
  const t = performance.now()
  const slow = stepped(histories[0]!)
  const one = performance.now() - t
  const worst = Math.max(
    ...[0.01, 0.05, 0.1, 0.2, 0.3, 0.4].map(x => Math.abs((1 - meanAfter(evenly(1), 0, x)) / crankUptake(x) - 1)),
  )
  parentPort!.postMessage(
    `drying, ${SPOOLS} spools × 1 year (${stays} stays) in a worker: ${times[2]!.toFixed(0)} ms (budget 1000); ` +
      `stepping one spool through the year ${one.toFixed(0)} ms, so all of them ` +
      `${((one * SPOOLS) / times[2]!).toFixed(0)} times as long; the two end ` +
      `${Math.abs(slow / run()[0]! - 1) < 0.02 ? 'within 2 %' : `apart: ${slow} and ${run()[0]}`}; shells ` +
      `against Crank ${(worst * 100).toFixed(2)} % (budget 0.5)`,
  )
}
