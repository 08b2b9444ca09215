/** The temperature axis that all columns share, in pixels and °C, and how wide a column is. */
import type { FloorPrinter } from '#shared/answers/bench'

export const WALL_HEIGHT = 352
export const TOP = 8
const BOTTOM = 330
const HIGHEST_C = 560
/** Distance of the lanes, width of their bars and least width of a column; narrower on a long floor. */
export interface Lanes {
  step: number
  bar: number
  least: number
}
export const WIDE: Lanes = { step: 40, bar: 26, least: 136 }
export const NARROW: Lanes = { step: 31, bar: 18, least: 109 }
/** Few printers take the width there is, up to so many times their own; wider bars say no more. */
const MOST_SPREAD = 3
const WIDEST_BAR = 48

/** An open frame has no chamber to fill. */
export const hasChamber = (p: FloorPrinter): boolean =>
  p.limits.some(l => l.zone === 'chamber') || p.last?.chamberC != null
const lanesOf = (p: FloorPrinter): number => p.heads.length + 1 + (hasChamber(p) ? 1 : 0)
/** A printer's column, px, when every column is `spread` times as wide as it must be. */
export const columnWidth = (p: FloorPrinter, { step, least }: Lanes, spread: number): number =>
  Math.floor(Math.max(least, 16 + lanesOf(p) * step) * spread)
/** The lanes that fill a column. */
export function lanesIn(p: FloorPrinter, lanes: Lanes, width: number): Lanes {
  if (width <= columnWidth(p, lanes, 1)) return lanes
  const step = Math.floor((width - 16) / lanesOf(p))
  return { ...lanes, step, bar: Math.min(WIDEST_BAR, Math.max(lanes.bar, Math.floor(step * 0.6))) }
}
/** How much wider the columns of a floor are than they must be, so that few printers take the width there is. */
export function spreadOf(printers: readonly FloorPrinter[], lanes: Lanes, room: number): number {
  const least = printers.reduce((t, p) => t + columnWidth(p, lanes, 1), 0)
  return least === 0 ? 1 : Math.max(1, Math.min(MOST_SPREAD, room / least))
}
export const TICKS = [0, 100, 200, 300, 400, 500]

export function y(celsius: number): number {
  return BOTTOM - (celsius / HIGHEST_C) * (BOTTOM - TOP)
}
export function laneX(lane: number, lanes: Lanes): number {
  return 8 + (lanes.step - lanes.bar) / 2 + lane * lanes.step
}
/** Printers in rows of columns that are at most so wide together, px; at least one in each. */
export function rowsOf(printers: readonly FloorPrinter[], lanes: Lanes, room: number): FloorPrinter[][] {
  const rows: FloorPrinter[][] = [[]]
  let left = room
  for (const p of printers) {
    const width = columnWidth(p, lanes, 1)
    if (width > left && rows.at(-1)!.length > 0) {
      rows.push([])
      left = room
    }
    rows.at(-1)!.push(p)
    left -= width
  }
  return rows
}
