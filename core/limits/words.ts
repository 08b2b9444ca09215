/** Lines and verdicts in a technician's words. Pure text: the same on screen, in the CSV and in print. */
import { celsius } from '../words'
import { offsetC } from './nozzles'
import { onSheet } from './surfaces'
import type { Verdict } from './changes'
import {
  VENTILATION,
  type Demand,
  type FittedNozzle,
  type KnownLine,
  type Line,
  type LineKey,
  type UnknownLine,
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
  'changes': 'runs after changes',
  'cannot': 'cannot',
  'cannot tell': 'cannot tell',
}

/** A number in words; nothing where there is none. */
const c = (v: number | null) => (v === null ? '' : celsius(v))
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
  }
  switch (l.key) {
    case 'nozzle temperature':
      if (!d.exact && nozzle && l.asked !== null) {
        const more = offsetC(nozzle.material)
        if (more > 0) out.says = `${c(l.asked - more)} and ${more} more for ${nozzle.material}.`
      }
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
      if (l.code === 'possible')
        out.says = 'Possible, slowed down; a clog is more likely. Recommended: the larger bore.'
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
      break
    case 'bed':
      if (l.code === 'for the chamber') out.says = 'The bed is set this hot to warm the chamber.'
      break
    case 'surface':
      out.asked = (d.surfaces ?? []).join(', or ')
      out.allowed = l.part?.details.surface ?? ''
      out.says = surfaceHazard(d, l)
      break
    case 'enclosure':
      out.asked = 'an enclosure'
      out.allowed = l.code
      out.says = l.code === 'lid off' ? 'With the lid off it is none.' : ''
      break
    case 'chamber':
      if (l.code === 'open frame') {
        out.decides = 'open frame'
        out.allowed = 'room air'
      }
      if (l.code === 'would help') out.says = 'It would help: layers bond better, corners lift less.'
      if (l.code === 'heater helps') out.says = 'Use the chamber heater: it helps.'
      if (l.code === 'no heater')
        out.says = 'The file sets a chamber temperature; this printer has no heater that follows it.'
      if (l.code === 'lid off') out.says = 'With the lid off the chamber does not hold its heat.'
      if (l.code === 'too warm') {
        out.asked = after('at most', c(l.asked))
        out.allowed = c(l.allowed)
        out.margin = ''
        out.says = 'Softens in the heat break: run with the lid off.'
      }
      if (l.code === 'bed-heated')
        out.says = l.status === 'short' ? 'That is what the hottest bed this filament takes makes of it.' : ''
      break
    case 'chamber part':
      if (l.part) out.says = `${PLACE_WORDS[l.part.place]}, by the chamber map.`
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

const PLACE_WORDS = { bay: 'In the electronics bay', low: 'Near the bed', high: 'Near the top', outside: 'Outside' }

function surfaceHazard(d: Demand, l: Line): string {
  const [fit] = onSheet(d.surfaces ?? [], l.part?.details.surface ?? '')
  if (!fit) return 'It does not hold on this sheet, or holds for good.'
  const { adhesive } = fit
  const glass =
    l.part?.details.surface === 'glass' ? ' Remove while warm, with gloves: cooling parts pull chips out of glass.' : ''
  const without = adhesive === 'release agent' ? 'it bonds for good' : 'it comes off'
  return `${adhesive ? `With ${adhesive}, or ${without}.` : ''}${glass}`.trim()
}

const KEYS = Object.keys(WHAT)
/** Lines from the nozzle outwards; of one kind the tightest first. */
export function inOrder(lines: readonly Line[]): Line[] {
  const left = (l: Line) => (l.unit === '°C' ? (marginOf(l) ?? 0) : 0)
  return [...lines].sort((a, b) => KEYS.indexOf(a.key) - KEYS.indexOf(b.key) || left(a) - left(b))
}

/** The fine line with the least margin of those in °C that a part decides. */
function tightest(lines: readonly Line[]): { line: KnownLine; margin: number } | null {
  let best: { line: KnownLine; margin: number } | null = null
  for (const l of lines) {
    const margin = marginOf(l)
    if (l.status !== 'ok' || margin === null || l.unit !== '°C' || l.key === 'dryer' || l.part?.place === 'outside')
      continue
    if (l.key === 'chamber' && l.code !== 'heated' && l.code !== 'bed-heated') continue
    if (best === null || margin < best.margin) best = { line: l, margin }
  }
  return best
}

/** The verdict in one sentence, with its number and its reason. `blockers`: what no swap cures, when it cannot. */
export function sentenceOf(
  v: Verdict,
  printer: string,
  nozzle: FittedNozzle | null,
  blockers: readonly Line[] = [],
): string {
  const who = v.demand.name
  if (v.class === 'runs') {
    const t = tightest(v.lines)
    if (!t) return `${who} runs on ${printer}.`
    return (
      `${who} runs on ${printer}. Tightest is the ${t.line.part?.name ?? t.line.key}: asks ${c(t.line.asked)}, ` +
      `allows ${c(t.line.allowed)}, ${Number(t.margin.toFixed(1))} °C left.`
    )
  }
  if (v.class === 'cannot tell') {
    const missing = v.lines.find((l): l is UnknownLine => l.status === 'unknown')
    return (
      `Cannot tell whether ${who} runs on ${printer}: ${missing?.missing ?? 'a fact after the changes'} is ` +
      `missing.`
    )
  }
  const of = v.class === 'cannot' && blockers.length > 0 ? blockers : inOrder(v.lines.filter(l => l.status === 'short'))
  return (
    `${who} ${v.class === 'cannot' ? 'cannot run' : 'does not run'} on ` +
    `${printer}${v.class === 'cannot' ? '' : ' as it is'}: ${of
      .slice(0, 2)
      .map(l => reason(l, v.demand, nozzle))
      .join('; ')}${of.length > 2 ? `; and ${of.length - 2} more` : ''}.`
  )
}

/** One line that is not met, or that cannot be told, as half a sentence. */
export function reason(l: Line, d: Demand, nozzle: FittedNozzle | null): string {
  if (l.status === 'unknown') return `${l.missing} is not known`
  const w = wordsOf(l, d, nozzle)
  switch (l.key) {
    case 'nozzle temperature':
    case 'bed':
      return `the limit of the ${w.decides} is ${w.allowed}, it asks ${w.asked}${l.key === 'bed' ? ' of the bed' : ''}`
    case 'chamber part':
    case 'tube heat':
      return `the limit of the ${w.decides} is ${w.allowed}, the air there would be ${w.asked}`
    case 'nozzle':
      return l.code === 'none fitted'
        ? 'no nozzle is fitted'
        : `${d.filler} wears a ${nozzle?.material ?? 'soft'} nozzle fast`
    case 'bore':
      return `it needs a bore of ${mm(l.asked)}, fitted is ${w.allowed}`
    case 'gears':
      return 'the drive gears are not hardened'
    case 'bend':
      return `the feed tube bends to ${w.allowed}, it needs ${w.asked}`
    case 'surface':
      return `it does not hold on ${w.allowed}`
    case 'enclosure':
      return l.code === 'lid off' ? 'this practice needs the lid on' : 'this practice needs an enclosure'
    case 'chamber':
      return l.code === 'too warm'
        ? `the chamber gets ${w.allowed} warm, it takes ${w.asked}`
        : `it needs ${w.asked} in the chamber, which holds ${w.allowed}`
    case 'dryer':
      return l.code === 'none' ? 'there is no dryer' : `the dryer reaches ${w.allowed}, it is dried at ${w.asked}`
    case 'ventilation':
      return `it asks ${w.asked}, there is ${w.allowed}`
    default:
      return w.what.toLowerCase()
  }
}
