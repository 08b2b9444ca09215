/** One tool of a run as the form holds it. */
import type { RunEntry } from '#shared/entries/runs'

/** What is typed of one tool. */
export interface ToolForm {
  tool: number
  headId: number | null
  nozzleId: number | null
  spoolId: number | null
  materialId: number | null
  setC: number | null
  way: 'grams' | 'metres' | 'weights'
  grams: number | null
  metres: number | null
  beforeG: number | null
  afterG: number | null
}
export const newTool = (tool: number): ToolForm => ({
  tool,
  headId: null,
  nozzleId: null,
  spoolId: null,
  materialId: null,
  setC: null,
  way: 'grams',
  grams: null,
  metres: null,
  beforeG: null,
  afterG: null,
})

/** An amount as the form types it, and back. */
export function typedAmount(a: RunEntry['tools'][number]['amount']): Partial<ToolForm> {
  if (a.kind === 'grams') return { way: 'grams', grams: a.grams }
  if (a.kind === 'metres') return { way: 'metres', metres: a.metres }
  return a.kind === 'weights' ? { way: 'weights', beforeG: a.beforeG, afterG: a.afterG } : {}
}
export function amountOf(t: ToolForm) {
  if (t.way === 'grams') return { kind: 'grams', grams: t.grams }
  if (t.way === 'metres') return { kind: 'metres', metres: t.metres }
  return { kind: 'weights', beforeG: t.beforeG, afterG: t.afterG }
}
