/** The temperature axis that all columns share, in pixels and °C. */
export const WALL_HEIGHT = 352
export const TOP = 8
const BOTTOM = 330
const HIGHEST_C = 560
export const LANE = 40
export const TICKS = [0, 100, 200, 300, 400, 500]

export function y(celsius: number): number { return BOTTOM - celsius / HIGHEST_C * (BOTTOM - TOP) }
export function laneX(lane: number): number { return 15 + lane * LANE }
