/** A gauge study in words: whose turn it is, what it tells, what gauges count with because of it. */
import { capital, counted, listed, mmNumber } from '#core/words'
import { inOrder, studyReading, studyResult, type Part, type StudyResult } from '#core/study'
import type { StudyLine, StudyTurn } from '#shared/answers/studies'
import { methodWords } from '~/words/effects'
import { inUm } from '~/words/picture'

/** A standard deviation with its 80 % range. */
export const partWords = (p: Part) => `${inUm(p.sd)} (80 %: ${inUm(p.low80)} to ${inUm(p.high80)})`

/** The result of a study as it stands. */
export const resultOf = (s: StudyLine): StudyResult =>
  studyResult(s.method, inOrder(s.lines.map(l => ({ ...l, reading: l.reading && studyReading(l.reading) }))))

export const readingWords = (r: { goMm: number | null; noGoMm: number | null; valueMm: number | null }) =>
  r.valueMm === null ? `${r.goMm} goes, ${r.noGoMm} does not` : `${r.valueMm.toFixed(4)} mm`

export const turnWords = (t: Pick<StudyTurn, 'line' | 'lines' | 'person' | 'tag'>) =>
  `Line ${t.line + 1} of ${t.lines}: ${t.person} gauges ${t.tag}.`

/** What a study tells, in one sentence. */
export function toldWords(s: StudyLine, r: StudyResult): string {
  if (r.cannotTell === 'every repeat is the same number')
    return 'Every repeat is the same number: nothing was measured anew, so the study tells nothing.'
  if (r.tellsMm === null) return 'It tells something once two whole rounds are read.'
  const { samePerson, anybody } = r.tellsMm
  const tells = anybody ?? samePerson
  const by = anybody === null ? 'the same person' : 'anybody'
  const start = `Two readings by ${by} tell a change of ${mmNumber(tells, 3)} mm`
  if (s.allowanceMm === null) return `${start}.`
  const steps = s.allowanceMm / tells
  const grow = `the ${mmNumber(s.allowanceMm, 3)} mm that its nozzles may grow`
  return steps < 1
    ? `${start}, more than ${grow}: two readings alone do not show wear before the limit.`
    : `${start}: ${steps < 9.5 ? steps.toFixed(1) : Math.round(steps)} such steps lie in ${grow}.`
}

/** What keeps it from telling more, and what was done about it. */
export function studyNotes(s: StudyLine, r: StudyResult): string[] {
  const c = r.components
  if (c === null) return []
  const out: string[] = []
  const n = s.people.length
  if (n === 1) out.push('One person alone: how far people differ is not known.')
  else if (n <= 3)
    out.push(
      `${n === 2 ? 'Two people give one degree' : 'Three people give two degrees'} of freedom: how far ` +
        `people differ is hardly known, anything from ${inUm(c.reproducibility!.low80)} to ` +
        `${inUm(c.reproducibility!.high80)}.`,
    )
  if (c.negative.length > 0)
    out.push(`${capital(listed(c.negative, 'and'))} came out below zero, which no spread can be: counted as zero.`)
  if (r.stepMm !== null)
    out.push(
      `A pair of pins says only between which two the bore lies: ${inUm(r.stepMm / Math.sqrt(12))}, the step of ` +
        `${mmNumber(r.stepMm, 3)} mm over √12, is in the repeatability, also where all readings agree.`,
    )
  if (r.decision !== null)
    out.push(
      r.decision.sdMm > 0
        ? `Whether a pin goes scatters by ${inUm(r.decision.sdMm)} (80 %: ${inUm(r.decision.lowMm)} to ` +
            `${inUm(r.decision.highMm)}) about its size, by whoever tries it.`
        : `All readings agree as far as such pins can: whether one goes scatters by less than ` +
            `${inUm(r.decision.highMm)} (nine in ten).`,
    )
  if (r.rounds < s.repeats) out.push(`Reckoned from ${counted(r.rounds, 'whole round')} of ${s.repeats}.`)
  return out
}

/** What gauges count with because of it. */
export function setsWords(s: StudyLine, r: StudyResult): string {
  const rest = s.method === 'pins' ? 'the size of the pins itself stays' : 'scale and edge rule stay'
  if (s.counts)
    return (
      `Every gauge by ${methodWords(s)} counts with ${inUm(s.setsMm!)} of scatter by this study; ${rest} as sure as ` +
      `before, since no repeat shows that.`
    )
  if (s.setsMm !== null) return 'A later study by the same method counts instead.'
  if (!r.isWhole) return 'Gauges go on as before until the list is worked off.'
  return s.method === 'pins'
    ? 'These pins are too coarse to tell how far a decision scatters: gauges go on as before.'
    : 'It sets nothing: gauges go on as before.'
}
