/** What a nozzle's material means for the stack. Common practice, no source. */
import type { Filler, NozzleMaterial } from '../wear'
import type { FittedNozzle, Part } from './types'

/**
 * How much hotter the nozzle is set than with brass, °C: the range that practice gives, and whose upper end is reckoned
 * with.
 */
export const CONDUCTIVITY_OFFSET_C: Record<NozzleMaterial, readonly [number, number]> = {
  'brass': [0, 0],
  'plated copper': [0, 0],
  'stainless steel': [5, 10],
  'hardened steel': [5, 10],
  'ruby tip': [0, 0],
  'tungsten carbide': [0, 0],
  'polycrystalline diamond': [0, 0],
}
/** °C by which a nozzle of this material is set hotter than a brass one; the high end of what is usual. */
export const offsetC = (m: NozzleMaterial) => CONDUCTIVITY_OFFSET_C[m][1]

/** What the nozzle itself stands, °C. */
export const NOZZLE_LIMIT_C: Record<NozzleMaterial, number> = {
  'brass': 350,
  'plated copper': 450,
  'stainless steel': 500,
  'hardened steel': 500,
  'ruby tip': 450,
  'tungsten carbide': 450,
  'polycrystalline diamond': 450,
}

/** Mohs hardness, relative: brass 3, tungsten carbide 9, diamond 10; the steels are between. */
export const MOHS: Record<NozzleMaterial, number> = {
  'brass': 3,
  'plated copper': 3,
  'stainless steel': 5.5,
  'hardened steel': 7.5,
  'ruby tip': 9,
  'tungsten carbide': 9,
  'polycrystalline diamond': 10,
}
/** The least that a filler asks: hardened steel is the floor for fibre. */
export const FILLER_ASKS_MOHS: Record<Filler, number> = {
  'none': 0,
  'wood': 0,
  'metal powder': 5.5,
  'carbon fibre': 7.5,
  'glass fibre': 7.5,
  'glow pigment': 7.5,
}

/** Fillers that wear drive gears as well. */
export const isAbrasive = (f: Filler) => FILLER_ASKS_MOHS[f] >= 7.5

/** Start prices (about 20, 80, 160; others invented). */
export const NOZZLE_PRICE: Record<NozzleMaterial, number> = {
  'brass': 4,
  'plated copper': 15,
  'stainless steel': 10,
  'hardened steel': 20,
  'ruby tip': 80,
  'tungsten carbide': 80,
  'polycrystalline diamond': 160,
}

/** Minutes for a hot swap with Z set anew. */
export const NOZZLE_MINUTES = 20

const AS_PART = new WeakMap<FittedNozzle, Part>()
/** The nozzle as a part of the stack. */
export function nozzlePart(n: FittedNozzle): Part {
  let part = AS_PART.get(n)
  if (!part)
    AS_PART.set(
      n,
      (part = {
        id: n.id,
        kind: 'nozzle',
        role: 'nozzle',
        name: `${n.tag ? `${n.tag}, ` : ''}${n.material} ${n.boreMm}`,
        headId: n.headId,
        place: 'low',
        limitC: NOZZLE_LIMIT_C[n.material],
        shortC: null,
        basis: 'practice',
        note: n.insert ? 'insert in a body' : 'solid',
        details: {},
      }),
    )
  return part
}
