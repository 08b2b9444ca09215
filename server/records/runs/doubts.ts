/** What is asked before a run is stored, because it can hardly be so: twice, two at once, too much, a late nozzle. */
import { during, meanFlowMm3S, overlap, sameRun, spanOf, type PassedThrough } from '#core/runs'
import { flow as flowWords, grams } from '#core/words'
import type { Question } from '#shared/problem'
import { firstAfter, type Logged, type RunFacts } from './facts'

/** What one tool of the run put through one head. */
export interface Passing {
  tool: number
  headId: number
  nozzle: string
  /** When the nozzle came to sit there; null when it did not sit there at the end. */
  fittedAt: string | null
  extrudedG: number
  densityGCm3: number | null
  materialName: string
}
/** Nothing that is printed is denser than this, g/cm³: a mass whose density nobody knows has at least this volume. */
const DENSEST_G_CM3 = 8

export function doubtsOfRun(
  { logged, highestFlowMm3S: highest }: RunFacts,
  run: { hours: number | null; endedAt: Date },
  passed: readonly Passing[],
): Question[] {
  return passed.flatMap((p, i) => {
    const mine = { toMs: run.endedAt.getTime(), hours: run.hours, material: p.materialName, extrudedG: p.extrudedG }
    const asked = [
      tooMuch(mine, p, `tools.${i}`, highest),
      twiceOrAtOnce(mine, logged.get(p.headId)!),
      fittedLate(mine, p, `tools.${i}`),
    ]
    return asked.flatMap(q => (q ? [{ ...q, code: `${q.code}:${p.tool}` }] : []))
  })
}
/** In UTC: the page says it on the shop's clock. */
const at = (ms: number) => new Date(ms).toISOString()
type Asked = { code: string; field: string; message: string } | null

function tooMuch(mine: PassedThrough, p: Passing, field: string, highest: number): Asked {
  if (mine.hours === null) return null
  const mean = meanFlowMm3S((p.extrudedG / (p.densityGCm3 ?? DENSEST_G_CM3)) * 1000, mine.hours)
  if (mean <= highest) return null
  return {
    code: 'flow',
    field: `${field}.amount`,
    message:
      `${grams(p.extrudedG)} in ${mine.hours} h is ${flowWords(mean)} all the way; nothing here passes more than ` +
      `${flowWords(highest)}. Are the amount and the hours right?`,
  }
}

/** All that ended since shortly before it began are looked at; of those after it the first ones. */
const LOOKED_AT = 100
const SHORTLY_MS = 3_600_000
function twiceOrAtOnce(mine: PassedThrough, onHead: readonly Logged[]): Asked {
  const from = spanOf(mine)?.fromMs ?? mine.toMs
  const first = firstAfter(onHead, from - SHORTLY_MS)
  const others = onHead.slice(first, Math.max(first, firstAfter(onHead, mine.toMs)) + LOOKED_AT)
  const twice = others.find(o => sameRun(mine, o))
  if (twice)
    return {
      code: 'same-run',
      field: 'endedAt',
      message:
        `${grams(twice.extrudedG)} of ${twice.material} is logged there already: “${twice.name}”, ended ` +
        `${at(twice.toMs)}, by ${twice.person}. Is this another run?`,
    }
  const both = others.find(o => overlap(mine, o))
  if (!both) return null
  return {
    code: 'overlap',
    field: 'endedAt',
    message:
      `“${both.name}” took this head ${both.hours} h until ${at(both.toMs)}; this run would have begun ` +
      `${at(from)} and ended ${at(mine.toMs)}. Is that right?`,
  }
}

function fittedLate(mine: PassedThrough, p: Passing, field: string): Asked {
  if (p.fittedAt === null || !during(Date.parse(p.fittedAt), mine)) return null
  return {
    code: 'fitted-late',
    field: `${field}.nozzleId`,
    message:
      `${p.nozzle} was fitted ${p.fittedAt}, after this run had begun (` +
      `${at(spanOf(mine)!.fromMs)}). Did all of it go through ${p.nozzle}?`,
  }
}
