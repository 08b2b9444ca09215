/** Sensors and their checks in words: what a check found, what it is worth, when the next is due. */
import {
  ceilings,
  knownOf,
  type Ceiling,
  type Printer,
  type Rules,
  type Sensors,
  type VerdictClass,
} from '#core/limits'
import { capital, celsiusDown, counted, listed } from '#core/words'
import { ONE_SIDED_90 } from '#core/numeric'
import {
  correctionFrom,
  type Allowed,
  type CheckResult,
  type CheckVerdict,
  type Correction,
  type PlatinumBuild,
  type PointResult,
  type Reference,
  type Sensed,
  type SensorState,
} from '#core/thermometry'
import type { ZoneLimit } from '#shared/answers/printers'
import type { SensorLine } from '#shared/answers/sensors'
import type { ReadCheck } from '#shared/sensor-state'
import { day } from '#shared/time'
import type { Mark as Verdict } from '#shared/answers/parts'

export const ZONE_NAME: Record<Sensed, string> = { hotend: 'hotend', bed: 'bed', chamber: 'chamber' }
export const sensorName = (s: Pick<SensorLine, 'printer' | 'zone' | 'head'>) =>
  `${s.printer} ${s.head === null ? '' : `${s.head}, `}${ZONE_NAME[s.zone]}`
export const sensorKey = (s: Pick<SensorLine, 'printerId' | 'zone' | 'headId'>) =>
  `${s.printerId}-${s.zone}-${s.headId ?? ''}`

/** What the limits count with by the checks of a sensor that count, after one more where it is given. */
export function correctionWith(
  checks: readonly ReadCheck[],
  more: CheckResult | null,
  zone: string,
): Correction | null {
  const stored = checks.map(c => ({
    atMs: Date.parse(c.at),
    own: c.result.own,
    points: c.result.correction,
    from: `its check of ${day(c.at, zone)}`,
  }))
  const now = more && { atMs: Date.now(), own: more.own, points: more.correction, from: 'this check' }
  return correctionFrom(now ? [now, ...stored] : stored)
}

export const BUILD_WORDS: Record<PlatinumBuild, string> = { film: 'film on ceramic', wire: 'wound wire' }
const degrees = (c: number) => `${Number(Math.abs(c).toFixed(1))} °C`
/** "reads 6.1 °C low", by what is added to what it shows. */
export function readsWords(cC: number): string {
  if (Math.abs(cC) < 0.05) return 'reads true'
  return `reads ${Math.abs(cC).toFixed(1)} °C ${cC > 0 ? 'low' : 'high'}`
}
export const rangeOf = (p: Pick<PointResult, 'uC'>) =>
  p.uC === null ? 'how sure is not known' : `± ${(ONE_SIDED_90 * p.uC).toFixed(1)} °C`
export const allowedWords = (a: Allowed): string => {
  if (a.by === 'platinum') return `class ${a.class}, IEC 60751 (${a.build === 'film' ? 'film' : 'wire-wound'})`
  if (a.by === 'thermocouple') return `type ${a.type} class ${a.class}, IEC 60584-1`
  return a.by === 'data sheet' ? `± ${a.plusMinusC} °C by its data sheet` : `± ${a.plusMinusC} °C by the guard band`
}
export const VERDICT_OF: Record<CheckVerdict, { verdict: Verdict; text: string }> = {
  'pass': { verdict: 'fine', text: 'pass' },
  'fail': { verdict: 'stop', text: 'fail' },
  'cannot tell': { verdict: 'look', text: 'cannot tell' },
}

/** A check's outcome in one sentence. */
export function outcomeWords(r: CheckResult): string {
  const { worst } = r
  const at = `at ${worst.shownC.toFixed(0)} °C shown`
  if (worst.uC === null) return `Cannot tell ${at}: the class of the reference does not reach there.`
  const says = `${readsWords(worst.cC)} ${at}, ${rangeOf(worst)}`
  if (!r.own && r.verdict === 'fail')
    return (
      `Fail: even this reference, which reads low, is ${degrees(worst.cC)} hotter than shown ${at}: the sensor ` +
      'reads low.'
    )
  if (!r.own)
    return 'Cannot tell: a reference there reads low by itself. It only tightens a limit; check it in its own place.'
  if (worst.allowedC === null) return `${capital(says)}. Cannot tell: nothing says what it may be off by there.`
  const surer = r.verdict === 'cannot tell' ? ' A surer reference would tell.' : ''
  return `${capital(r.verdict)}: ${says}; ${degrees(worst.allowedC)} is allowed.${surer}`
}

const MARK_OF: Record<CheckVerdict, VerdictClass> = { 'pass': 'runs', 'fail': 'cannot', 'cannot tell': 'just' }
/** How a sensor stands, for its row: its mark (nothing known where nobody has checked), and half a sentence. */
export function standing(
  s: SensorLine,
  state: SensorState<ReadCheck>,
): { mark: VerdictClass; says: string; due: string } {
  const { check, nextInH, isDue } = state
  if (!check) {
    const standing = s.checks.filter(c => c.struck === null)
    const elsewhere = standing.some(c => c.ofThisSensor) ? `only checked ${standing[0]!.placement}: it cannot tell` : ''
    const gone = standing.length > 0 ? 'another sensor sits there since its last check' : 'never checked'
    return { mark: 'cannot tell', says: elsewhere || gone, due: '' }
  }
  const { verdict, worst } = check.result
  const late = verdict === 'fail' ? 'check again after it is put right' : `due since ${Math.round(-nextInH!)} h at heat`
  const due = isDue ? late : `next in ${Math.round(nextInH!)} h at heat`
  return {
    mark: MARK_OF[verdict === 'pass' && isDue ? 'cannot tell' : verdict],
    says: `${readsWords(worst.cC)}, ${rangeOf(worst)}`,
    due,
  }
}

/** The page's sentence: what fails first, then what is due, then what nobody has checked. */
export function shopWords(all: readonly { s: SensorLine; state: SensorState<ReadCheck> }[]): {
  verdict: Verdict
  text: string
} {
  const states = all.map(x => ({ s: x.s, ...x.state }))
  const failed = states.filter(x => x.check?.result.verdict === 'fail')
  const never = states.filter(x => !x.check)
  const unchecked =
    never.length === 0
      ? ''
      : ` ${counted(never.length, 'sensor')} of ${all.length} ${never.length === 1 ? 'is' : 'are'} unchecked: ` +
        `${never.length === 1 ? 'its' : 'their'} guard bands stay whole.`
  const first = failed[0]
  if (first) {
    const { cC } = first.check!.result.worst
    const more = failed.length > 1 ? `, and ${counted(failed.length - 1, 'other')} failed` : ''
    const means = cC > 0 ? 'what it heats is hotter than shown' : 'what it heats is cooler than shown'
    return {
      verdict: 'stop',
      text: `${sensorName(first.s)} ${readsWords(cC)}: ${means}, and every limit counts with that${more}.${unchecked}`,
    }
  }
  const due = states.filter(x => x.isDue)
  if (due.length > 0)
    return {
      verdict: 'look',
      text: `Check ${listed(due.map(x => sensorName(x.s)).slice(0, 3), 'and')} again.${unchecked}`,
    }
  if (never.length > 0) return { verdict: 'look', text: unchecked.trim() }
  return { verdict: 'fine', text: `All ${all.length} sensors are checked and within what they may be off by.` }
}

/** How far the errors of some checks reach, with their ranges and what is allowed, °C. */
export const farthestC = (results: readonly CheckResult[]): number =>
  Math.max(
    0,
    ...results.flatMap(r => r.points.flatMap(p => [Math.abs(p.cC) + ONE_SIDED_90 * (p.uC ?? 0), p.allowedC ?? 0])),
  )

const lowest = (of: readonly (Ceiling | ZoneLimit)[], zone: Sensed, headId: number | null) =>
  of
    .filter(l => l.zone === zone && (zone !== 'hotend' || l.headId === headId))
    .reduce<number | null>((a, l) => (a === null || l.limitC < a ? l.limitC : a), null)

/** What changes of a zone's ceiling: "The nozzle may be set to 289 °C, before to 290 °C." */
export function ceilingWords(
  before: readonly (Ceiling | ZoneLimit)[],
  after: readonly (Ceiling | ZoneLimit)[],
  zone: Sensed,
  headId: number | null,
): string {
  const [was, is] = [lowest(before, zone, headId), lowest(after, zone, headId)]
  if (was === null || is === null) return ''
  const what = { hotend: 'The nozzle', bed: 'The bed', chamber: 'The chamber' }[zone]
  if (celsiusDown(was) === celsiusDown(is)) return `${what} may be set to ${celsiusDown(is)}, as before.`
  return `${what} may be set to ${celsiusDown(is)}, before to ${celsiusDown(was)}.`
}

/** The ceilings of a printer with one sensor's correction in place of what it has. */
export function ceilingsWith(
  p: Printer,
  s: Pick<SensorLine, 'zone' | 'headId'>,
  c: Correction | null,
  rules: Rules,
): Ceiling[] {
  const has = knownOf(p)
  const sensors: Sensors =
    s.zone === 'hotend' ? { ...has, heads: { ...has.heads, [s.headId!]: c } } : { ...has, [s.zone]: c }
  return ceilings({ ...p, sensors }, rules)
}

/** A reference as a person would name it. */
export function referenceWords(r: Reference): string {
  const in_ = `read in ${r.readsIn}`
  const sure = r.certificateUC === null ? '' : `, certified to u ${r.certificateUC} °C`
  if (r.kind === 'thermocouple')
    return `thermocouple type ${r.type}${r.certificateUC === null ? `, class ${r.coupleClass}` : sure}, ${in_}`
  if (r.kind === 'platinum') {
    const leads = r.wires === 2 ? ` with ${r.leadOhm} Ω of leads` : ''
    const is = r.certificateUC === null ? `, class ${r.platinumClass}` : sure
    return `Pt${r.r0Ohm}${is}, ${r.wires} wires${leads}, ${in_}`
  }
  return `probe${sure}`
}
