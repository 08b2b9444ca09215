/**
 * Films of air on surfaces: natural convection and radiation. W/(m² K), m, °C. Sources: properties of air from
 * Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, table A.4; vertical plates by Churchill and Chu (its
 * equation 9.26), horizontal ones by McAdams (9.30 to 9.32), vertical gaps by MacGregor and Emery (9.52).
 */
import { need, needOne } from '../numeric'

/** Temperature K, kinematic viscosity 1e-6 m²/s, conductivity 1e-3 W/(m K), diffusivity 1e-6 m²/s, Prandtl. */
const AIR = [
  [200, 7.59, 18.1, 10.3, 0.737],
  [250, 11.44, 22.3, 15.9, 0.72],
  [300, 15.89, 26.3, 22.5, 0.707],
  [350, 20.92, 30.0, 29.9, 0.7],
  [400, 26.41, 33.8, 38.3, 0.69],
  [450, 32.39, 37.3, 47.2, 0.686],
  [500, 38.79, 40.7, 56.7, 0.684],
  [550, 45.57, 43.9, 66.7, 0.683],
  [600, 52.69, 46.9, 76.9, 0.685],
  [700, 68.1, 52.4, 98.0, 0.695],
] as const
export const KELVIN = 273.15
export const GRAVITY = 9.81
const STEFAN_BOLTZMANN = 5.670374e-8

/** Temperatures of a surface or its air, °C. */
export const FILM_C = [-60, 420] as const
/** Sizes of a surface, m. */
export const SIZE_M = [0.01, 10] as const

export interface AirAtFilm {
  viscosityM2S: number
  conductivityWMK: number
  diffusivityM2S: number
  prandtl: number
}
/**
 * Air of one atmosphere at −60 to 420 °C, between the rows of the table.
 *
 * @example
 * airProperties(126.85).conductivityWMK // 0.0338
 */
export function airProperties(tC: number): AirAtFilm {
  need('tC', tC, ...FILM_C, '°C')
  return between(tC)
}
function between(tC: number): AirAtFilm {
  const k = tC + KELVIN
  // rows are 50 K apart but for the last
  const i = Math.min(AIR.length - 2, Math.max(0, Math.floor((k - AIR[0][0]) / 50)))
  const a = AIR[i]!
  const b = AIR[i + 1]!
  const t = (k - a[0]) / (b[0] - a[0])
  return {
    viscosityM2S: (a[1] + t * (b[1] - a[1])) * 1e-6,
    conductivityWMK: (a[2] + t * (b[2] - a[2])) * 1e-3,
    diffusivityM2S: (a[3] + t * (b[3] - a[3])) * 1e-6,
    prandtl: a[4] + t * (b[4] - a[4]),
  }
}
export interface Film {
  rayleigh: number
  nusselt: number
  /** W/(m² K) */
  h: number
}
const rayleighOf = (lengthM: number, differenceC: number, filmC: number, air: AirAtFilm) =>
  (GRAVITY * Math.abs(differenceC) * lengthM ** 3) / ((filmC + KELVIN) * air.viscosityM2S * air.diffusivityM2S)

function check(surfaceC: number, airC: number): void {
  need('surfaceC', surfaceC, ...FILM_C, '°C')
  need('airC', airC, ...FILM_C, '°C')
}

/**
 * Natural convection on a vertical surface `heightM` high (0.01 to 10 m), by Churchill and Chu: laminar and turbulent.
 *
 * @example
 * verticalFilm(0.71, 232, 23).h // 7.0 (W/(m² K); Incropera & DeWitt, example 9.2)
 */
export function verticalFilm(heightM: number, surfaceC: number, airC: number): Film {
  need('heightM', heightM, ...SIZE_M, 'm')
  check(surfaceC, airC)
  return onVertical(heightM, surfaceC, airC)
}
/** The same of numbers that are checked: walls ask it thousands of times. */
export function onVertical(heightM: number, surfaceC: number, airC: number): Film {
  const filmC = (surfaceC + airC) / 2
  const air = between(filmC)
  const rayleigh = rayleighOf(heightM, surfaceC - airC, filmC, air)
  const nusselt = (0.825 + (0.387 * rayleigh ** (1 / 6)) / (1 + (0.492 / air.prandtl) ** (9 / 16)) ** (8 / 27)) ** 2
  return { rayleigh, nusselt, h: (nusselt * air.conductivityWMK) / heightM }
}

/** Which way a horizontal surface looks. */
export const FACINGS = ['up', 'down'] as const
export type Facing = (typeof FACINGS)[number]
/** Below this Nusselt number air conducts. */
const STILL = 1

/**
 * Natural convection on a horizontal surface of `areaM2` and `perimeterM`, by McAdams. A hot surface that looks up, and
 * a cold one that looks down, stirs the air; the other way round it lies in layers.
 */
export function horizontalFilm(
  areaM2: number,
  perimeterM: number,
  surfaceC: number,
  airC: number,
  facing: Facing,
): Film {
  need('areaM2', areaM2, 1e-4, 100, 'm²')
  need('perimeterM', perimeterM, 0.04, 100, 'm')
  needOne('facing', facing, FACINGS)
  check(surfaceC, airC)
  return onHorizontal(areaM2, perimeterM, surfaceC, airC, facing)
}
/** The same of numbers that are checked. */
export function onHorizontal(areaM2: number, perimeterM: number, surfaceC: number, airC: number, facing: Facing): Film {
  const lengthM = areaM2 / perimeterM
  const filmC = (surfaceC + airC) / 2
  const air = between(filmC)
  const rayleigh = rayleighOf(lengthM, surfaceC - airC, filmC, air)
  const stirs = surfaceC > airC === (facing === 'up')
  // both branches of the stirred plate meet near 1e7: the higher keeps it rising
  const stirred = Math.max(0.54 * rayleigh ** 0.25, rayleigh > 1e6 ? 0.15 * rayleigh ** (1 / 3) : 0)
  const nusselt = Math.max(STILL, stirs ? stirred : 0.27 * rayleigh ** 0.25)
  return { rayleigh, nusselt, h: (nusselt * air.conductivityWMK) / lengthM }
}

/** Radiation of a surface of emissivity 0 to 1 towards surroundings at `aroundC`, as a film, W/(m² K). */
export function radiantFilm(emissivity: number, surfaceC: number, aroundC: number): number {
  need('emissivity', emissivity, 0, 1)
  need('surfaceC', surfaceC, ...FILM_C, '°C')
  need('aroundC', aroundC, ...FILM_C, '°C')
  return radiated(emissivity, surfaceC, aroundC)
}
/** The same of numbers that are checked. */
export function radiated(emissivity: number, surfaceC: number, aroundC: number): number {
  const [a, b] = [surfaceC + KELVIN, aroundC + KELVIN]
  return emissivity * STEFAN_BOLTZMANN * (a * a + b * b) * (a + b)
}

/**
 * Heat through an air gap, W/(m² K): `gapM` wide and `heightM` high, its faces `differenceC` apart around `meanC`, of
 * emissivities `of`. Conduction where the air stands still, else natural convection; and radiation.
 */
export function gapFilm(
  gapM: number,
  heightM: number,
  differenceC: number,
  meanC: number,
  of: readonly [number, number],
): number {
  need('gapM', gapM, 0.001, 1, 'm')
  need('heightM', heightM, ...SIZE_M, 'm')
  need('differenceC', differenceC, 0, 480, '°C')
  need('meanC', meanC, ...FILM_C, '°C')
  of.forEach((e, i) => need(`of.${i}`, e, 1e-6, 1))
  return acrossGap(gapM, heightM, meanC, of)(differenceC)
}
/** The same around one mean temperature, of numbers that are checked: W/(m² K) by the difference of its faces. */
export function acrossGap(gapM: number, heightM: number, meanC: number, of: readonly [number, number]) {
  const air = between(meanC)
  const perC = rayleighOf(gapM, 1, meanC, air)
  const convects = 0.42 * perC ** 0.25 * air.prandtl ** 0.012 * (heightM / gapM) ** -0.3
  const still = air.conductivityWMK / gapM
  const radiates = radiated(1 / (1 / of[0] + 1 / of[1] - 1), meanC, meanC)
  return (differenceC: number) => Math.max(STILL, convects * Math.sqrt(Math.sqrt(differenceC))) * still + radiates
}
