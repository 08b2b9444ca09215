/** Words of this folder: a procedure is a list of steps, a tick is one of them done. °C, mm, N·m. */

import type { Guard } from '../chamber'

/** A hazard at its step. */
export interface Hazard {
  hazard: string
  what: string
}

/** What a person enters at a step. */
export type Field = {
  key: string
  label: string
  /** Under the field: what it is for. */
  help: string
  required: boolean
} & (
  | { kind: 'number'; unit: string; low: number; high: number }
  | { kind: 'choice'; choices: readonly { value: string; text: string }[] }
  | { kind: 'text' }
  /** A picture, by the hash of its bytes. */
  | { kind: 'photo' }
)

/** A heater whose reading a step waits for. */
export interface Wait {
  heater: 'nozzle' | 'bed' | 'chamber'
  /** Which head, from 0, as the printer counts them. */
  head: number
  /** What is set, and waited for, °C. */
  setC: number
}

/** A record that must be there since the procedure began; a tick alone is no proof. */
export interface Proof {
  of: 'cut-out test' | 'sensor check' | 'chamber' | 'nozzle' | 'level'
  guard: Guard | null
  headId: number | null
  /** The step since which it counts; absent: since the procedure began. */
  since?: string
}

export interface Step {
  /** Names it within its procedure. */
  key: string
  title: string
  says: readonly string[]
  hazards: readonly Hazard[]
  fields: readonly Field[]
  wait: Wait | null
  proof: Proof | null
  /** Fields of steps before it whose values are shown again here. */
  recalls?: readonly string[]
  /** Steps that come first; null: all before it in the list. */
  after: readonly string[] | null
}

/** What was entered at a step, by the key of its field; what was left empty is null. */
export type Values = Readonly<Record<string, string | number | null>>

/** What a heater showed, and when, ms since 1970. */
export interface Reading {
  c: number
  atMs: number
}

/** A step that is done. */
export interface Ticked {
  step: string
  values: Values
}
