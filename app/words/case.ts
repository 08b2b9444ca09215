/** What is said of a case. */
import {
  answerWords,
  NOT_ASKED,
  NOT_THERE,
  PROBABLE_FROM,
  signWords,
  TESTS,
  THERE,
  type Review,
  type TestName,
} from '#core/diagnosis'
import { capital, counted, duration } from '#core/words'
import type { CaseLine, CasePage } from '#shared/answers/diagnosis'
import type { Piece } from '~/lib/case'

/** The case in a sentence. */
export function caseSentence(c: CaseLine): string {
  if (c.struck) return `Struck out by ${c.struck.person}: ${c.struck.reason}.`
  if (c.closing) return `It was ${c.closing.cause}, ${knownWords(c.closing.known)}.`
  return c.answer ? answerWords(c.answer) : ''
}
export const knownWords = (known: NonNullable<CaseLine['closing']>['known']): string =>
  known === 'assumed' ? 'as it is assumed' : `proved ${known}`

/** In the list, short. */
export function caseStand(c: CaseLine): string {
  if (c.struck) return 'struck out'
  if (c.closing) return `closed: ${c.closing.cause}, ${c.closing.known}`
  if (c.answer === null) return 'open'
  if (c.answer.cause === null) return 'open: not enough to tell'
  return `open: ${c.answer.order[0]!.chance >= PROBABLE_FROM.probably ? 'probably' : 'perhaps'} ${c.answer.cause}`
}

export const caseTitle = (c: Pick<CaseLine, 'place' | 'seen' | 'run'>): string =>
  `${c.seen.length === 0 ? 'What is wrong' : capital(c.seen.slice(0, 2).join(', '))} on ${c.place}`

/** How often it was right, by what was proved. */
export function reviewWords(r: Review): string {
  if (r.closed === 0)
    return 'No case is closed yet: how likely each cause is rests on common practice. Cases that you close teach it.'
  if (r.proved === 0)
    return `${counted(r.closed, 'case')} closed, none of them proved: nobody knows how often it was right.`
  const silent = r.proved - r.named
  return (
    `Of ${counted(r.proved, 'proved case')} it named the cause in ${r.right}` +
    `${r.named > r.right ? `, a wrong one in ${r.named - r.right}` : ''}` +
    `${silent > 0 ? `, and none in ${silent}` : ''}; before any test it had the right one in front in ${r.rightBefore}.`
  )
}

/** How a sign stands. */
export const STATE_WORDS: Readonly<Record<string, string>> = {
  [THERE]: 'there',
  [NOT_THERE]: 'looked for, not there',
  [NOT_ASKED]: 'not asked',
}

/** A piece of evidence in words, with what the records say. */
export function pieceWords(x: Pick<Piece, 'kind' | 'key' | 'state' | 'records' | 'found'>): string {
  if (x.found === null && x.records !== null)
    return x.kind === 'test' ? `${testWords(x.key)}: ${x.state}. ${x.records}` : x.records
  return x.kind === 'test' ? `${testWords(x.key)}: ${x.state}.` : signWords(x.key, x.state)
}
export const testWords = (name: string): string => TESTS[name as TestName].what
export const minutesWords = (minutes: number): string => duration(minutes * 60)

/** What it was said to be when it was closed, and whether that was it. */
export function saidWords(c: CasePage): string {
  if (!c.closing || !c.answer) return ''
  const said = answerWords(c.answer)
  if (c.answer.cause === null) return `When it was closed this page said: “${said}”`
  const was = c.answer.cause === c.closing.cause ? 'and that was it' : 'and that was not it'
  const surely = c.closing.known === 'assumed' ? ', as far as anybody knows' : ''
  return `When it was closed this page said: “${said}” ${capital(was)}${surely}.`
}
