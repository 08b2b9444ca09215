/**
 * Start values, invented and meant to be replaced by the shop's own data ("common practice, no source").
 * Rates are for a 0.4 mm bore, per kg of wear mass.
 */
export const NOZZLE_MATERIALS = [
  'brass',
  'plated copper',
  'stainless steel',
  'hardened steel',
  'ruby tip',
  'tungsten carbide',
  'polycrystalline diamond',
] as const
export type NozzleMaterial = (typeof NOZZLE_MATERIALS)[number]

/** Bore growth κ, mm per kg. */
export const START_BORE_RATE: Record<NozzleMaterial, number> = {
  'brass': 1.0,
  'plated copper': 0.8,
  'stainless steel': 0.3,
  'hardened steel': 0.03,
  'ruby tip': 0.003,
  'tungsten carbide': 0.004,
  'polycrystalline diamond': 0.0008,
}

/** Tip loss, mm per kg. */
export const START_TIP_RATE: Record<NozzleMaterial, number> = {
  'brass': 0.3,
  'plated copper': 0.3,
  'stainless steel': 0.1,
  'hardened steel': 0.015,
  'ruby tip': 0.002,
  'tungsten carbide': 0.002,
  'polycrystalline diamond': 0.0005,
}

/** Spread of ln rate when nothing is known but the material. */
export const START_SIGMA = 0.8

/** What filament is filled with. */
export const FILLERS = ['none', 'carbon fibre', 'glass fibre', 'glow pigment', 'metal powder', 'wood'] as const
export type Filler = (typeof FILLERS)[number]

/** Abrasivity, carbon fibre 1. For an unfilled filament it is applied to the extruded mass. */
export const START_ABRASIVITY: Record<Filler, number> = {
  'none': 0.002,
  'carbon fibre': 1,
  'glass fibre': 1.2,
  'glow pigment': 1.5,
  'metal powder': 0.5,
  'wood': 0.1,
}

/** Uncertainties (k = 1) when none is entered, mm. */
export const PIN_U_MM = 0.003
/** Standard uncertainty of a tip length by caliper, mm; common practice, no source. */
export const TIP_U_MM = 0.01
/** Of the tip length as made, when it was not measured at receipt, mm. */
export const TIP_RECEIPT_U_MM = 0.03

/** Chance of being past the limit at which a gauge is due. */
export const ACCEPTED_RISK = 0.1
