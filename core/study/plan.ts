/**
 * The list of a gauge study: every person gauges every nozzle in every round, in an order drawn anew for each round, so
 * that nobody remembers the last reading and no drift falls on one nozzle. Within a round a person goes through all
 * nozzles before the next person begins: the tool changes hands as seldom as the drawing allows.
 * Source: randomised runs, common practice, no source.
 */
import { InputError, mulberry32, need, shuffled } from '../numeric'

/** How many of each a study may have. One person tells the repeatability alone. */
export const STUDY_PEOPLE = [1, 6] as const
/** Two nozzles at least: their spread is what the scatter is held against. */
export const STUDY_NOZZLES = [2, 12] as const
/** Two rounds at least: without a repeat nothing tells scatter from difference. */
export const STUDY_REPEATS = [2, 10] as const
/** Lines of a list: more than a day's work. */
export const MOST_LINES = 300

/** One line: places among the people and the nozzles, and the round, each from 0. */
export interface StudyLine {
  person: number
  nozzle: number
  round: number
}

/**
 * The lines of a study in the order of the work; the same seed (0 to 2³²) draws the same list.
 *
 * @example
 * studyList(2, 3, 2, 7).length // 12 (lines)
 */
export function studyList(people: number, nozzles: number, repeats: number, seed: number): StudyLine[] {
  needWhole('people', people, STUDY_PEOPLE)
  needWhole('nozzles', nozzles, STUDY_NOZZLES)
  needWhole('repeats', repeats, STUDY_REPEATS)
  const lines = people * nozzles * repeats
  if (lines > MOST_LINES) throw new InputError('repeats', repeats, `at most ${MOST_LINES} lines in all, not ${lines}`)
  const random = mulberry32(seed)
  return places(repeats).flatMap(round =>
    shuffled(places(people), random).flatMap(person =>
      shuffled(places(nozzles), random).map(nozzle => ({ person, nozzle, round })),
    ),
  )
}

function needWhole(field: string, value: number, [low, high]: readonly [number, number]): void {
  need(field, value, low, high)
  if (!Number.isInteger(value)) throw new InputError(field, value, 'a whole number')
}
const places = (n: number) => Array.from({ length: n }, (_, i) => i)
