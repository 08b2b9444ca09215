/**
 * Which step comes next, what keeps one from being ticked, and whether a heater is where a step waits for it. Steps are
 * done in their order, or after the steps they name. Source: common practice, no source.
 */
import { AT_MS, need } from '../numeric'
import { celsius, listed } from '../words'
import type { Field, Proof, Reading, Step, Ticked, Values, Wait } from './types'

/** A reading older than this tells nothing, ms. */
export const FRESH_MS = 10_000
/** So near to what is set a heater is there, °C. */
export const NEAR_C = 3
/** What a person may read at a heater, °C. */
export const READ_C = [-60, 700] as const
/** The most characters of a field of words. */
export const WORDS_LONG = 300

/** The steps that must be ticked before this one, and are not. */
export function missingBefore(steps: readonly Step[], ticked: readonly Ticked[], key: string): Step[] {
  const at = steps.findIndex(s => s.key === key)
  if (at < 0) return []
  const first = steps[at]!.after ?? steps.slice(0, at).map(s => s.key)
  return steps.filter(s => first.includes(s.key) && !ticked.some(t => t.step === s.key))
}

export interface Progress {
  done: number
  of: number
  /** What can be done now, in the order of the list. */
  open: Step[]
  /** What keeps it from being finished. */
  missing: Step[]
}

/**
 * How far a procedure is. Ticks of steps that it does not have count for nothing.
 *
 * @example
 * progress([], []).missing.length // 0
 */
export function progress(steps: readonly Step[], ticked: readonly Ticked[]): Progress {
  const missing = steps.filter(s => !ticked.some(t => t.step === s.key))
  return {
    done: steps.length - missing.length,
    of: steps.length,
    open: missing.filter(s => missingBefore(steps, ticked, s.key).length === 0),
    missing,
  }
}

export interface FieldFault {
  field: string
  message: string
}

const EMPTY_SAYS: Record<Field['kind'], string> = {
  number: 'Enter it',
  text: 'Enter it',
  choice: 'Choose one',
  photo: 'Take a picture',
}
/** What is wrong with what was entered at a step: a field left empty that is asked for, a number outside its range. */
export function valueFaults(step: Step, values: Values): FieldFault[] {
  const out: FieldFault[] = []
  for (const f of step.fields) {
    const value = values[f.key] ?? null
    const say = (message: string) => out.push({ field: f.key, message })
    if (value === null || value === '') {
      if (f.required) say(EMPTY_SAYS[f.kind])
      continue
    }
    if (f.kind === 'number') {
      if (typeof value !== 'number' || Number.isNaN(value)) say('Enter a number')
      else if (value < f.low || value > f.high) say(`Between ${f.low} and ${f.high}${f.unit ? ` ${f.unit}` : ''}`)
    } else if (f.kind === 'photo') {
      if (typeof value !== 'string' || !/^[0-9a-f]{64}$/.test(value)) say('Take a picture')
    } else if (typeof value !== 'string') say('Enter it in words')
    else if (f.kind === 'choice' && !f.choices.some(c => c.value === value))
      say(`One of: ${listed(f.choices.map(c => c.text))}`)
    else if (f.kind !== 'choice' && value.length > WORDS_LONG) say(`At most ${WORDS_LONG} characters`)
  }
  for (const key of Object.keys(values))
    if (!step.fields.some(f => f.key === key)) out.push({ field: key, message: 'This step asks no such thing' })
  return out
}

/** Whether a heater is where a step waits for it, by the last thing it showed. */
export type WaitState =
  /** Nobody knows: never read, or longer ago than `FRESH_MS`. */
  { kind: 'not known' } | { kind: 'cold' | 'there' | 'too hot'; nowC: number }

/** More than this above what is set is too hot: what is turned or touched then is not what the step says, °C. */
const OVER_C = 15

/**
 * Whether a wait is over, at `nowMs` (ms since 1970). Only a reading of the last 10 s counts, and one from the future
 * by as much, since clocks differ. Throws InputError.
 *
 * @example
 * const wait = { heater: 'nozzle', head: 0, setC: 245 }
 * waitState(wait, { c: 243, atMs: 0 }, 11_000).kind // "not known"
 */
export function waitState(wait: Wait, reading: Reading | null, nowMs: number): WaitState {
  need('nowMs', nowMs, ...AT_MS, 'ms')
  need('setC', wait.setC, 0, 600, '°C')
  if (reading === null) return { kind: 'not known' }
  need('reading.atMs', reading.atMs, ...AT_MS, 'ms')
  if (Math.abs(nowMs - reading.atMs) > FRESH_MS) return { kind: 'not known' }
  return byHand(wait, reading.c)
}

/** The same for what a person reads at the printer, °C; any temperature a heater may show. */
export function byHand(wait: Wait, nowC: number): Exclude<WaitState, { kind: 'not known' }> {
  need('setC', wait.setC, 0, 600, '°C')
  need('nowC', nowC, ...READ_C, '°C')
  if (nowC < wait.setC - NEAR_C) return { kind: 'cold', nowC }
  return { kind: nowC > wait.setC + OVER_C ? 'too hot' : 'there', nowC }
}

/** The same while it is typed: not known before it is a reading, °C. */
export const typedState = (wait: Wait, typed: unknown): WaitState =>
  typeof typed === 'number' && typed >= READ_C[0] && typed <= READ_C[1] ? byHand(wait, typed) : { kind: 'not known' }

/** What is said while no record proves a step. */
export function unproved(proof: Proof): string {
  const since = proof.since === undefined ? 'since this began' : 'since it was fitted'
  switch (proof.of) {
    case 'cut-out test':
      return `No test ${since} in which the ${proof.guard} tripped`
    case 'sensor check':
      return `No check of this sensor ${since}`
    case 'chamber':
      return `No warm-up and no survey ${since}`
    case 'nozzle':
      return 'No nozzle is logged in it'
    case 'level':
      return 'The bed was not measured since it was heated'
  }
}

const HEATER_WORDS = { nozzle: 'The nozzle', bed: 'The bed', chamber: 'The chamber' } as const
/** What a wait says beside its step: "wait: 212 of 245 °C". */
export function waitWords(wait: Wait, s: WaitState): string {
  const heater = HEATER_WORDS[wait.heater]
  switch (s.kind) {
    case 'not known':
      return `${heater} is not read now.`
    case 'cold':
      return `wait: ${Math.round(s.nowC)} of ${celsius(wait.setC)}`
    case 'there':
      return `${heater} shows ${Math.round(s.nowC)} °C: it is there.`
    case 'too hot':
      return `${heater} shows ${Math.round(s.nowC)} °C, more than the ${celsius(wait.setC)} of this step: set it lower.`
  }
}
