/** What a printer's certificate says: what it may be set to, what that rests on, and what is due before it is whole. */
import { placesOf, surveyHolds, TEST_EVERY_DAYS, type Guard, type GuardState, type SurveyFound } from '#core/chamber'
import { openingOf } from '#core/limits'
import { ONE_SIDED_90 } from '#core/numeric'
import { guardsOf } from '#core/procedures'
import { celsiusDown } from '#core/words'
import type { Floor } from '#shared/answers/bench'
import type { Chambers, CutOutLine, SurveyLine } from '#shared/answers/chambers'
import type { Mark } from '#shared/answers/parts'
import type { StackPrinter, ZoneLimit } from '#shared/answers/printers'
import type { Verify } from '#shared/answers/sensors'
import { guardDue, guardStands } from '#shared/guard-state'
import { stateOf } from '#shared/sensor-state'
import { foundOf } from '#shared/survey-reading'
import { isOld, placeOf, shareWords, stateWords } from '~/words/chamber'
import { sensorName, standing, VERDICT_OF } from '~/words/sensor'

export interface Due {
  mark: Mark
  text: string
}
export interface GuardLine {
  guard: Guard
  state: GuardState
  last: CutOutLine | null
}
export interface Certificate {
  limits: { what: string; mayBe: string; by: ZoneLimit }[]
  sensors: { name: string; says: string; mark: Mark; checked: string | null; person: string; due: string }[]
  /** The survey that the limits go by; null where there is none that holds. */
  survey: { line: SurveyLine; places: string[]; state: string } | null
  guards: GuardLine[]
  due: Due[]
}

function limitLines(limits: readonly ZoneLimit[], printer: StackPrinter): Certificate['limits'] {
  const lowest = new Map<string, ZoneLimit>()
  for (const l of limits) {
    const key = `${l.zone} ${l.headId ?? ''} ${l.heaterOff ? 'off' : ''}`
    const before = lowest.get(key)
    if (!before || l.limitC < before.limitC) lowest.set(key, l)
  }
  return [...lowest.values()].map(by => {
    const head = printer.heads.length > 1 ? ` of ${printer.heads.find(h => h.id === by.headId)?.name ?? 'head'}` : ''
    const off = by.heaterOff ? ', heater off' : ''
    const what = {
      hotend: `Nozzle${head}`,
      bed: `Bed${off}`,
      chamber: by.of === 'air' ? 'Air near the top' : 'Chamber',
    }
    return { what: what[by.zone], mayBe: celsiusDown(by.limitC), by }
  })
}

/** The latest that holds in the state that the lid is in now. */
function surveyOf(data: Chambers, printer: StackPrinter): { line: SurveyLine; found: SurveyFound } | null {
  const opening = openingOf(printer.parts.find(p => p.role === 'lid'))
  for (const line of data.surveys) {
    if (line.printerId !== printer.id || line.struck !== null) continue
    if (!surveyHolds(line.state, line.changed, opening)) continue
    const found = foundOf(line)
    if (found && placesOf(found).length > 0) return { line, found }
  }
  return null
}

export function certificateOf(
  printer: StackPrinter,
  floor: Floor,
  verify: Verify,
  chambers: Chambers,
  nowMs: number,
): Certificate {
  const due: Due[] = floor.bench
    .filter(b => b.printer === printer.name)
    .map(b => ({ mark: b.verdict, text: `${b.nozzle ? `${b.nozzle}: ` : ''}${b.action}. ${b.reason}` }))
  const sensors = verify.sensors
    .filter(s => s.printerId === printer.id)
    .map(s => {
      const state = stateOf(s)
      const is = standing(s, state)
      const mark = state.check ? VERDICT_OF[state.check.result.verdict].verdict : ('look' as const)
      if (!state.check) due.push({ mark: 'look', text: `Check the sensor of ${sensorName(s)}: ${is.says}` })
      else if (state.isDue) due.push({ mark: mark === 'fine' ? 'look' : mark, text: `${sensorName(s)}: ${is.due}` })
      return {
        name: sensorName(s),
        says: is.says,
        mark,
        checked: state.check?.at ?? null,
        person: state.check?.person ?? '',
        due: is.due,
      }
    })
  const enclosed = chambers.chambers.some(c => c.printerId === printer.id)
  const at = surveyOf(chambers, printer)
  if (enclosed && !at) due.push({ mark: 'look', text: 'Survey its chamber: no survey holds as it stands now' })
  if (at && isOld(at.line.at)) due.push({ mark: 'look', text: 'Survey its chamber again: the last is over a year old' })
  const guards = guardsOf(printer).map((guard): GuardLine => {
    const last = chambers.cutOutTests.find(t => t.printerId === printer.id && t.guard === guard && !t.struck) ?? null
    const every = chambers.testEvery.find(t => t.printerId === printer.id && t.guard === guard)?.days ?? TEST_EVERY_DAYS
    const test = last && { ...last, changed: last.changed !== null }
    const state = guardStands(test, nowMs, every)
    const needs = guardDue(printer.name, guard, test, nowMs, every)
    if (needs) due.push({ mark: needs.mark, text: `${needs.reason} ${needs.action}` })
    return { guard, state, last }
  })
  const rank = { stop: 0, look: 1, fine: 2 }
  return {
    limits: limitLines(floor.printers.find(p => p.id === printer.id)?.limits ?? [], printer),
    sensors,
    survey: at && {
      line: at.line,
      state: stateWords(at.line.state),
      places: placesOf(at.found).map(
        p => `${placeOf(p.place)} ${shareWords(at.found.by, p.value, ONE_SIDED_90 * p.u)}`,
      ),
    },
    guards,
    due: due.sort((a, b) => rank[a.mark] - rank[b.mark]),
  }
}
