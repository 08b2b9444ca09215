/**
 * A plan of an enclosure as it is typed: all of its answer (both readings of a record, as it is and as planned, what
 * matters, the stuck heater) against one steady state of it in the same run. Budget: 300 ms, in a worker.
 */
import { planOutcome, steadyAir, type EnclosurePlan, type Layer, type Wall } from '#core/chamber'
import { PRACTICE_AIR } from '#core/limits'

const panel: Layer[] = [
  { material: 'felt', mm: 16 },
  { material: 'aluminium composite panel', mm: 4 },
]
const pane: Layer[] = [
  { material: 'acrylic', mm: 4 },
  { material: 'air gap', mm: 16 },
  { material: 'acrylic', mm: 4 },
]
const wall = (name: string, face: Wall['face'], layers: Layer[]): Wall => ({ name, face, areaM2: 0.16, layers })
const now: EnclosurePlan = {
  walls: [
    wall('front', 'side', pane),
    wall('back', 'side', panel),
    wall('left', 'side', panel),
    wall('right', 'side', panel),
    wall('top', 'top', panel),
    wall('floor', 'bottom', panel),
  ],
  heightM: 0.45,
  roomC: 23,
  bed: { setC: 100, areaM2: 0.12, powerW: 600, under: 'bare' },
  nozzleW: 15,
  heaterW: 0,
  heaterSetC: null,
  cutOutC: null,
  stirred: false,
  gapMm2: 600,
  ventLMin: 0,
}
const then = { ...now, walls: now.walls.map(w => ({ ...w, layers: [...w.layers, ...panel] })) }
const planning = {
  now,
  then,
  map: { bed: PRACTICE_AIR.shut, heater: PRACTICE_AIR.heater },
  parts: [{ name: 'belts', place: 'high' as const, allowedC: 75 }],
  record: { meanC: 66, u90: 2, bedC: 100, roomC: 23, tauS: 900 },
  insideKg: 8,
}
function median(runs: number, work: () => void): number {
  const times = Array.from({ length: runs }, () => {
    const start = performance.now()
    work()
    return performance.now() - start
  })
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)]!
}
median(20, () => steadyAir(now))
const one = median(40, () => steadyAir(now))
const all = median(9, () => planOutcome(planning))
console.log(`one steady state   ${one.toFixed(1)} ms`)
console.log(`a plan's answer    ${all.toFixed(0)} ms, ${(all / one).toFixed(0)} times as much (budget 300 ms)`)
