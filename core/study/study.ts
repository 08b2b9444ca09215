/**
 * A gauge study as a whole: how sure one reading is, what change it can tell, and what it says of every gauge by the
 * same method. Only the random part: an error that all readings share (a pin's certificate, the scale of a set-up) does
 * not show between repeats and stays as it is.
 * Source of 2.8: 1.96·√2, the difference that two readings exceed one time in twenty (ISO 5725-6, from memory).
 */
import { InputError, need, needEach } from '../numeric'
import { BORE_MM, LEAST_RANDOM_MM, PIN_U_MM } from '../wear'
import { crossed } from './anova'
import { componentsOf, type Components, type Part } from './components'
import { pinScatter, type PinPair, type PinScatter } from './pins'
import { STUDY_REPEATS } from './plan'

/** What a study gauges with. */
export const STUDY_METHODS = ['pins', 'picture'] as const
export type StudyMethod = (typeof STUDY_METHODS)[number]

/** A pair of pins, or a bore from a picture, mm. */
export type StudyReading = PinPair | { valueMm: number }

/** Readings as [person][nozzle][round]; null where none stands yet. */
export type StudyReadings = readonly (readonly (readonly (StudyReading | null)[])[])[]

/** A change this many standard uncertainties large shows between two readings. */
export const TELLS_AT = 2.8

export interface StudyResult {
  /** Rounds that are whole: all else waits. */
  rounds: number
  /** The list is worked off. */
  isWhole: boolean
  /** Why nothing is told; null when something is. */
  cannotTell: 'fewer than two whole rounds' | 'every repeat is the same number' | null
  components: Components | null
  /** Typical step between the pins of a reading, mm: the root of its mean square; null for pictures. */
  stepMm: number | null
  /** Scatter of the decision with a pin; null for pictures. */
  decision: PinScatter | null
  /** Smallest change that two readings tell, mm: by the same person, and by anybody (null for one person). */
  tellsMm: { samePerson: number; anybody: number | null } | null
  /** The random part that gauges by this method have from now on, mm; null: it sets nothing. */
  setsMm: number | null
}

/** A line of a list with what stands in it; people and nozzles by any number that names them. */
export interface ReadLine {
  personId: number
  nozzleId: number
  round: number
  reading: StudyReading | null
}

/** The lines of a list in their places: [person][nozzle][round], people and nozzles by their numbers. */
export function inOrder(lines: readonly ReadLine[]): StudyReadings {
  for (const l of lines) need('round', l.round, 0, STUDY_REPEATS[1] - 1)
  const all = (of: 'personId' | 'nozzleId') => [...new Set(lines.map(l => l[of]))].sort((a, b) => a - b)
  const [people, nozzles] = [all('personId'), all('nozzleId')]
  const repeats = Math.max(0, ...lines.map(l => l.round)) + 1
  const table = people.map(() => nozzles.map(() => Array<StudyReading | null>(repeats).fill(null)))
  for (const l of lines) table[people.indexOf(l.personId)]![nozzles.indexOf(l.nozzleId)]![l.round] = l.reading
  return table
}

/** A reading as it is stored or typed, with the fields of both methods, mm: the bore, or both pins. */
export function studyReading(r: { goMm: number | null; noGoMm: number | null; valueMm: number | null }): StudyReading {
  needEach(r, ['goMm', 'noGoMm', 'valueMm'], ...BORE_MM, 'mm')
  return r.valueMm === null ? { goMm: r.goMm!, noGoMm: r.noGoMm! } : { valueMm: r.valueMm }
}

/** The bore that a reading stands for, mm: what the picture showed, or the middle of the pins. */
export function readBoreMm(r: StudyReading): number {
  const mm = 'valueMm' in r ? r.valueMm : (r.goMm + r.noGoMm) / 2
  need('readings', mm, ...BORE_MM, 'mm')
  return mm
}

/** What a study tells. Readings in mm within BORE_MM, of one method throughout. */
export function studyResult(method: StudyMethod, readings: StudyReadings): StudyResult {
  for (const r of readings.flat(2)) {
    if (r === null) continue
    if ('valueMm' in r !== (method === 'picture')) throw new InputError('readings', method, 'readings of one method')
    readBoreMm(r)
  }
  const asked = readings[0]?.[0]?.length ?? 0
  const whole = Array.from({ length: asked }, (_, k) => k).filter(k => readings.every(p => p.every(n => n[k] !== null)))
  const nothing = {
    rounds: whole.length,
    isWhole: whole.length === asked,
    components: null,
    stepMm: null,
    decision: null,
    tellsMm: null,
    setsMm: null,
  }
  if (whole.length < 2) return { ...nothing, isWhole: false, cannotTell: 'fewer than two whole rounds' }
  const used = readings.map(p => p.map(n => whole.map(k => n[k]!)))
  const square = crossed(used.map(p => p.map(n => n.map(readBoreMm))))
  // a picture's reading is a number of thousandths; the same one throughout was not measured anew
  if (method === 'picture' && square.repeats.square === 0)
    return { ...nothing, cannotTell: 'every repeat is the same number' }
  const pins = method === 'pins' ? (used as PinPair[][][]) : null
  const stepMm = pins && rootMeanSquare(pins.flat(2).map(r => r.noGoMm - r.goMm))
  const stepSd = stepMm === null ? 0 : stepMm / Math.sqrt(12)
  const found = componentsOf(square, stepSd)
  const components = pins ? noSurerThanPins(found, stepSd, pinScatter(pins.flat())) : found
  const decision = pins && pinScatter(pins[0]!.map((_, n) => pins.flatMap(p => p[n]!)))
  const random = decision ? decisionMm(decision) : Math.max(LEAST_RANDOM_MM, components.reading.sd)
  return {
    ...nothing,
    cannotTell: null,
    components,
    stepMm,
    decision,
    tellsMm: {
      samePerson: TELLS_AT * components.repeatability.sd,
      anybody: components.reproducibility && TELLS_AT * components.reading.sd,
    },
    setsMm: nothing.isWhole ? random : null,
  }
}

/**
 * Repeats that all agree leave no scatter to draw a range from; how far a decision may scatter all the same, by one
 * person at one nozzle, is what their intervals leave open.
 */
function noSurerThanPins(c: Components, stepSd: number, within: PinScatter): Components {
  const most = Math.hypot(stepSd, within.highMm)
  const open = (p: Part): Part => ({ ...p, high80: Math.max(p.high80, most) })
  return { ...c, repeatability: open(c.repeatability), reading: open(c.reading) }
}

/**
 * What a pin's decision counts with, mm: its scatter; without any, the most it can be, where that says more than the
 * pin's own uncertainty; null where the pins are too coarse to tell.
 */
function decisionMm(d: PinScatter): number | null {
  if (d.sdMm > 0) return d.sdMm
  return d.highMm <= PIN_U_MM ? d.highMm : null
}

const rootMeanSquare = (x: readonly number[]) => Math.sqrt(x.reduce((s, v) => s + v * v, 0) / x.length)
