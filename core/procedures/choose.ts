/**
 * Which nozzle to take from the shelf: one that every coming job runs with, of the bore that the files were made for,
 * with enough left for them. Source: common practice, no source; what a filament asks of a nozzle, `limits`.
 */
import {
  checkStack,
  nozzleKind,
  reason,
  stackOf,
  type Demand,
  type FittedNozzle,
  type Line,
  type Printer,
  type Rules,
} from '../limits'
import { CHANCE, need, needEach } from '../numeric'
import { capital, chance, grams, kg, listed } from '../words'
import { byKeys } from './order'

/** A nozzle that could be taken. */
export interface Candidate {
  nozzle: FittedNozzle
  /** Fibre left until a limit, g; null where nothing filled went through or no rule tells. */
  left: { low80G: number; medianG: number } | null
  pastChance: number
  /** Why it is not fitted without asking: broken, or rather past its limit (`wornOut`); null when neither. */
  worn: string | null
}

/** A job or filament that comes next on this head. */
export interface Coming {
  name: string
  /** Its practices on this printer; one is enough. */
  demands: readonly Demand[]
  /** Fibre that it takes, g; null when it is not known. */
  fibreG: number | null
}

export interface Choice {
  nozzle: FittedNozzle
  /** Nothing speaks against it. */
  good: boolean
  /** In words: what speaks for it, or against it. */
  says: string[]
}

const OF_NOZZLE: readonly Line['key'][] = ['nozzle', 'nozzle insert', 'bore', 'nozzle temperature']

/** The practice with the fewest lines that speak against this nozzle, and these lines. */
function against(printer: Printer, headId: number, c: Candidate, job: Coming, rules: Rules) {
  const heads = printer.heads.map(h => (h.id === headId ? { ...h, nozzle: { ...c.nozzle, headId } } : h))
  const stack = stackOf({ ...printer, heads }, headId)
  let best: { short: Line[]; look: Line[]; demand: Demand } | null = null
  for (const demand of job.demands) {
    const lines = checkStack(stack, demand, rules).lines.filter(l => OF_NOZZLE.includes(l.key))
    const short = lines.filter(l => l.status === 'short')
    if (best === null || short.length < best.short.length)
      best = { short, look: lines.filter(l => l.status === 'look'), demand }
  }
  return best
}

/**
 * The nozzles in the order in which to take them, each with why. `boreMm` is the nominal bore that the job files were
 * made for (that of the nozzle now fitted), null when it is not known. Fibre in g, chances 0 to 1. Throws InputError.
 */
export function rankNozzles(
  printer: Printer,
  headId: number,
  boreMm: number | null,
  candidates: readonly Candidate[],
  coming: readonly Coming[],
  rules: Rules,
): Choice[] {
  for (const c of candidates) {
    need('pastChance', c.pastChance, ...CHANCE)
    if (c.left) needEach(c.left, ['low80G', 'medianG'], 0, Infinity, 'g')
  }
  needEach({ boreMm }, ['boreMm'], 0.01, 5, 'mm')
  for (const j of coming) needEach(j, ['fibreG'], 0, 1e9, 'g')
  // what speaks against one speaks against the others of its kind
  const kinds = new Map(candidates.map(c => [nozzleKind(c.nozzle), c]))
  const found = new Map([...kinds].map(([kind, c]) => [kind, coming.map(j => against(printer, headId, c, j, rules))]))
  const judged = candidates.map(c => ({ c, jobs: found.get(nozzleKind(c.nozzle))! }))
  // what is short whichever is taken is the printer's, not the nozzle's
  const always = coming.map(
    (_, i) => judged.length > 0 && judged.every(x => x.jobs[i]?.short.some(l => l.key === 'nozzle temperature')),
  )
  const fibreG = coming.reduce((sum, j) => sum + (j.fibreG ?? 0), 0)
  return judged
    .map(({ c, jobs }) => {
      const bad = jobs.map((j, i) => (j?.short ?? []).filter(l => !(always[i] && l.key === 'nozzle temperature')))
      const looks = jobs.flatMap(j => j?.look ?? []).length
      const runs = coming.filter((_, i) => bad[i]!.length === 0).map(j => j.name)
      const sameBore = boreMm === null || Math.abs(c.nozzle.boreMm - boreMm) < 1e-6
      const enough = c.left === null || c.left.low80G >= fibreG
      const says = [
        ...(c.worn === null ? [] : [`${capital(c.worn)}.`]),
        ...bad.flatMap((lines, i) =>
          lines.slice(0, 1).map(l => `${coming[i]!.name}: ${reason(l, jobs[i]!.demand, c.nozzle)}.`),
        ),
        ...(sameBore ? [] : [`Files for ${boreMm} mm have to be made again for ${c.nozzle.boreMm}.`]),
        ...leftWords(c, fibreG, enough),
      ]
      const good = c.worn === null && bad.every(b => b.length === 0) && sameBore && enough
      if (good && runs.length > 0) says.unshift(`Good for ${listed(runs.slice(0, 3), 'and')}.`)
      const key = [Number(c.worn === null), runs.length, Number(sameBore), Number(enough), -looks, c.left?.medianG ?? 0]
      return { choice: { nozzle: c.nozzle, good, says }, key, tag: c.nozzle.tag }
    })
    .sort(byKeys)
    .map(x => x.choice)
}

function leftWords(c: Candidate, fibreG: number, enough: boolean): string[] {
  if (c.left === null)
    return [
      c.pastChance > 0.005
        ? `${chance(c.pastChance)} chance that it is past its limit.`
        : 'No filled job through it yet.',
    ]
  if (!enough) return [`Perhaps ${grams(c.left.low80G)} of fibre left; the coming jobs take ${grams(fibreG)}.`]
  return [c.left.medianG < 1e6 ? `About ${kg(c.left.medianG / 1000)} of fibre left.` : 'Far from its limit.']
}
