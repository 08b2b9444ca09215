/**
 * A margin and how sure it is: margin = (limit − guard band) − expected. The guard band stands for the sensor's class,
 * overshoot, gradient and ageing; U is 1.28 standard uncertainties (one-sided 90 %, normal distribution) of what it
 * does not stand for: the air's share always, the sensor only when a check has replaced its part of the guard. °C.
 */
import { need } from '../numeric'

export { ONE_SIDED_90 } from '../numeric'

export type Grade = 'ok' | 'just' | 'short'

/**
 * Fine from U upwards; just, within U either way: measure to know; short below. Without an uncertainty a margin of 0 is
 * fine: the guard band is used up and nothing else is open.
 *
 * @example
 * [gradeOf(0, 0), gradeOf(0, 2), gradeOf(-1, 2), gradeOf(-3, 2)] // ["ok","just","just","short"]
 */
export function gradeOf(marginC: number, u90C: number): Grade {
  need('u90C', u90C, 0, 1e4, '°C')
  need('marginC', marginC, -1e5, 1e5, '°C')
  return grade(marginC, u90C)
}

/** What was asked to the degree and comes out of a division is the same degree. */
const SAME = 1e-9

/** The same without asking whether these are numbers: for those who checked them, a hundred thousand times a second. */
export function grade(marginC: number, u90C: number): Grade {
  if (marginC >= u90C - SAME) return 'ok'
  return marginC >= -u90C - SAME && u90C > 0 ? 'just' : 'short'
}

/**
 * What a setpoint comes to against limits that are fine up to one value and short above another (°C): the worst grade,
 * and the limit that gives it, the lowest of its grade. Null when there is none.
 *
 * @example
 * const fans = { limitC: 95, fineC: 88, shortC: 103 }
 * worstOf([fans, { limitC: 99, fineC: 96, shortC: 101 }], 102).limit.limitC // 99 (that one is short)
 */
export function worstOf<L extends { limitC: number; fineC: number; shortC: number }>(
  limits: readonly L[],
  askedC: number,
): { grade: Grade; limit: L } | null {
  need('askedC', askedC, -1e5, 1e5, '°C')
  const order: readonly Grade[] = ['short', 'just', 'ok']
  let worst: { grade: Grade; limit: L } | null = null
  for (const limit of limits) {
    for (const k of ['limitC', 'fineC', 'shortC'] as const) need(k, limit[k], -1e5, 1e5, '°C')
    const just = askedC > limit.shortC + SAME ? 'short' : 'just'
    const is: Grade = askedC <= limit.fineC + SAME ? 'ok' : just
    const before = worst ? order.indexOf(is) - order.indexOf(worst.grade) : -1
    if (before < 0 || (before === 0 && limit.limitC < worst!.limit.limitC)) worst = { grade: is, limit }
  }
  return worst
}
