/**
 * Water in air. Source: ASHRAE Handbook Fundamentals, chapter 1, equations 5 and 6 (Hyland and Wexler 1983).
 * Temperatures in °C, relative humidity in %, pressure in Pa.
 */
import { need } from '../numeric'

/** Where the saturation pressure below holds, °C: no air hotter than this is ever worked with, nor let in at a door. */
export const AIR_C = [-100, 200] as const
/** Relative humidity, %. */
export const RH_PERCENT = [0, 100] as const

/** Saturation pressure of water vapour in Pa, over ice below 0 °C; −100 to 200 °C. */
export function saturationPa(celsius: number): number {
  need('celsius', celsius, ...AIR_C, '°C')
  const t = celsius + 273.15
  const ln =
    celsius <= 0
      ? -5.6745359e3 / t +
        6.3925247 -
        9.677843e-3 * t +
        6.2215701e-7 * t ** 2 +
        2.0747825e-9 * t ** 3 -
        9.484024e-13 * t ** 4 +
        4.1635019 * Math.log(t)
      : -5.8002206e3 / t +
        1.3914993 -
        4.8640239e-2 * t +
        4.1764768e-5 * t ** 2 -
        1.4452093e-8 * t ** 3 +
        6.5459673 * Math.log(t)
  return Math.exp(ln)
}

/** Air that filament stands in, °C: as far as diffusivity is known. */
export const STANDS_C = [-40, AIR_C[1]] as const
/** Air that something stands in: °C as far as diffusivity is known, relative humidity in %. */
export function checkAir(a: { airC: number; rh: number }): void {
  need('airC', a.airC, ...STANDS_C, '°C')
  need('rh', a.rh, ...RH_PERCENT, '%')
}

/** Relative humidity in % of room air that is heated to `hotC` with its water unchanged. */
export function heatedRh(roomC: number, roomRh: number, hotC: number): number {
  need('roomRh', roomRh, ...RH_PERCENT, '%')
  return Math.min(100, (roomRh * saturationPa(roomC)) / saturationPa(hotC))
}

/** Relative humidity in % of air at `airC` that was dried to a dew point in °C. */
export function dewPointRh(dewC: number, airC: number): number {
  return Math.min(100, (100 * saturationPa(dewC)) / saturationPa(airC))
}
