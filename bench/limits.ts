/**
 * The fleet matrix of 60 printers × 40 filaments: the class of every cell, against working out the cheapest changes of
 * every cell in the same run. Budget: 50 ms with the stacks compiled, 200 ms with them. One edit compiles one printer
 * anew.
 */
import {
  compile,
  compileFleet,
  demandOf,
  describedPrinter,
  findChanges,
  matrix,
  START_RULES,
  START_WINDOWS,
  STARTING_STACKS,
  type Filament,
  type FittedNozzle,
  type Offers,
  type Printer,
} from '#core/limits'
import { NOZZLE_MATERIALS } from '#core/wear'

const nozzle = (i: number): FittedNozzle => ({
  id: i,
  tag: `N-${i}`,
  material: NOZZLE_MATERIALS[i % NOZZLE_MATERIALS.length]!,
  boreMm: [0.4, 0.6][i % 2]!,
  insert: i % 3 === 0,
  lengthMm: 12.5,
  headId: null,
  price: 0,
})
const printers: Printer[] = Array.from({ length: 60 }, (_, i) => {
  const p = describedPrinter(`P${i}`, STARTING_STACKS[i % STARTING_STACKS.length]!, [nozzle(i)])
  return {
    ...p,
    id: i,
    parts: p.parts.map((x, k) => ({ ...x, limitC: x.limitC === null ? null : x.limitC + ((i * 7 + k * 3) % 11) - 5 })),
  }
})
const filaments: Filament[] = Array.from({ length: 40 }, (_, i) => {
  const w = START_WINDOWS[i % START_WINDOWS.length]!
  const facts = Object.fromEntries(Object.entries(w.facts).map(([k, f]) => [k, f!.value]))
  return {
    name: `F${i}`,
    demands: w.sets.map(s =>
      demandOf(
        {
          name: `F${i}`,
          polymer: w.polymer,
          filler: w.filled === true || i % 2 ? 'carbon fibre' : 'none',
          ventilation: w.ventilation,
          facts,
        },
        s,
      ),
    ),
  }
})
const offers: Offers = { shelf: [], nozzles: Array.from({ length: 8 }, (_, i) => nozzle(i + 100)), prices: {} }

function median(work: () => void, times: number): number {
  const out: number[] = []
  for (let i = 0; i < times; i++) {
    const t = performance.now()
    work()
    out.push(performance.now() - t)
  }
  return out.sort((a, b) => a - b)[times >> 1]!
}
let cells = 0
const fleet = compileFleet(printers, offers, START_RULES)
const classes = median(() => {
  cells = matrix(filaments, fleet).flat().length
}, 15)
const compiling = median(() => {
  compileFleet(printers, offers, START_RULES)
}, 15)
const edit = median(() => {
  matrix(filaments, [[compile(printers[7]!, 0, offers, START_RULES)]])
}, 15)
const every = median(() => {
  for (const f of filaments)
    for (const heads of fleet) for (const c of heads) for (const d of f.demands) findChanges(c, [d])
}, 3)
if (cells !== 2400) throw new Error('the matrix is not complete')
console.log(
  `limits, 60 printers × 40 filaments: classes ${classes.toFixed(1)} ms (budget 50); compiling all stacks ` +
    `${compiling.toFixed(1)} ms; after one edit ${edit.toFixed(1)} ms; changes of every cell ` +
    `${every.toFixed(0)} ms, ${(every / classes).toFixed(1)} times as long`,
)
