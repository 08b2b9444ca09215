/**
 * Reads pasted lines of a filament's data sheet: a name that is known, then a number or a range with its unit. What
 * cannot be read comes back as it was, so that nothing is lost. °C, mm, g/cm³, %, h; decimal comma or point.
 */
import { DRYING_C } from '../drying'
import { MOST_FILLER } from '../materials'
import type { Filler } from '../wear'
import { VALUES, type ValueKey } from './windows'

export interface SheetRead {
  facts: Partial<Record<ValueKey, number>>
  densityGCm3: number | null
  /** Filler as a mass fraction; `kind` is null where the line only says "filler" or "fibre". */
  filler: { kind: Filler | null; fraction: number } | null
  /** Water of the filament as it is sold, filler and all, at 50 % humidity, wt%. */
  waterAt50: number | null
  bed: [number, number] | null
  chamber: [number, number] | null
  dry: [number, number] | null
  dryHours: [number, number] | null
  /** Lines in which no name or no number was recognised, and numbers outside what is possible. */
  unread: { line: number; text: string; why: string }[]
}

const NUMBER = String.raw`-?\d+(?:[.,]\d+)?`
const TO = String.raw`\s*(?:°?\s*c|mm|%|h)?\s*(?:-|–|—|to|bis|\.\.)\s*`
const RANGE = new RegExp(String.raw`(${NUMBER})${TO}(${NUMBER})`, 'i')
const HOURS = new RegExp(String.raw`(?:(${NUMBER})\s*(?:h\w*)?\s*(?:-|–|to)\s*)?(${NUMBER})\s*h(?:\b|our)`)
const RAMP = new RegExp(String.raw`(${NUMBER})\s*(?:°\s*c|k)\s*(?:\/|per|an)\s*h\w*`)
const AT_LEAST = /≥|>|\bmin\b|minimum|at least|or (?:larger|more|bigger)|and (?:larger|up)/
const FILLER_NAMES: readonly (readonly [RegExp, Filler])[] = [
  [/carbon|\bcf\b/, 'carbon fibre'],
  [/glass|\bgf\b/, 'glass fibre'],
  [/glow|luminous|phosphor/, 'glow pigment'],
  [/metal|steel|copper|bronze|iron|tungsten/, 'metal powder'],
  [/wood|cork/, 'wood'],
]
const num = (t: string) => Number(t.replace(',', '.'))
/** Conditions that a value was measured under are not the value. */
const STANDARD = /\b(?:iso|astm|din|en)\s*[a-z]?\s*\d[\d-]*/g
const CONDITIONS = new RegExp(String.raw`\([^)]*\)|${STANDARD.source}`, 'g')

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
const isWithin = (r: readonly [number, number], low: number, high: number) => r[0] >= low && r[1] <= high
/** Why a range cannot be of a fact. */
function notOf(key: ValueKey, r: readonly [number, number]): string | null {
  const { min, max, unit } = VALUES[key]
  return isWithin(r, min, max) ? null : `not between ${min} and ${max} ${unit}`
}
function putFact(out: SheetRead, key: ValueKey, value: number): string | null {
  const why = notOf(key, [value, value])
  if (why === null) out.facts[key] = value
  return why
}
/** Several facts of a line, those that it says; the first reason there is. */
const putFacts = (out: SheetRead, facts: readonly (readonly [ValueKey, number | undefined])[]): string | null =>
  facts.map(([k, x]) => (x === undefined ? null : putFact(out, k, x))).find(why => why !== null) ?? null

interface Line {
  /** After its name, without conditions. */
  rest: string
  /** After its name, as it stands. */
  tail: string
  whole: string
}
/** Puts what a line says into a reading of its own; answers why it cannot, or null. */
type Take = (out: SheetRead, line: Line) => string | null

const asFact =
  (key: ValueKey): Take =>
  (out, { rest }) => {
    const r = rangeIn(rest)
    return r ? putFact(out, key, r[0]) : 'no number'
  }
/** A nozzle has a temperature or a bore: the unit says which. */
const nozzle: Take = (out, { rest, whole }) => {
  const mm = new RegExp(String.raw`(?:${NUMBER}${TO})?${NUMBER}\s*mm`).exec(rest)
  const bore = mm && rangeIn(mm[0])
  if (bore) {
    const key = /recommended|preferred/.test(whole) && !AT_LEAST.test(rest) ? 'boreGoodMm' : 'boreMinMm'
    return putFact(out, key, bore[0])
  }
  const r = rangeIn(rest)
  return r
    ? putFacts(out, [
        ['nozzleMinC', r[0]],
        ['nozzleMaxC', r[1]],
      ])
    : 'no number'
}
const warm =
  (what: 'bed' | 'chamber', highest: number): Take =>
  (out, { rest }) => {
    const r = rangeIn(rest)
    if (!r) return 'no number'
    if (!isWithin(r, 15, highest)) return 'not a temperature a bed or chamber has'
    out[what] = r
    return null
  }
const density: Take = (out, { rest, whole }) => {
  if (/fib(?:re|er)|filler/.test(whole)) return 'of the filler, not of the filament'
  const r = rangeIn(rest)
  if (!r) return 'no number'
  const kgM3 = /kg\s*\/?\s*m/.test(rest) ? 1000 : 1
  if (!isWithin(r, 0.5 * kgM3, 10 * kgM3)) return 'not between 0.5 and 10 g/cm³'
  out.densityGCm3 = r[0] / kgM3
  return null
}
/** Degrees, then hours, as drying and annealing are written: `80 °C, 4-6 h`. */
function heatAndHours(text: string) {
  const found = HOURS.exec(text)
  const heat = rangeIn(found ? text.replace(found[0], ' ') : text)
  const hours: [number, number] | null = found && [num(found[1] ?? found[2]!), num(found[2]!)]
  return { heat, hours }
}
const dry: Take = (out, { tail }) => {
  const { heat, hours } = heatAndHours(tail)
  if (!heat || !isWithin(heat, ...DRYING_C)) return `no drying temperature between ${DRYING_C[0]} and ${DRYING_C[1]} °C`
  out.dry = heat
  if (hours) out.dryHours = hours
  return null
}
const anneal: Take = (out, { tail }) => {
  const ramp = RAMP.exec(tail)
  const { heat, hours } = heatAndHours(ramp ? tail.replace(ramp[0], ' ') : tail)
  if (!heat && !ramp) return 'no number'
  return putFacts(out, [
    ['annealMinC', heat?.[0]],
    ['annealMaxC', heat?.[1]],
    ['annealMinH', hours?.[0]],
    ['annealMaxH', hours?.[1]],
    ['annealRamp', ramp ? num(ramp[1]!) : undefined],
  ])
}
const filler: Take = (out, { rest, tail, whole }) => {
  if (/vol\.?[\s-]*%|% by volume/.test(tail)) return 'a share by volume: enter it by weight'
  const r = rangeIn(rest)
  if (!r) return 'no number'
  if (r[0] !== r[1]) return 'a range: enter the share of the spool at hand'
  if (r[0] <= 0 || r[0] > MOST_FILLER * 100) return `not between 0 and ${MOST_FILLER * 100} wt%`
  const kind = FILLER_NAMES.find(([name]) => name.test(whole))?.[1] ?? null
  out.filler = { kind, fraction: Number((r[0] / 100).toPrecision(12)) }
  return null
}
const percentOfWater = (text: string): [number, number] | null => {
  const r = rangeIn(text)
  return r && /ppm/.test(text) ? [r[0] / 10_000, r[1] / 10_000] : r
}
/** Of the moisture that a filament may print with the upper end counts. */
const moisture: Take = (out, { rest }) => {
  const r = percentOfWater(rest)
  return r ? putFact(out, 'cleanWater', r[1]) : 'no number'
}
const HUMIDITY = new RegExp(String.raw`(${NUMBER})\s*%\s*(?:rh\b|r\.\s?h\.?|rel\S*(?: hum\w*)?|humidity)`)
const uptake: Take = (out, { tail, whole }) => {
  const humidity = HUMIDITY.exec(whole)
  if (!humidity || num(humidity[1]!) !== 50) return 'only the water at 50 % humidity is used'
  const value = tail
    .replace(humidity[0], ' ')
    .replace(STANDARD, ' ')
    .replace(new RegExp(String.raw`${NUMBER}\s*(?:°\s*c|h\b)`, 'g'), ' ')
  const r = percentOfWater(value)
  if (!r) return 'no number'
  const why = notOf('waterAt50', r)
  if (why === null) out.waterAt50 = r[1]
  return why
}

/** The first that matches counts; longer names come before the shorter ones they contain. */
const NAMES: readonly (readonly [RegExp, Take])[] = [
  [/glass[\s-]transition|\btg\b/, asFact('glassC')],
  [/melting|\btm\b/, asFact('meltC')],
  [/elongation|strain at break/, asFact('strainAtBreak')],
  [/(?:(?:carbon|glass)[\s-]*)?fib(?:re|er)s?\b(?=.*%)|\bfiller\b(?=.*%)|reinforce\w*(?=.*%)/, filler],
  [/\b(?:cf|gf)\b(?=.*%)|(?:glow|luminous|metal|steel|copper|bronze|iron|wood|cork)\b.*(?:content|share)/, filler],
  [/(?:water|moisture)\s*(?:absor\w*|uptake)|equilibrium (?:water|moisture)/, uptake],
  [/anneal\w*|heat treatment/, anneal],
  [/highest (?:safe )?drying|max\.? drying/, asFact('dryHighestC')],
  [/moisture|water content|residual water/, moisture],
  [/(?:recommended|preferred) (?:bore|nozzle (?:size|diameter))/, asFact('boreGoodMm')],
  [/(?:smallest|minimum|min\.?) (?:bore|nozzle (?:size|diameter))|nozzle (?:size|diameter)/, asFact('boreMinMm')],
  [/dry(?:ing)?\b/, dry],
  [/chamber|enclosure|ambient/, warm('chamber', 250)],
  [/\bbed\b|plate|platform|build surface temp/, warm('bed', 300)],
  [/nozzle|print(?:ing)? temp|extru(?:sion|der)|hot[\s-]?end/, nozzle],
  [/(?:polymer|matrix|resin) density|density of (?:the )?(?:polymer|matrix|resin)/, asFact('matrixGCm3')],
  [/density|specific gravity/, density],
]

const nothing = (): SheetRead => ({
  facts: {},
  densityGCm3: null,
  filler: null,
  waterAt50: null,
  bed: null,
  chamber: null,
  dry: null,
  dryHours: null,
  unread: [],
})
const EARLIER = 'a line before says otherwise'

/** Adds what a line says; a value that an earlier line gave differently stands, and the reason is answered. */
function merge(out: SheetRead, { facts, unread: _, ...one }: SheetRead): string | null {
  const { facts: known, unread: _lines, ...rest } = out
  const differs = (a: unknown, b: unknown) => a !== undefined && a !== null && JSON.stringify(a) !== JSON.stringify(b)
  const said = Object.entries(one).filter(([, x]) => x !== null)
  if (said.some(([k, x]) => differs(rest[k as keyof typeof rest], x))) return EARLIER
  if (Object.entries(facts).some(([k, x]) => differs(known[k as ValueKey], x))) return EARLIER
  Object.assign(out, Object.fromEntries(said))
  Object.assign(known, facts)
  return null
}

function readLine(out: SheetRead, text: string): string | null {
  const whole = text.toLowerCase()
  const named = NAMES.find(([name]) => name.test(whole))
  if (!named) return 'no known name'
  const [name, take] = named
  const found = name.exec(whole)!
  const tail = whole.slice(found.index + found[0].length)
  const one = nothing()
  return take(one, { rest: tail.replace(CONDITIONS, ' '), tail, whole }) ?? merge(out, one)
}

/**
 * Facts of a data sheet pasted as text: temperatures in °C, density in g/cm³, hours, water in wt%, filler as a mass
 * fraction; lines that say nothing it knows come back unread. Reads at most 200 lines; never throws.
 */
export function readDataSheet(text: string): SheetRead {
  const out = nothing()
  for (const [i, raw] of text.split(/\r?\n/).slice(0, 200).entries()) {
    const line = raw.trim()
    const why = line === '' ? null : readLine(out, line)
    if (why !== null) out.unread.push({ line: i + 1, text: line, why })
  }
  return out
}
