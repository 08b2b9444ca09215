/**
 * What a spool's own hub stands in a dryer, °C. Common practice, no source: hubs sag well below their polymer's
 * melting.
 */
export const HUBS: Readonly<Record<string, number>> = {
  'cardboard': 100,
  'polystyrene': 65,
  'ABS': 80,
  'polypropylene': 85,
  'polycarbonate': 110,
  'high-temperature': 150,
  'metal': 200,
}

/** What a hub can be made of: the one list for form, schema and core. */
export const HUB_WORDS = Object.keys(HUBS) as [string, ...string[]]

/** Ceiling of a hub that nothing is known of. */
export const UNKNOWN_HUB_C = 60

/**
 * How hot a hub may get, °C, and whether that is known; a word that is not in the list counts as not known.
 *
 * @example
 * hubCeilingC('ABS').limitC // 80 (°C)
 */
export function hubCeilingC(hub: string): { limitC: number; known: boolean } {
  const key = Object.keys(HUBS).find(k => k.toLowerCase() === hub.trim().toLowerCase())
  return key ? { limitC: HUBS[key]!, known: true } : { limitC: UNKNOWN_HUB_C, known: false }
}
