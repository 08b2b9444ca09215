/* eslint-disable max-lines -- one list: a function for each thing that the records tell */
/**
 * What the shop's records tell of a print, as signs of the table: the run as the check before it takes it, and what was
 * measured of nozzle, head and spool. What is not known tells nothing; what was looked into and is fine tells that.
 * Thresholds are common practice, no source.
 */
import type { LevelAsks, Limit, Moved as Stall } from '../flow'
import { need, needEach, needIfKnown } from '../numeric'
import {
  chamberStands,
  fanStands,
  flowStands,
  headStands,
  precheck,
  setpointsStand,
  sheetStands,
  type CheckKey,
  type PrecheckFacts,
} from '../precheck'
import { capital, celsius, counted as countedWords, hours, mmNumber } from '../words'
import { NOT_THERE, THERE, type Evidence } from './posterior'
import type { Cause } from './causes'
import { TESTS, type Sign, type TestName } from './table'

interface Range {
  median: number
  low80: number
  high80: number
}

/** What the records hold of a case. Null: not known. */
export interface KnownFacts {
  /** The run as the check before it would take it; null where the filament is not known. */
  check: PrecheckFacts | null
  nozzle: {
    tag: string
    boreMm: Range
    boreLimitMm: number | null
    tipLossMm: Range
    tipLimitMm: number | null
    /** Days since its bore was last gauged; null: never. */
    gaugedDaysAgo: number | null
    /** Gauged since the case was opened. */
    gaugedSince: boolean
  } | null
  spool: {
    tag: string
    dryness: 'clean' | 'usual' | 'wet' | 'unknown'
    takesNoWater: boolean
    /** Where it stood when the print showed it, in words. */
    place: string
  } | null
  /** The last drying of the spool, hours, against the longest that its filament asks. */
  dried: { hours: number; longestH: number } | null
  /** The latest bench of this nozzle on this head with this filament. */
  bench: {
    on: string
    /** Less than at the nozzle's own first bench; null where this is the first. */
    dropped: boolean | null
    level: LevelAsks['kind'] | null
    limit: Limit | null
    /** Whether the fall moved when it was hotter; null: not tried. */
    hotter: Stall | null
    /** Whether another nozzle on this head fell short alike; null: not tried. */
    alike: boolean | null
    /** Made since the case was opened. */
    since: boolean
  } | null
  /** What may still stand in the nozzle from before, hottest first; null where nothing is logged. */
  before: readonly { name: string; lowestFlowC: number | null }[] | null
  /** The path's tightest bend against what the strand stands. */
  bend: { isTight: boolean; says: string } | null
  /** When Z was set on this head and a nozzle or hotend last fitted, days ago; null: Z was never logged there. */
  z: { setDaysAgo: number; fittedDaysAgo: number } | null
  /** Runs of this nozzle on this head since it was fitted, up to this one. */
  sinceFit: { isFirst: boolean; goodBefore: number } | null
  sensor: { verdict: 'pass' | 'fail' | 'cannot tell'; on: string; isDue: boolean; since: boolean } | 'never' | null
  /** Other runs of this spool on other heads lately, and of other spools through this nozzle on this head. */
  elsewhere: { good: number; bad: number } | null
  onHead: { good: number; bad: number } | null
}

/** A gauge so many days old tells of the bore as it is. */
export const LATELY_DAYS = 30

/** What the records tell: a sign with whether it is there, or what a test found; in words with its numbers. */
export interface Told {
  kind: 'sign' | 'test'
  key: string
  state: string
  says: string
}
const sign = (key: Sign, isThere: boolean, says: string): Told => ({
  kind: 'sign',
  key,
  state: isThere ? THERE : NOT_THERE,
  says,
})
const test = (key: TestName, state: string, says: string): Told => ({ kind: 'test', key, state, says })

function checkKnown(f: KnownFacts): void {
  if (f.nozzle) {
    for (const k of ['median', 'low80', 'high80'] as const) {
      need(k, f.nozzle.boreMm[k], 0, 100, 'mm')
      need(k, f.nozzle.tipLossMm[k], -100, 100, 'mm')
    }
    needEach(f.nozzle, ['boreLimitMm', 'tipLimitMm'], 0, 100, 'mm')
    needIfKnown('gaugedDaysAgo', f.nozzle.gaugedDaysAgo, -1, 1e5)
  }
  if (f.dried) for (const k of ['hours', 'longestH'] as const) need(k, f.dried[k], 0, 1e5, 'h')
  for (const b of f.before ?? []) needIfKnown('lowestFlowC', b.lowestFlowC, -273, 1000, '°C')
  if (f.z) for (const k of ['setDaysAgo', 'fittedDaysAgo'] as const) need(k, f.z[k], -1, 1e5)
  for (const runs of [f.elsewhere, f.onHead])
    if (runs) for (const k of ['good', 'bad'] as const) need(k, runs[k], 0, 1e6)
}

/**
 * Signs and test results that the records tell, each with what it rests on. mm, °C, h, days. Throws InputError for a
 * number outside its range.
 */
export function recordsTell(f: KnownFacts): Told[] {
  checkKnown(f)
  const lines = f.check ? precheck(f.check) : []
  const says = (key: CheckKey) => lines.find(l => l.key === key)!.says
  return [
    ...nozzle(f.nozzle),
    ...bench(f, says),
    ...(f.check ? ofTheFile(f.check, says) : []),
    ...spool(f),
    ...residue(f),
    ...zAndFit(f),
    ...sensor(f.sensor),
    ...(f.bend ? [sign('tight bend in the path', f.bend.isTight, f.bend.says)] : []),
    ...others(f),
  ]
}

const daysAgo = (d: number) => (d < 1 ? 'today' : `${countedWords(Math.floor(d), 'day')} ago`)

function nozzle(n: KnownFacts['nozzle']): Told[] {
  if (n === null) return []
  const out: Told[] = []
  if (n.tipLimitMm !== null && n.tipLossMm.median >= n.tipLimitMm) {
    const lost = `about ${mmNumber(n.tipLossMm.median, 2)} mm of its tip is gone`
    const allowed = `${mmNumber(n.tipLimitMm, 2)} allowed`
    out.push(sign('tip worn shorter than its limit', true, `${n.tag}: ${lost}, ${allowed}.`))
  }
  if (n.boreLimitMm === null) return out
  const { median, low80, high80 } = n.boreMm
  const gauged = n.gaugedDaysAgo === null ? 'never gauged' : `gauged ${daysAgo(n.gaugedDaysAgo)}`
  const says =
    `${n.tag}: bore about ${mmNumber(median, 3)} mm (80 % ${mmNumber(low80, 3)} to ${mmNumber(high80, 3)}), ` +
    `limit ${mmNumber(n.boreLimitMm, 3)}, ${gauged}.`
  const past = median >= n.boreLimitMm
  // twice as far out as the range goes: what may just be past its limit is not called within it
  const surely = high80 + (high80 - median) < n.boreLimitMm
  const within = surely && n.gaugedDaysAgo !== null && n.gaugedDaysAgo <= LATELY_DAYS
  // a gauge at hand is the test, as it is read; what was gauged before must be sure to say something
  if (n.gaugedSince) return [...out, test('gauge', past ? 'past its limit' : TESTS.gauge.otherwise, says)]
  if (!past && !within) return out
  return [...out, sign(past ? 'bore probably past its limit' : 'bore gauged within its limit lately', true, says)]
}

/** Levels that are off alike at every flow, whatever is measured next. */
const OFF_ALIKE: readonly LevelAsks['kind'][] = ['calliper', 'diameter', 'mark', 'steps', 'density']

function bench({ bench: b, check }: KnownFacts, says: Says): Told[] {
  const out: Told[] = []
  if (b) {
    const on = `Its bench of ${b.on}`
    const isOff = b.level !== null && OFF_ALIKE.includes(b.level)
    if (b.since && b.limit !== null) out.push(test('bench', benchFound(b.limit, isOff), `${on}.`))
    if (b.dropped !== null)
      out.push(
        sign(
          'bench dropped since its first',
          b.dropped,
          `${on} delivers ${b.dropped ? 'less than' : 'as much as'} its first one here.`,
        ),
      )
    if (b.level !== null && b.level !== 'no level')
      out.push(
        sign(
          'share off alike at all flows',
          isOff,
          isOff ? `${on} is off by the same share at all flows.` : `${on}: slow blobs weigh what they should.`,
        ),
      )
    if (b.alike !== null)
      out.push(
        sign(
          'another nozzle on this head alike',
          b.alike,
          `${on}: another nozzle on this head ${b.alike ? 'falls short as well' : 'delivers more'}.`,
        ),
      )
    if (b.hotter === 'stayed') out.push(sign('hotter did not help', true, `${on}: hotter, the same flows fell short.`))
    if (b.hotter === 'moved') out.push(sign('hotter helped', true, `${on}: hotter, they delivered more.`))
  }
  const peak = check?.job.peakMm3S ?? null
  const found = check?.nozzle?.bench
  if (check && peak !== null && found) {
    const stands = flowStands(peak, found.sustained)
    if (stands === 'above') out.push(sign('flow above what this nozzle sustains', true, says('flow')))
    if (stands === 'sustained') out.push(sign('flow below what this nozzle sustains', true, says('flow')))
  }
  return out
}
function benchFound(limit: Limit, isOff: boolean): string {
  if (limit !== 'nothing falls short') return 'the fast blobs fall short'
  return isOff ? 'all are off alike' : TESTS.bench.otherwise
}

/** A line of the check, in its own words. */
type Says = (key: CheckKey) => string

function ofTheFile(f: PrecheckFacts, says: Says): Told[] {
  const out: Told[] = []
  const set = setpointsStand(f)
  if (set) {
    const profile = says('profile')
    const sides = [set.nozzle, set.bed]
    out.push(
      sign('setpoints of another filament', set.like !== null, profile),
      sign('setpoint under the window', sides.includes('under'), profile),
      sign('setpoint over the window', sides.includes('over'), profile),
    )
  }
  const fan = fanStands(f)
  if (fan !== null) out.push(sign('part fan high for this filament', fan === 'high', says('fan')))
  const chamber = chamberStands(f)
  const isCold = chamber === 'short' || chamber === 'none here'
  if (chamber === 'ok' || (isCold && f.material.chamber === 'needs'))
    out.push(sign('chamber needed and cold', isCold, says('chamber')))
  const head = headStands(f)
  if (head === 'ok' || head === 'short')
    out.push(
      sign(
        'chamber too warm for this filament',
        head === 'short',
        `The air at the head comes to ${celsius(f.air!.headC)}; ${f.material.name} takes ${f.material.chamberMaxC} °C.`,
      ),
    )
  if (f.soak && f.enclosed)
    out.push(
      sign(
        'not soaked as long as planned',
        !f.soak.done,
        f.soak.done
          ? 'It was soaked as long as planned.'
          : `Its soak had ${Math.ceil(f.soak.leftMin)} min to go when it began.`,
      ),
    )
  const fits = sheetStands(f)
  if (fits !== null) out.push(sign('sheet is not one it holds on', fits.length === 0, says('surface')))
  return out
}

/** So many times the longest drying is too long. */
export const OVER_DRIED = 1.5

function spool({ spool: s, dried }: KnownFacts): Told[] {
  const out: Told[] = []
  if (s?.takesNoWater) out.push(sign('spool dry by its clock', true, `${s.tag} takes up no water.`))
  else if (s && s.dryness !== 'unknown') {
    const isWet = s.dryness === 'wet'
    const says = `${s.tag} ${s.place}: ${isWet ? 'wetter than what usually prints' : `dry (${s.dryness})`} by its log.`
    out.push(sign(isWet ? 'spool wet by its clock' : 'spool dry by its clock', true, says))
  }
  if (dried) {
    const isLong = dried.hours > OVER_DRIED * dried.longestH
    const says = `Dried for ${hours(dried.hours)} last; its filament asks ${hours(dried.longestH)} at most.`
    out.push(sign('dried longer than its hours', isLong, says))
  }
  return out
}

function residue({ before, check }: KnownFacts): Told[] {
  const setC = check?.made.nozzleC ?? null
  if (before === null || setC === null) return []
  const hotter = before.find(b => b.lowestFlowC !== null && b.lowestFlowC > setC)
  // one that nobody knows when it flows says neither
  if (!hotter && before.some(b => b.lowestFlowC === null)) return []
  const key = 'hotter filament went through before, not purged clean'
  return [
    hotter
      ? sign(
          key,
          true,
          `${hotter.name} went through before and flows from ${hotter.lowestFlowC} °C; no clean purge since.`,
        )
      : sign(key, false, `What went through before flows at ${celsius(setC)}, or was purged clean.`),
  ]
}

function zAndFit({ z, sinceFit: s }: KnownFacts): Told[] {
  const out: Told[] = []
  if (z) {
    const isOld = z.fittedDaysAgo < z.setDaysAgo
    const says = isOld
      ? `Nozzle or hotend changed ${daysAgo(z.fittedDaysAgo)}, Z set ${daysAgo(z.setDaysAgo)}: not since.`
      : `Z was set ${daysAgo(z.setDaysAgo)}, after the last change.`
    out.push(sign('head moved or nozzle changed since Z was set', isOld, says))
  }
  if (s?.isFirst)
    out.push(sign('since the nozzle was changed', true, 'It is the first run since this nozzle was fitted.'))
  else if (s && s.goodBefore > 0)
    out.push(
      sign(
        'since the nozzle was changed',
        false,
        `${countedWords(s.goodBefore, 'good run')} since this nozzle was fitted.`,
      ),
    )
  return out
}

function sensor(s: KnownFacts['sensor']): Told[] {
  if (s === null) return []
  if (s === 'never') return [sign('sensor not checked for long', true, 'The sensor of this hotend was never checked.')]
  const { verdict, on, isDue, since } = s
  if (verdict === 'cannot tell') return []
  const failed = verdict === 'fail'
  const says = `Its check of ${on} ${failed ? 'failed' : 'passed'}${!failed && isDue ? ', and the next is due' : ''}.`
  if (since) return [test('sensor', failed ? 'off by more than it may be' : TESTS.sensor.otherwise, says)]
  if (failed) return [sign('sensor check failed', true, says)]
  return [sign('sensor check failed', false, says), sign('sensor not checked for long', isDue, says)]
}

/** So many runs of one kind, and none of the other, say something. */
const LEAST_RUNS = 2

function others({ elsewhere, onHead }: KnownFacts): Told[] {
  const of = (runs: KnownFacts['onHead'], fine: Sign, bad: Sign, who: string): Told[] => {
    if (runs === null) return []
    const { good, bad: failed } = runs
    if (failed === 0 && good >= LEAST_RUNS) return [sign(fine, true, `${who}: ${countedWords(good, 'good run')}.`)]
    if (good === 0 && failed > 0)
      return [sign(bad, true, `${who}: ${countedWords(failed, 'run')} with trouble, none without.`)]
    return []
  }
  return [
    ...of(
      elsewhere,
      'other prints of this spool elsewhere fine',
      'other prints of this spool elsewhere bad',
      'This spool on other printers lately',
    ),
    ...of(
      onHead,
      'other spools on this head fine',
      'other spools on this head bad',
      'Other spools through this nozzle here lately',
    ),
  ]
}

/** What a person found: over what the records tell of the same. */
export interface Finding {
  kind: 'sign' | 'test'
  key: string
  /** `there`, `not there`, `not asked`, or what a test found. */
  state: string
}
/** Nobody asked after all, or nobody knows: it says nothing, whatever the records tell. */
export const NOT_ASKED = 'not asked'
/** What may be found of a sign. */
export const SIGN_STATES = [THERE, NOT_THERE, NOT_ASKED] as const

/** What the records tell and what people found, the latest last, as one: a person's word stands over the records'. */
export function evidenceOf(told: readonly Told[], found: readonly Finding[], right: readonly Cause[] = []): Evidence {
  const state = new Map<string, Finding>()
  for (const f of [...told, ...found]) state.set(`${f.kind} ${f.key}`, f)
  const all = [...state.values()].filter(f => f.state !== NOT_ASKED)
  const signs = (s: string) => all.flatMap(f => (f.kind === 'sign' && f.state === s ? [f.key] : []))
  return {
    seen: signs(THERE),
    not: signs(NOT_THERE),
    tests: Object.fromEntries(all.flatMap(f => (f.kind === 'test' ? [[f.key, f.state]] : []))),
    right,
  }
}

/** A sign with how it stands, in words. */
export const signWords = (key: string, state: string): string =>
  state === THERE ? `${capital(key)}.` : `${capital(key)}: looked for, not there.`
