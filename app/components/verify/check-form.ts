/** What the sheet of a sensor check holds while it is typed, and what is sent of it. */
import type {
  Allowed,
  Placement,
  PlatinumBuild,
  PlatinumClass,
  Point,
  Thermocouple,
  ThermocoupleClass,
} from '#core/thermometry'
import type { EnteredOf } from '#shared/answers/again'

/** Choices of a list, each by its own word or as it is said. */
export const options = <T extends string | number>(all: readonly T[], says: (x: T) => string = String) =>
  all.map(value => ({ value, text: says(value) }))

/** One point as typed; a row in which nothing stands is none. */
export interface TypedPoint {
  shownC: number | null
  reading: number | null
  coldC: number | null
  swingC: number | null
}
export const emptyPoint = (): TypedPoint => ({ shownC: null, reading: null, coldC: null, swingC: null })
export const isEmpty = (p: TypedPoint) => p.shownC === null && p.reading === null && p.coldC === null
/** A swing that is not entered is none. */
export const toPoint = (p: TypedPoint) => ({ ...p, swingC: p.swingC ?? 0 })
const typed = (n: number | null) => n !== null && !Number.isNaN(n)
/** The points as the core takes them; null while one of them is half typed. */
export function wholePoints(points: readonly TypedPoint[], needsCold: boolean): Point[] | null {
  const rows = points.filter(p => !isEmpty(p))
  const whole = rows.every(p => typed(p.shownC) && typed(p.reading) && (!needsCold || typed(p.coldC)))
  return rows.length > 0 && whole ? (rows.map(toPoint) as Point[]) : null
}

export const ALLOWED_BY = [
  { value: 'guard band', text: 'the sensor’s part of the guard band' },
  { value: 'data sheet', text: '± °C by its data sheet' },
  { value: 'platinum', text: 'a class of IEC 60751 (platinum)' },
  { value: 'thermocouple', text: 'a class of IEC 60584-1 (thermocouple)' },
] as const

export interface CheckForm {
  referenceId: number | null
  placement: Placement
  points: TypedPoint[]
  by: (typeof ALLOWED_BY)[number]['value']
  plusMinusC: number | null
  platinumClass: PlatinumClass
  build: PlatinumBuild
  type: Thermocouple
  coupleClass: ThermocoupleClass
  note: string
  occurredAt: string
  /** Why the check that this one takes the place of is struck out. */
  reason: string
}
/** A check that was entered, as the sheet types it. */
export function typedCheck(b: EnteredOf<'sensor check'>['body']): Partial<CheckForm> {
  const a = b.allowed
  return {
    ...{ referenceId: b.referenceId, placement: b.placement, points: b.points, note: b.note },
    ...{ occurredAt: b.occurredAt, by: a.by },
    ...(a.by === 'platinum' && { platinumClass: a.class, build: a.build }),
    ...(a.by === 'thermocouple' && { type: a.type, coupleClass: a.class }),
    ...(a.by === 'data sheet' && { plusMinusC: a.plusMinusC }),
  }
}
/** What the sensor may be off by, as typed; `guardPartC` where nothing better is known of it. */
export function allowedOf(v: CheckForm, guardPartC: number): Allowed | { by: 'data sheet'; plusMinusC: number | null } {
  if (v.by === 'platinum') return { by: v.by, class: v.platinumClass, build: v.build }
  if (v.by === 'thermocouple') return { by: v.by, type: v.type, class: v.coupleClass }
  if (v.by === 'guard band') return { by: v.by, plusMinusC: guardPartC }
  return { by: v.by, plusMinusC: v.plusMinusC }
}
