/** Lines and verdicts in a technician's words. Pure text: the same on screen, in the CSV and in print. */
import { capital, celsius } from '../words'
import { isMakers } from './checks'
import { differs, type Heat } from './heat'
import { offsetC } from './nozzles'
import { surfaceReason } from './surfaces'
import {
  VENTILATION,
  type Demand,
  type FittedNozzle,
  type KnownLine,
  type Line,
  type LineKey,
  type Part,
  type Place,
  type VerdictClass,
} from './types'

export interface LineWords {
  what: string
  asked: string
  allowed: string
  /** Allowed less asked, with its unit; empty where it is not a number. */
  margin: string
  decides: string
  basis: string
  /** What to know about it, or do. */
  says: string
}

const WHAT: Record<LineKey, string> = {
  'nozzle temperature': 'Nozzle temperature',
  'reading': 'Sensor reading',
  'nozzle': 'Nozzle hardness',
  'nozzle insert': 'Nozzle insert',
  'bore': 'Bore',
  'gears': 'Drive gears',
  'bend': 'Tightest bend',
  'tube heat': 'Feed tube in the heat',
  'bed': 'Bed',
  'surface': 'Build surface',
  'enclosure': 'Enclosure',
  'chamber': 'Chamber',
  'chamber part': 'Part in the heat',
  'dryer': 'Dryer',
  'ventilation': 'Ventilation',
}
/** A class as it is said. */
export const CLASS_WORDS: Record<VerdictClass, string> = {
  'runs': 'runs',
  'just': 'runs, just',
  'changes': 'runs after changes',
  'cannot': 'cannot',
  'cannot tell': 'cannot tell',
}

/** A number in words; nothing where there is none. */
export const degrees = (v: number | null) => (v === null ? '' : celsius(v))
const c = degrees
const mm = (v: number | null) => (v === null ? '' : `${v < 10 ? Number(v.toFixed(2)) : Math.ceil(v - 1e-6)} mm`)
/** Drawn radii are rounded against the user: what is asked up, what is there down. */
const mmDown = (v: number | null) => (v === null ? '' : `${v < 10 ? Number(v.toFixed(2)) : Math.floor(v + 1e-6)} mm`)
const after = (word: string, text: string) => (text === '' ? '' : `${word} ${text}`)

const signed = (v: number) => {
  const r = Number(v.toFixed(1))
  const sign = r < 0 ? '−' : '+'
  return `${r === 0 ? '' : sign}${Math.abs(r)} °C`
}

/** Allowed less asked, in the unit of the line; null where it is no matter of numbers or something is not known. */
export const marginOf = (l: Line): number | null =>
  l.status === 'unknown' || l.asked === null || l.allowed === null ? null : l.allowed - l.asked

/** Of lines that are not met or only just, the one with the least margin; undefined of none. */
export const furthestOver = <L extends Line>(lines: readonly L[]): L | undefined =>
  lines.length === 0 ? undefined : lines.reduce((a, b) => ((marginOf(b) ?? 0) < (marginOf(a) ?? 0) ? b : a))

/** A line in a technician's words: what, asked and allowed with their units, and why. */
export function wordsOf(l: Line, d: Demand, nozzle: FittedNozzle | null): LineWords {
  const out: LineWords = {
    what: WHAT[l.key],
    asked: '',
    allowed: '',
    margin: '',
    decides: l.part?.name ?? '',
    basis: l.part ? `${l.part.basis}${l.part.note ? `: ${l.part.note}` : ''}` : '',
    says: '',
  }
  if (l.status === 'unknown')
    return {
      ...out,
      asked: l.unit === '°C' ? c(l.asked) : '',
      allowed: 'not known',
      says: `Cannot tell: ${l.missing} is missing.`,
    }
  const margin = marginOf(l)
  if (l.unit === '°C') {
    out.asked = c(l.asked)
    out.allowed = c(l.allowed)
    if (margin !== null) out.margin = signed(margin)
    if (margin !== null && Math.abs(margin) < 1e-9 && l.u90 === 0) out.says = 'The guard band is used up, no more.'
  }
  switch (l.key) {
    case 'nozzle temperature':
      if (!d.exact && nozzle && l.asked !== null) {
        const more = offsetC(nozzle.material)
        if (more > 0) out.says = `${c(l.asked - more)} and ${more} more for ${nozzle.material}. ${out.says}`.trim()
      }
      if (l.status === 'short' && l.part?.role === 'firmware' && isMakers(l.part))
        out.says = "The maker's own limit: it is not raised."
      out.says = [out.says, sensorSays(l)].filter(Boolean).join(' ')
      break
    case 'reading':
      out.asked = `at most ${l.asked} °C per count`
      out.allowed = l.allowed === null ? '' : `${l.allowed.toFixed(1)} °C per count`
      if (l.status === 'look') out.says = 'The reading is coarse here: the temperature will hunt.'
      break
    case 'nozzle':
      if (l.code === 'none fitted') out.says = 'No nozzle is fitted.'
      else if (l.code === 'soft') {
        out.asked = `Mohs ${l.asked}`
        out.allowed = `Mohs ${l.allowed}`
        out.says = `${d.filler} wears this nozzle fast; hardened steel is the floor.`
      } else if (l.status === 'ok') {
        out.asked = l.asked === 0 ? 'nothing' : `Mohs ${l.asked}`
        out.allowed = `Mohs ${l.allowed}`
      }
      break
    case 'nozzle insert':
      out.says =
        'The insert can fall out, and the body behind a hard tip can still wear: look at it after each filled job.'
      break
    case 'bore':
      out.asked = l.status === 'short' ? after('at least', mm(l.asked)) : mm(l.asked)
      out.allowed = mm(l.allowed)
      if (l.code === 'possible') {
        out.asked = after(mm(l.asked), 'recommended')
        out.says = 'Possible, slowed down; a clog is more likely. Recommended: the larger bore.'
      }
      if (l.code === 'too small') out.says = 'This filler does not pass it.'
      break
    case 'gears':
      out.asked = 'hardened'
      out.allowed = { soft: 'not hardened', hardened: 'hardened' }[l.code ?? ''] ?? 'not known'
      if (l.code === 'soft') out.says = 'Fibre wears plain gears; grip is lost first.'
      break
    case 'bend':
      out.asked = l.asked === null ? 'straighter than straight' : `at least ${mm(l.asked)}`
      out.allowed = mmDown(l.allowed)
      if (margin !== null) out.margin = `${margin >= 0 ? '+' : '−'}${Math.floor(Math.abs(margin))} mm`
      if (l.code === 'curl') out.says = 'It is already strained too far by the curl of its spool.'
      else if (l.status === 'short') {
        const strain =
          d.strainAtBreak === null ? '' : `: ${Number((d.strainAtBreak * 100).toFixed(2))} % strain at break`
        const curl = d.curlMm === null ? '' : `, curled to ${d.curlMm} mm on its spool`
        out.says = `It snaps in this bend${strain}${curl}, safety factor included.`
      }
      break
    case 'tube heat':
      out.says = `${capital(PLACE_WORDS.high)}, ${by(l)}${measure(l)}`
      break
    case 'bed':
      if (l.code === 'for the chamber') out.says = `The bed is set this hot to warm the chamber.${measure(l)}`
      out.says = [out.says, sensorSays(l)].filter(Boolean).join(' ')
      break
    case 'surface':
      out.asked = (d.surfaces ?? []).join(', or ')
      out.allowed = l.part?.details.surface ?? ''
      out.says = surfaceReason(d.polymer, d.surfaces ?? [], l.part?.details.surface ?? '')
      break
    case 'enclosure':
      out.asked = 'an enclosure'
      out.allowed = l.code
      out.says = l.code === 'lid off' ? 'With the lid off it is none.' : ''
      break
    case 'chamber':
      if (l.part === null) {
        out.decides = 'open frame'
        out.allowed = 'room air'
      }
      if (l.code === 'would help') out.says = 'It would help: layers bond better, corners lift less.'
      if (l.code === 'heater helps') out.says = 'Use the chamber heater: it helps.'
      if (l.code === 'no heater')
        out.says = 'The file sets a chamber temperature; this printer has no heater that follows it.'
      if (l.code === 'lid off') out.says = 'With the lid off the chamber does not hold its heat.'
      if (l.code === 'too warm') {
        out.asked = after(c(l.asked), 'at the head')
        out.allowed = after('at most', c(l.allowed))
        out.says =
          l.status === 'ok'
            ? capital(by(l))
            : `Softens in the heat break: take the lid off. ${capital(by(l))}${measure(l)}`
      }
      if (l.code === 'warmer') {
        out.margin = ''
        out.says = 'Warmer than this practice asks for.'
      }
      if (l.code === 'bed the cooler') {
        out.asked = out.allowed = ''
        out.says =
          'Its map has the air near bed and head cooler than near the top, which is hardly so: was it entered the ' +
          'wrong way round?'
      }
      if (l.code === 'heated') out.says = `The air at the coolest place ${by(l)}${measure(l)}`
      if (l.code === 'bed-heated')
        out.says =
          `${l.status === 'ok' ? '' : 'That is what the hottest bed this filament takes makes of it. '}` +
          `At the coolest place of the build, ${by(l)}${measure(l)}`
      break
    case 'chamber part':
      if (l.part) out.says = `${capital(placeOf(l.part))}, ${by(l)}${measure(l)}`
      break
    case 'dryer':
      if (l.code === 'none') {
        out.allowed = 'no dryer'
        out.says = 'Dry it, even fresh out of the bag.'
      } else if (l.status === 'short') out.says = 'The dryer stops too low for this practice.'
      break
    case 'ventilation':
      out.asked = VENTILATION[l.asked ?? -1] ?? ''
      out.allowed = VENTILATION[l.allowed ?? -1] ?? 'none'
      if (l.status === 'short') out.says = 'Fumes and fine particles: do not run it like this.'
      break
    default:
      return l.key satisfies never
  }
  return out
}

/** Places as they are said. */
export const PLACE_WORDS: Record<Place, string> = {
  low: 'near bed and head',
  high: 'near the top',
  bay: 'in the electronics bay',
  outside: 'outside',
}

const placeOf = (p: Part) => PLACE_WORDS[p.role === 'enclosure' ? 'high' : p.place]
/** On what the air rests. */
const by = (l: KnownLine) =>
  l.rests === '' ? 'not known by what.' : `by ${l.rests}${l.u90 >= 0.05 ? `, known to ${celsius(l.u90)}` : ''}.`
/** What would tell, where a margin lies within its uncertainty. */
const measure = (l: KnownLine) => (l.status === 'just' ? ' Just: measure the air there, and it is told.' : '')

/**
 * What a sensor's check makes of a setpoint, in one sentence; empty where it reads true or nobody has checked it.
 *
 * @example
 * const heat = { setC: 284, trueC: 290, u90C: 1.5, covered: true, from: 'its check' }
 * heatSays(heat) // "Set 284 °C for 290 °C: the sensor reads 6 °C low, by its check."
 */
export function heatSays(h: Heat): string {
  const off = Number((h.trueC - h.setC).toFixed(1))
  if (off === 0) return ''
  const way = off > 0 ? 'low' : 'high'
  return `Set ${celsius(h.setC)} for ${celsius(h.trueC)}: the sensor reads ${Math.abs(off)} °C ${way}, by ${h.from}.`
}
/** What a setting comes to, for half a sentence; empty where its sensor was not found to be off by half a degree. */
export const makesSays = ({ setC, trueC, from }: Heat): string =>
  Math.abs(trueC - setC) < 0.5 ? '' : `${trueC.toFixed(0)} °C in truth, by ${from}`
/** The same of a line, and what to do where its margin lies within what the check leaves open. */
function sensorSays(l: KnownLine): string {
  if (!l.heat) return ''
  const just = l.status === 'just' && l.key === 'nozzle temperature'
  const again = just ? `Just: its sensor is known to ${celsius(l.u90)}; check it with a surer reference.` : ''
  return [heatSays(l.heat), again].filter(Boolean).join(' ')
}
/** For half a sentence: that what is asked is not what is set. */
const ofSet = (l: KnownLine) =>
  l.heat && differs(l.heat) && l.asked === l.heat.trueC
    ? ` (${celsius(l.heat.setC)} set; its sensor reads ${l.heat.trueC > l.heat.setC ? 'low' : 'high'})`
    : ''

const KEYS = Object.keys(WHAT)
/** Lines from the nozzle outwards; of one kind the tightest first. */
export function inOrder(lines: readonly Line[]): Line[] {
  const left = (l: Line) => (l.unit === '°C' ? (marginOf(l) ?? 0) : 0)
  return [...lines].sort((a, b) => KEYS.indexOf(a.key) - KEYS.indexOf(b.key) || left(a) - left(b))
}

/** Ventilation within a sentence, by its place in `VENTILATION`. */
const FUMES = ['no ventilation', 'a ventilated room', 'a filter', 'extraction outdoors'] as const satisfies {
  length: (typeof VENTILATION)['length']
}
const fumes = (level: number | null) => FUMES[level ?? 0] ?? 'ventilation'

/** One line that is not met, or that cannot be told, as half a sentence. */
export function reason(l: Line, d: Demand, nozzle: FittedNozzle | null): string {
  if (l.status === 'unknown') return `${l.missing} is not known`
  const w = wordsOf(l, d, nozzle)
  switch (l.key) {
    case 'nozzle temperature':
    case 'bed':
      return (
        `the limit of the ${w.decides} is ${w.allowed}, it needs ${w.asked}${l.key === 'bed' ? ' of the bed' : ''}` +
        ofSet(l)
      )
    case 'chamber part':
    case 'tube heat':
      return `the limit of the ${w.decides} is ${w.allowed}, the air there would be ${w.asked}`
    case 'nozzle':
      return l.code === 'none fitted'
        ? 'no nozzle is fitted'
        : `${d.filler} wears a ${nozzle?.material ?? 'soft'} nozzle fast`
    case 'bore':
      return l.status === 'short'
        ? `it needs a bore of ${mm(l.asked)}, fitted is ${w.allowed}`
        : `a bore of ${mm(l.asked)} is recommended, fitted is ${w.allowed}`
    case 'gears':
      return 'the drive gears are not hardened'
    case 'bend':
      return `the feed tube bends to ${w.allowed}, it needs ${w.asked}`
    case 'surface':
      return `it does not hold on ${w.allowed}`
    case 'enclosure':
      return l.code === 'lid off' ? 'this practice needs the lid on' : 'this practice needs an enclosure'
    case 'chamber':
      if (l.code === 'bed the cooler')
        return 'its map has the air near bed and head cooler than near the top, which is hardly right'
      return l.code === 'too warm'
        ? `the air at the head gets ${c(l.asked)}, it takes ${w.allowed}`
        : `it needs ${w.asked} in the chamber, which holds ${w.allowed}`
    case 'dryer':
      return l.code === 'none' ? 'there is no dryer' : `the dryer reaches ${w.allowed}, it is dried at ${w.asked}`
    case 'ventilation':
      return `its fumes need ${fumes(l.asked)}, there is ${fumes(l.allowed)}`
    default:
      return w.what.toLowerCase()
  }
}
