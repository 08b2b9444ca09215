/** Reckons a plan of an enclosure in the background: the page stays at hand while it is typed. */
import { expose } from 'comlink'
import { planOutcome, powerFor, type Outcome, type Planning, type Span } from '#core/chamber'
import { InputError } from '#core/numeric'

export interface PlanAnswer {
  outcome: Outcome | null
  /** What a chamber heater must bring for the target, W; null where none is asked. */
  power: Span | null
  error: { field: string; allowed: string } | null
}

function plan(q: Planning, targetMeanC: number | null): PlanAnswer {
  try {
    const outcome = planOutcome(q)
    const power = targetMeanC === null ? null : powerFor(q.then, outcome.fits, targetMeanC)
    return { outcome, power, error: null }
  } catch (e) {
    if (e instanceof InputError) return { outcome: null, power: null, error: { field: e.field, allowed: e.allowed } }
    throw e
  }
}
export type PlanWorker = typeof worker
const worker = { plan }
expose(worker)
