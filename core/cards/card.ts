/**
 * What worked: one card for a material, a type of nozzle and a printer. Values come from runs that finished there, and
 * from a person's hand, which wins; a failed run is counted and sets nothing.
 * Source: common practice, no source.
 */
import { need, needEach, needIfKnown } from '../numeric'

interface Field {
  label: string
  unit: string
  range: readonly [number, number]
  /** Decimals it is said with. */
  digits: number
  /** A job that is further off than this from all that worked is told so; null: a job does not say it. */
  apart: number | null
}

const FIELDS = {
  nozzleC: { label: 'Nozzle', unit: '°C', range: [100, 600], digits: 0, apart: 5 },
  bedC: { label: 'Bed', unit: '°C', range: [0, 300], digits: 0, apart: 5 },
  chamberC: { label: 'Chamber', unit: '°C', range: [0, 250], digits: 0, apart: 5 },
  printMmS: { label: 'Print speed', unit: 'mm/s', range: [1, 1000], digits: 0, apart: null },
  peakMm3S: { label: 'Peak flow', unit: 'mm³/s', range: [0.1, 200], digits: 1, apart: null },
  firstLayerMmS: { label: 'First layer speed', unit: 'mm/s', range: [1, 300], digits: 0, apart: 5 },
  firstLayerMm: { label: 'First layer height', unit: 'mm', range: [0.02, 3], digits: 2, apart: 0.06 },
  fanPercent: { label: 'Part fan', unit: '%', range: [0, 100], digits: 0, apart: 15 },
  flowPercent: { label: 'Flow multiplier', unit: '%', range: [50, 150], digits: 1, apart: null },
  holdMin: { label: 'Hold after the print', unit: 'min', range: [0, 1440], digits: 0, apart: null },
  coolCPerMin: { label: 'Let down', unit: '°C/min', range: [0.05, 50], digits: 1, apart: null },
} satisfies Record<string, Field>
/** A number on a card, by name. */
export type CardKey = keyof typeof FIELDS
/** The numbers on a card, with their units and ranges. */
export const CARD_FIELDS: Readonly<Record<CardKey, Field>> = FIELDS
/** Their names in the order of the card. */
export const CARD_KEYS = Object.keys(CARD_FIELDS) as CardKey[]
/** Force that breaks a bar printed for the purpose, N. */
export const BOND_N = [0.1, 1e5] as const
/** Numbers of runs and jobs, as they were: a slip is to be told, not refused. */
export const ANY = [-1e9, 1e9] as const
/** Runs that a card counts. */
export const RUNS = [0, 1e9] as const

/** What finished runs used: lowest, middle, highest. */
export interface Found {
  low: number
  middle: number
  high: number
}
export type FoundValues = Partial<Record<CardKey, Found | null>>
export type HandValues = Partial<Record<CardKey, number | null>>

export interface CardValue {
  key: CardKey
  value: number
  by: 'hand' | 'runs'
  /** What the runs used besides; null where none told. */
  found: Found | null
}

/**
 * The values of a card, those that are known, in their order: a person's over the runs'. Throws InputError.
 *
 * @example
 * cardValues({ nozzleC: { low: 275, middle: 280, high: 280 } }, { fanPercent: 0 }).length // 2
 */
export function cardValues(found: FoundValues, hand: HandValues): CardValue[] {
  return CARD_KEYS.flatMap((key): CardValue[] => {
    const { range, unit } = CARD_FIELDS[key]
    const f = found[key] ?? null
    const h = hand[key] ?? null
    needIfKnown(key, h, ...range, unit)
    if (f) needEach(f, ['low', 'middle', 'high'], ...ANY, unit)
    if (h !== null) return [{ key, value: h, by: 'hand', found: f }]
    return f ? [{ key, value: f.middle, by: 'runs', found: f }] : []
  })
}

/** What a job file sets, as far as a card has it; `fanMax` as a share. Throws InputError. */
export function ofJob(job: {
  nozzleC: number | null
  bedC: number | null
  chamberC: number | null
  fanMax: number | null
  firstLayer: { heightMm: number; meanMmS: number } | null
}): HandValues {
  needEach(job, ['nozzleC', 'bedC', 'chamberC', 'fanMax'], ...ANY)
  if (job.firstLayer) needEach(job.firstLayer, ['heightMm', 'meanMmS'], ...ANY)
  return {
    nozzleC: job.nozzleC,
    bedC: job.bedC,
    chamberC: job.chamberC,
    fanPercent: job.fanMax === null ? null : job.fanMax * 100,
    firstLayerMmS: job.firstLayer?.meanMmS ?? null,
    firstLayerMm: job.firstLayer?.heightMm ?? null,
  }
}

/** A job against a card: where it is as it worked, and where not. */
export interface Compared {
  same: CardKey[]
  differs: { key: CardKey; job: number; low: number; high: number }[]
}

/**
 * What a job sets against what worked: outside all that runs used, or away from what a person wrote, by more than a
 * field's own measure. A job that does not say a value is not compared. Throws InputError.
 *
 * @example
 * const card = cardValues({}, { nozzleC: 280, bedC: 100 })
 * compareJob(card, { nozzleC: 262, bedC: 100 }).differs[0].key // "nozzleC"
 */
export function compareJob(card: readonly CardValue[], job: HandValues): Compared {
  const out: Compared = { same: [], differs: [] }
  for (const v of card) {
    const { apart } = CARD_FIELDS[v.key]
    need('value', v.value, ...ANY)
    if (v.found) needEach(v.found, ['low', 'middle', 'high'], ...ANY)
    const set = job[v.key] ?? null
    if (set === null || apart === null) continue
    need(v.key, set, ...ANY)
    // what a person wrote stands alone: it was written because the runs were not right
    const [low, high] = v.by === 'hand' || v.found === null ? [v.value, v.value] : [v.found.low, v.found.high]
    if (set < low - apart || set > high + apart) out.differs.push({ key: v.key, job: set, low, high })
    else out.same.push(v.key)
  }
  return out
}

/**
 * How much of its strength a print keeps across its layers: force across over force along, N. Throws InputError.
 *
 * @example
 * bondShare(420, 210) // 0.5
 */
export function bondShare(alongN: number, acrossN: number): number {
  need('alongN', alongN, ...BOND_N, 'N')
  need('acrossN', acrossN, ...BOND_N, 'N')
  return acrossN / alongN
}

/** What the counts of a card say: most of what was tried here failed, it works, or nothing was tried. */
export type Tried = 'nothing tried' | 'works' | 'mostly fails'

/** Runs that finished and failed with this card's material, nozzle type and printer. */
export function recordOf(good: number, failed: number): Tried {
  need('good', good, ...RUNS)
  need('failed', failed, ...RUNS)
  if (good + failed === 0) return 'nothing tried'
  return failed > good ? 'mostly fails' : 'works'
}
