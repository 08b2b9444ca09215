/**
 * Works out the brute-force answers of every case that has none yet and writes them beside the tests; half an hour for
 * all:
 *   node --import tsx tests/reference/brute-force-answers.ts [case ...]
 * A case that is named is worked out again. Every answer is written as soon as it is there.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { bruteForce } from './brute-force'
import { CASES } from './wear-cases'

const FILE = new URL('./brute-force-answers.json', import.meta.url)
const read = (): Record<string, unknown> => (existsSync(FILE) ? JSON.parse(readFileSync(FILE, 'utf8')) : {})
const named = process.argv.slice(2)
const wanted = named.length > 0 ? named : Object.keys(CASES).filter(name => !(name in read()))

for (const name of wanted) {
  const c = CASES[name]
  if (!c) throw new Error(`There is no case "${name}"`)
  const begun = performance.now()
  const { bore, life, past, boreShare, lifeShare } = bruteForce(c, ...finenessFor(c.readings.length))
  // shares a little to either side of each quantile tell where a quantile hardly means anything
  const around = (q: number[], share: (v: number) => number) => q.map(v => [share(v * 0.9995), share(v * 1.0005)])
  const all = {
    ...read(),
    [name]: { bore, life, past, boreAround: around(bore, boreShare), lifeAround: around(life, lifeShare) },
  }
  const inOrder = Object.fromEntries(
    Object.keys(CASES)
      .filter(k => k in all)
      .map(k => [k, all[k]]),
  )
  writeFileSync(FILE, `${JSON.stringify(inOrder, null, 1)}\n`)
  console.log(`${name}: ${((performance.now() - begun) / 1000).toFixed(0)} s`)
}

/** Rows, and steps per standard deviation. */
export function finenessFor(readings: number): [number, number] {
  if (readings <= 8) return [1600, 16]
  return readings <= 25 ? [900, 12] : [600, 20]
}
