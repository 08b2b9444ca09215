/** A flow bench in words: whose blob it is, what is sustained, what holds it back, what a level asks for. */
import { HOTTER_C, SHOWS, sustainedWords, type Compared, type LevelAsks } from '#core/flow'
import { celsius, counted, flow, listed, percent } from '#core/words'
import type { BenchPage, BenchRow, NozzleFlow } from '#shared/answers/flow'

const share = (v: number) => `${(v * 100).toFixed(1)} %`
/** A difference of shares with its 95 % range. */
const plusMinus = (v: number, u: number) => `${Math.abs(v * 100).toFixed(1)} ± ${(196 * u).toFixed(1)} %`

/** Several numbers in one field, with comma and space, semicolon or space between; NaN where one is none. */
export function typedNumbers(text: string): number[] {
  return text
    .split(/[;\s]+|,(?=\s)/)
    .map(t => t.replace(/,$/, ''))
    .filter(t => t !== '')
    .map(t => (/^\d+([.,]\d+)?$/.test(t) ? Number(t.replace(',', '.')) : NaN))
}

/** How a bench stands in a list. */
export function standWords(b: BenchRow): string {
  if (b.struck) return 'struck out'
  if (b.ended === null) return `${b.weighed} of ${b.blobs} blobs weighed`
  const [most] = [...b.sustained].sort((x, y) => y.temperatureC - x.temperatureC)
  return most ? `sustains ${sustainedWords(most)}` : 'ended early, tells nothing'
}

export const blobWords = (b: BenchPage, line: number) => {
  const l = b.lines[line]!
  return `Blob ${line + 1} of ${b.lines.length}: ${celsius(l.temperatureC)}, ${flow(l.flowMm3S)}.`
}

/** The verdict of a bench in one sentence. */
export function benchSentence(b: BenchPage): string {
  if (b.struck) return `Struck out by ${b.struck.person}: ${b.struck.reason}. Nothing goes by it.`
  const r = b.result
  if (r === null)
    return b.weighed === 0
      ? 'Nothing is weighed yet. Save the job file, run it, and weigh each blob as it comes.'
      : 'It tells something once each temperature has two flows.'
  const sustains = listed(r.sustained.map(sustainedWords), 'and')
  return `${b.nozzle} on ${b.place} sustains ${sustains} of ${b.material}, ${percent(b.accepted)} delivered.`
}

/** What holds the head back, and what would tell more. */
export function limitWords(b: BenchPage): { says: string; next: string } | null {
  const l = b.limit
  if (l === null) return null
  const others = listed(
    l.against.filter(a => a.compared).map(a => a.nozzle),
    'and',
  )
  const hotter =
    `Bench it ${HOTTER_C} °C hotter as well, as far as all limits allow: if the fall moves, it melts too slowly; ` +
    'if it stays, the grip gives way.'
  const next = {
    'hotter': hotter,
    'another nozzle': 'Bench another nozzle on this head with the same spool: if it falls alike, it is the grip.',
    'faster': 'Only faster blobs would tell where it falls.',
    'repeat': 'Repeat it with more blobs of each, or longer ones.',
  }
  return { says: limitSays(b, others), next: l.next === null ? '' : next[l.next] }
}

function limitSays(b: BenchPage, others: string): string {
  const { limit, move } = b.limit!
  const by = move && `${celsius(move.hotC - move.coolC)} hotter the fast blobs gained ${plusMinus(move.gain, move.u)}`
  if (limit === 'nothing falls short') return 'No flow that was tried falls short.'
  if (limit === 'melting')
    return `The hotend melts no faster: ${by}. A hotter setpoint within all limits, or a longer melt zone, gives more.`
  if (limit === 'grip')
    return (
      `The extruder’s grip gives way: ${by}, and ${others} falls off alike. ` +
      'Look at tension, gears and filament path.'
    )
  if (limit === 'grip or this nozzle')
    return `Not melting: ${by}. It is the extruder’s grip, or something in ${b.nozzle}.`
  if (limit === 'this nozzle') return `It is ${b.nozzle}: ${others} delivers more on this head with the same spool.`
  if (limit === 'not this nozzle') return `Not the nozzle: ${others} falls off alike on this head. Melting or grip.`
  return move
    ? `Cannot tell melting from grip: ${by}.`
    : 'Cannot tell yet what holds it back: one temperature, one nozzle.'
}

/** What a level that all flows share asks for. */
export function levelWords(b: BenchPage): { says: string; fix: string } | null {
  if (b.level === null || b.result === null) return null
  const { off, left, asks } = b.level
  const side = off < 0 ? 'less' : 'more'
  const says = `Even the slowest blobs deliver ${share(Math.abs(off))} ${side} than the record of ${b.spool} says.`
  if (asks.kind === 'fine') return Math.abs(off) < 0.005 ? null : { says, fix: 'That is within what it can see.' }
  if (asks.kind === 'no level')
    return {
      says: 'The fall begins with the slowest flow: how much is fed is not seen apart from it.',
      fix: 'Bench slower flows, or measure the filament and a length mark.',
    }
  return { says, fix: fixWords(b, asks, left) }
}

function fixWords(b: BenchPage, asks: LevelAsks, left: number): string {
  if (asks.kind === 'calliper')
    return (
      'Alike at all flows, that is steps, diameter or density, not the nozzle. ' +
      'Calliper the filament in three places first.'
    )
  if (asks.kind === 'diameter')
    return `The filament is ${asks.mm.toFixed(3)} mm, not ${b.diameterMm}: correct the record of ${b.spool}.`
  if (asks.kind === 'mark')
    return (
      `By the callipers ${share(Math.abs(left))} are left. ` +
      'Mark a length and feed it: steps are set from a mark alone.'
    )
  if (asks.kind === 'steps')
    return `The mark says so too: set the extruder’s steps per mm to ${asks.factor.toFixed(4)} times what they are.`
  if (asks.kind === 'density')
    return (
      `Diameter and steps are right, so it is density: enter ${asks.gCm3.toFixed(3)} g/cm³ with ${b.spool}. ` +
      'Steps written from a blob would spoil every other spool.'
    )
  return ''
}

/** One bench against another. */
export function comparedWords(other: string, c: Compared): string {
  const by = `${counted(c.cells, 'cell')}, pair by pair`
  if (c.verdict !== 'no difference') return `${plusMinus(c.difference, c.u)} ${c.verdict} than ${other} (95 %, ${by}).`
  const shows = `No difference from ${other} that this balance can see (${by}); it would have shown ${share(c.shows)}.`
  return c.needs === null
    ? shows
    : `${shows} To show ${share(SHOWS)}: blobs of ${c.needs.metres} m, or ${counted(c.needs.repeats, 'blob')} of each.`
}

/** What a nozzle sustains, for its page: one line for each head and material. */
export function nozzleFlowWords(f: NozzleFlow): string {
  return `${listed(f.sustained.map(sustainedWords), 'and')}, ${f.material} on ${f.place}`
}
export const droppedWords = (d: { difference: number; u: number }) =>
  `Delivers ${plusMinus(d.difference, d.u)} less than at its own first bench here: something stands in its way since.`

/** What was weighed of a blob. */
export const weighedWords = (b: { massG: number; uG: number }) => `${b.massG.toFixed(3)} ± ${(2 * b.uG).toFixed(3)} g`
export { share as shareWords }
