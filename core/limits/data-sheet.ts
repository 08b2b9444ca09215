/**
 * Reads pasted lines of a filament's data sheet: a name that is known, then a number or a range with its unit. What
 * cannot be read comes back as it was, so that nothing is lost. °C, mm, g/cm³, %, h; decimal comma or point.
 */
import { DRYING_C } from '../drying'
import { VALUES, type ValueKey } from './windows'

export interface SheetRead {
  facts: Partial<Record<ValueKey, number>>
  densityGCm3: number | null
  bed: [number, number] | null
  chamber: [number, number] | null
  dry: [number, number] | null
  dryHours: [number, number] | null
  /** Lines in which no name or no number was recognised, and numbers outside what is possible. */
  unread: { line: number; text: string; why: string }[]
}

type Target = ValueKey | 'nozzle' | 'bed' | 'chamber' | 'dry' | 'density'
/** The first that matches counts; longer names come before the shorter ones they contain. */
const NAMES: readonly (readonly [RegExp, Target])[] = [
  [/glass[\s-]transition|\btg\b/, 'glassC'],
  [/melting|\btm\b/, 'meltC'],
  [/elongation|strain at break/, 'strainAtBreak'],
  [/(recommended|preferred) (bore|nozzle (size|diameter))/, 'boreGoodMm'],
  [/(smallest|minimum|min\.?) (bore|nozzle (size|diameter))|nozzle (size|diameter)/, 'boreMinMm'],
  [/highest (safe )?drying|max\.? drying/, 'dryHighestC'],
  [/dry(ing)?\b/, 'dry'],
  [/chamber|enclosure|ambient/, 'chamber'],
  [/\bbed\b|plate|platform|build surface temp/, 'bed'],
  [/nozzle|print(ing)? temp|extru(sion|der)|hot[\s-]?end/, 'nozzle'],
  [/density|specific gravity/, 'density'],
]
const NUMBER = String.raw`-?\d+(?:[.,]\d+)?`
const RANGE = new RegExp(String.raw`(${NUMBER})\s*(?:°?\s*c)?\s*(?:-|–|—|to|bis|\.\.)\s*(${NUMBER})`, 'i')
const num = (t: string) => Number(t.replace(',', '.'))

function rangeIn(text: string): [number, number] | null {
  const r = RANGE.exec(text)
  if (r) {
    const a = num(r[1]!),
      b = num(r[2]!)
    return a <= b ? [a, b] : null
  }
  const one = new RegExp(NUMBER).exec(text)
  return one ? [num(one[0]), num(one[0])] : null
}

/**
 * Facts of a data sheet pasted as text: temperatures in °C, density in g/cm³, hours, shares; lines that say nothing it
 * knows come back unread. Reads at most 200 lines; never throws.
 */
export function readDataSheet(text: string): SheetRead {
  const out: SheetRead = {
    facts: {},
    densityGCm3: null,
    bed: null,
    chamber: null,
    dry: null,
    dryHours: null,
    unread: [],
  }
  for (const [i, raw] of text.split(/\r?\n/).slice(0, 200).entries()) {
    const line = raw.trim()
    if (line === '') continue
    const say = (why: string) => out.unread.push({ line: i + 1, text: line, why })
    const low = line.toLowerCase()
    const named = NAMES.find(([name]) => name.test(low))
    if (!named) {
      say('no known name')
      continue
    }
    const [name, target] = named
    const rest = low
      .slice(low.search(name) + name.exec(low)![0].length)
      .replace(/\([^)]*\)|\b(iso|astm|din|en)\s*[a-z]?\s*\d[\d-]*/g, ' ')
    if (target === 'dry') {
      const hours = new RegExp(String.raw`(?:(${NUMBER})\s*(?:-|–|to)\s*)?(${NUMBER})\s*h`).exec(rest)
      const before = rangeIn(hours ? rest.replace(hours[0], ' ') : rest)
      if (!before || before[0] < DRYING_C[0] || before[1] > DRYING_C[1]) {
        say(`no drying temperature between ${DRYING_C[0]} and ${DRYING_C[1]} °C`)
        continue
      }
      out.dry = before
      if (hours) out.dryHours = [num(hours[1] ?? hours[2]!), num(hours[2]!)]
      continue
    }
    const r = rangeIn(rest)
    if (!r) {
      say('no number')
      continue
    }
    const within = (low2: number, high: number) => r[0] >= low2 && r[1] <= high
    if (target === 'nozzle') {
      if (!within(VALUES.nozzleMinC.min, VALUES.nozzleMaxC.max)) {
        say(`not between ${VALUES.nozzleMinC.min} and ${VALUES.nozzleMaxC.max} °C`)
        continue
      }
      out.facts.nozzleMinC = r[0]
      out.facts.nozzleMaxC = r[1]
    } else if (target === 'bed' || target === 'chamber') {
      if (!within(15, target === 'bed' ? 300 : 250)) {
        say('not a temperature a bed or chamber has')
        continue
      }
      out[target] = r
    } else if (target === 'density') {
      const kgM3 = /kg\s*\/?\s*m/.test(rest) ? 1000 : 1
      if (!within(0.5 * kgM3, 10 * kgM3)) {
        say('not between 0.5 and 10 g/cm³')
        continue
      }
      out.densityGCm3 = r[0] / kgM3
    } else {
      const v = VALUES[target]
      if (!within(v.min, v.max)) {
        say(`not between ${v.min} and ${v.max} ${v.unit}`)
        continue
      }
      out.facts[target] = r[0]
    }
  }
  return out
}
