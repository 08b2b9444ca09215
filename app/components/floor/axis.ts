/** The temperature axis that all columns share, in pixels and °C. */
export const WALL_HEIGHT = 352
export const TOP = 8
const BOTTOM = 330
const HIGHEST_C = 560
/** Distance of the lanes and width of their bars; narrower on a long floor. */
export interface Lanes {
  step: number
  bar: number
}
export const WIDE: Lanes = { step: 40, bar: 26 }
export const NARROW: Lanes = { step: 31, bar: 18 }
export const TICKS = [0, 100, 200, 300, 400, 500]

export function y(celsius: number): number {
  return BOTTOM - (celsius / HIGHEST_C) * (BOTTOM - TOP)
}
export function laneX(lane: number, lanes: Lanes): number {
  return 8 + (lanes.step - lanes.bar) / 2 + lane * lanes.step
}
