/**
 * Wear posterior: one nozzle with 50 gauges (budget 10 ms) and 1 000 nozzles of 30 gauges each (budget 2 s), with the
 * ratio to the bare cost of the normal distribution values that the model needs, in the same run.
 */
import { normalCdf, mulberry32, normalDraw } from '#core/numeric'
import {
  boreAfter,
  borePosterior,
  fleetForecast,
  NOZZLE_MATERIALS,
  START_BORE_RATE,
  type BoreObservation,
  type FleetNozzle,
} from '#core/wear'

function history(seed: number, gauges: number, key: string): FleetNozzle {
  const random = mulberry32(seed)
  const material = NOZZLE_MATERIALS[seed % NOZZLE_MATERIALS.length]!
  const kappa = START_BORE_RATE[material] * Math.exp(0.4 * normalDraw(random))
  const d0 = 0.4 + 0.005 * normalDraw(random)
  const end = 0.04 / START_BORE_RATE[material]
  const observations: BoreObservation[] = Array.from({ length: gauges }, (_, i) => {
    const wearKg = (end * (i + 1)) / gauges
    const go = Math.floor((boreAfter('sliding', d0, kappa, wearKg, 0.4) + 0.003 * normalDraw(random)) * 100) / 100
    return { kind: 'pins', wearKg, goMm: go, noGoMm: go + 0.01, uMm: 0.003 }
  })
  return {
    key,
    material,
    law: 'sliding',
    bore: { nominalMm: 0.4, wasUsed: false, observations },
    tip: { tip0: { meanMm: 12.5, uMm: 0.03 }, observations: [] },
    rules: { boreLimitMm: 0.44, tipLossLimitMm: 0.15, massLimitKg: null },
    wearKg: end,
  }
}

const time = (work: () => void) => {
  const t = performance.now()
  work()
  return performance.now() - t
}
const one = history(3, 50, 'one')
const prior = { meanLn: Math.log(0.03), sd: 0.8 }
let posterior = Infinity
for (let i = 0; i < 30; i++)
  posterior = Math.min(
    posterior,
    time(() => borePosterior(one.bore, prior)),
  )
let sink = 0
let plain = Infinity
for (let i = 0; i < 10; i++)
  plain = Math.min(
    plain,
    time(() => {
      for (let k = 0; k < 50 * 2 * 1365; k++) sink += normalCdf(-1 + k * 1e-5)
    }),
  )
console.log(
  `posterior, 50 gauges: ${posterior.toFixed(2)} ms (budget 10); ${(plain / posterior).toFixed(1)} times as ` +
    `fast as the exact normal values alone (${plain.toFixed(1)} ms)`,
)
const fleet = Array.from({ length: 1000 }, (_, i) => history(i, 30, String(i)))
let whole = Infinity
for (let i = 0; i < 3; i++)
  whole = Math.min(
    whole,
    time(() => {
      if (fleetForecast(fleet).length !== 1000) throw new Error('incomplete')
    }),
  )
console.log(`fleet, 1 000 nozzles of 30 gauges: ${(whole / 1000).toFixed(2)} s (budget 2)${sink === 0 ? ' ' : ''}`)
