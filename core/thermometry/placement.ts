/**
 * Where a reference sits while a sensor is checked. Only in the block's own hole (or the bed's or chamber's equivalent)
 * does it see what the sensor sees; elsewhere it loses heat along its stem and reads low, so it can only say "at least
 * this hot". Uncertainties and losses in °C: common practice, no source; the loss at the tip from memory.
 */
import { needOne } from '../numeric'

/** What a sensor measures. */
export const SENSED = ['hotend', 'bed', 'chamber'] as const
export type Sensed = (typeof SENSED)[number]

/** Where a reference may sit, for each zone the best first. */
export const PLACEMENTS = [
  'in the block',
  'on the block',
  'at the tip',
  'in the bed',
  'on the sheet',
  'beside the sensor',
] as const
export type Placement = (typeof PLACEMENTS)[number]

export interface PlacementFacts {
  zone: Sensed
  /** It sees what the sensor sees: its correction may also permit. */
  own: boolean
  /** Standard uncertainty of the place itself. */
  uC: number
  /** How much too low it reads there; null where it does not. */
  lowC: readonly [number, number] | null
  /** How it is done, as an order. */
  how: string
}

const FACTS: Record<Placement, PlacementFacts> = {
  'in the block': {
    zone: 'hotend',
    own: true,
    uC: 0.5,
    lowC: null,
    how: 'In a hole of the block itself, as deep as it goes, with thermal paste that stands the heat.',
  },
  'on the block': {
    zone: 'hotend',
    own: false,
    uC: 1,
    lowC: [1, 10],
    how: 'Pressed to the outside of the block: it loses heat to the air.',
  },
  'at the tip': {
    zone: 'hotend',
    own: false,
    uC: 1,
    lowC: [5, 20],
    how: 'Touched to the nozzle tip: it loses heat along its stem.',
  },
  'in the bed': {
    zone: 'bed',
    own: true,
    uC: 0.5,
    lowC: null,
    how: 'In a hole or groove of the plate, or taped to it under insulation, beside the sensor.',
  },
  'on the sheet': {
    zone: 'bed',
    own: false,
    uC: 1,
    lowC: [2, 15],
    how: 'Touched to the build surface: it loses heat to the air, and the sheet is cooler than the plate.',
  },
  'beside the sensor': {
    zone: 'chamber',
    own: true,
    uC: 0.5,
    lowC: null,
    how: 'Within 10 mm of the chamber sensor, shielded from sight of the bed.',
  },
}

/** What is known of a place. */
export function placementOf(p: Placement): PlacementFacts {
  needOne('placement', p, PLACEMENTS)
  return FACTS[p]
}
/** The places at which a sensor of a zone is checked, the best first. */
export const placementsOf = (zone: Sensed): Placement[] => PLACEMENTS.filter(p => FACTS[p].zone === zone)
