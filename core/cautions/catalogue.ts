/* eslint-disable max-lines -- one list: every caution */
/**
 * Cautions with what triggers them: a material, a temperature in °C, a part, an action. Source: common practice, no
 * source. A caution is shown when every kind of trigger that it names is met by one of its entries; a temperature is
 * met from its value on.
 */
import { SETPOINT_C } from '../gcode'
import { needEach, needOne } from '../numeric'

/** Stands under every list of cautions. */
export const FIRST = "The maker's manual, local codes and licensed practice come first."

/** Among the roles of a moment: a silicone sock that does not stand the job. */
export const SOCK_OFF = 'sock off'

export const ACTIONS = [
  'print',
  'swap a nozzle',
  'unpack',
  'fit a part',
  'wire',
  'trim',
  'dry',
  'anneal',
  'clear a clog',
  'test it hot',
  'check a sensor',
  'survey a chamber',
  'plan an enclosure',
  'prove a cut-out',
  'level a bed',
] as const
export type Action = (typeof ACTIONS)[number]

export interface Moment {
  action: Action
  polymers?: readonly string[]
  fillers?: readonly string[]
  nozzleC?: number | null
  bedC?: number | null
  chamberC?: number | null
  /** A chamber heater works. */
  heated?: boolean
  /** Roles of the parts that are there or are being worked on. */
  roles?: readonly string[]
  /** Sheets and adhesives in use. */
  surfaces?: readonly string[]
  /** The part is packed in sand. */
  inSand?: boolean
}

export interface Caution {
  key: string
  hazard: string
  what: string
  actions: readonly Action[]
  polymers?: readonly string[]
  fillers?: readonly string[]
  roles?: readonly string[]
  surfaces?: readonly string[]
  inSand?: true
  nozzleFromC?: number
  bedFromC?: number
  chamberFromC?: number
  /** Any one of these is enough. */
  anyOf?: readonly { nozzleFromC?: number; bedFromC?: number; heated?: true }[]
}

/** Hazards of the trade and what keeps one safe, in the order they are shown; common practice, no source. */
export const CAUTIONS: readonly Caution[] = [
  {
    key: 'burns',
    hazard: 'Burns: nozzle, bed, sheet and part are hot at once and for a long time.',
    what: 'Heat gloves and tools, never a bare hand; mind what is beside your sleeve.',
    actions: [
      'print',
      'swap a nozzle',
      'clear a clog',
      'check a sensor',
      'prove a cut-out',
      'test it hot',
      'level a bed',
    ],
    nozzleFromC: 150,
  },
  {
    key: 'hot bed',
    hazard: 'A bed this hot burns at a touch.',
    what: 'Mark it; heat gloves until it is below 45 °C.',
    actions: ['print', 'check a sensor', 'survey a chamber', 'test it hot', 'level a bed'],
    bedFromC: 60,
  },
  {
    key: 'fumes',
    hazard: 'Fumes and ultrafine particles.',
    what: 'Ventilate, extract or filter while it runs and while it cools.',
    actions: ['print', 'test it hot'],
    nozzleFromC: 230,
  },
  {
    key: 'sulphur',
    hazard: 'PPS gives off gases that smell of sulphur when it is too hot or stands in the nozzle.',
    what: 'Extract outdoors; stop and purge when it smells; do not leave it standing hot.',
    actions: ['print', 'clear a clog'],
    polymers: ['PPS'],
  },
  {
    key: 'ptfe',
    hazard: 'Overheated PTFE gives off dangerous fumes.',
    what: 'Keep the liner and the tube below their limits; leave the room and air it when it was overheated.',
    actions: ['print', 'swap a nozzle', 'fit a part'],
    roles: ['liner'],
    nozzleFromC: 230,
  },
  {
    key: 'sock',
    hazard: 'The silicone sock does not stand this job: it crumbles and smokes.',
    what: 'Take it off cold, before heating. The bare block then burns at a touch, and the part fan cools it.',
    actions: ['print'],
    roles: [SOCK_OFF],
  },
  {
    key: 'fibre dust',
    hazard: 'Carbon and glass dust irritates lungs, eyes and skin.',
    what: 'Respirator and gloves when trimming or sanding; wet or vacuum, no compressed air.',
    actions: ['print', 'trim'],
    fillers: ['carbon fibre', 'glass fibre'],
  },
  {
    key: 'conductive',
    hazard: 'Carbon dust conducts.',
    what: 'Keep it away from electronics and switch off before you clean there.',
    actions: ['print', 'trim'],
    fillers: ['carbon fibre'],
  },
  {
    key: 'fire',
    hazard: 'Fire: high heat that runs unattended.',
    what:
      'Smoke detector and an independent thermal cut-out; no foam and no cardboard inside; do not leave it ' +
      'alone until the cut-out is proved.',
    actions: ['print', 'plan an enclosure', 'prove a cut-out'],
    anyOf: [{ nozzleFromC: 300 }, { bedFromC: 100 }, { heated: true }],
  },
  {
    key: 'hot chamber',
    hazard: 'The air inside burns lungs and softens parts.',
    what: 'Open the door slowly and stand aside; reach in with heat gloves, or when it has cooled.',
    actions: ['print'],
    chamberFromC: 60,
  },
  {
    key: 'glass',
    hazard: 'Glass breaks, and parts that cool on it pull chips out.',
    what: 'Take the part off while warm, in heat gloves, eye protection on; keep a spare sheet; scrap a chipped one.',
    actions: ['print', 'fit a part'],
    surfaces: ['glass'],
  },
  {
    key: 'superglue',
    hazard: 'Hot superglue irritates eyes and lungs and tears glass.',
    what: 'Do not heat it without extraction; prefer glue stick.',
    actions: ['print'],
    surfaces: ['superglue'],
  },
  {
    key: 'mains',
    hazard: 'Mains voltage on beds and chamber heaters kills.',
    what: 'Switched off and locked; done by a licensed electrician to local code, with earth and cut-out.',
    actions: ['wire', 'plan an enclosure', 'prove a cut-out'],
  },
  {
    key: 'sensor',
    hazard: 'A wrong sensor type or limit lets the heater run away.',
    what:
      'Set type and limits, then prove that runaway protection and an independent cut-out trip, before it ' +
      'runs unattended.',
    actions: ['fit a part'],
    roles: ['sensor', 'firmware', 'heater', 'bed sensor', 'bed heater', 'chamber heater', 'chamber sensor'],
  },
  {
    key: 'turning',
    hazard: 'Nozzles shear off in the block, and fragments fly.',
    what: 'Heat first; hold the block with a second wrench; snug and a little more; eye protection.',
    actions: ['swap a nozzle'],
  },
  {
    key: 'gloves',
    hazard: 'Nitrile and latex gloves melt onto the skin.',
    what: 'Dry heat gloves that reach over the wrist; never a bare hand, never thin gloves under them alone.',
    actions: ['swap a nozzle', 'clear a clog', 'test it hot'],
  },
  {
    key: 'cold reading',
    hazard: 'A broken or loose thermistor reads cold while the block is hot.',
    what: 'What the printer shows never tells that something may be touched: hold a probe to it, or treat it as hot.',
    actions: ['swap a nozzle', 'clear a clog', 'test it hot'],
  },
  {
    key: 'heavy',
    hazard: 'Printers are heavy: backs, fingers and toes.',
    what: 'Two people or a lift; at the frame; a clear way and a bench that bears it.',
    actions: ['unpack'],
  },
  {
    key: 'pinch',
    hazard: 'A bed or gantry that moves pinches, and starts without warning.',
    what: 'Hands out before anything is told to move; sleeves and hair tied back.',
    actions: ['level a bed'],
  },
  {
    key: 'falling axis',
    hazard: 'An axis that falls when its motor lets go pinches, and drives the nozzle into the bed.',
    what: 'A block under it before the motors are off; hands out from below; the block away before they are on.',
    actions: ['swap a nozzle'],
  },
  {
    key: 'live leads',
    hazard: 'Moving axes pinch; a tool across heater leads shorts them.',
    what: 'Motion disabled; keep tools off the leads.',
    actions: ['swap a nozzle', 'fit a part'],
  },
  {
    key: 'plugs',
    hazard: 'A plug in the wrong port, or only half in, chars, or heats what nobody measures.',
    what: 'Power isolated; plug and port written down and photographed first; each one pushed home and tugged.',
    actions: ['fit a part'],
    roles: ['heater', 'sensor'],
  },
  {
    key: 'probe leads',
    hazard: 'A bare probe across heater leads shorts them, and on a mains bed it can be live.',
    what: 'Switched off and cold while it is put in place; leads led away from heater and axes; motion disabled.',
    actions: ['check a sensor', 'survey a chamber'],
  },
  {
    key: 'insulation fibres',
    hazard: 'Mineral fibres irritate skin and lungs.',
    what: 'Respirator and gloves; cover it so that no air blows over it.',
    actions: ['fit a part', 'plan an enclosure'],
    roles: ['insulation', 'bed insulation'],
  },
  {
    key: 'torch',
    hazard: 'Burning a nozzle out with a torch: fumes, fire, oxidation, thermal shock.',
    what: 'Advised against; never with plated, brass or insert nozzles. Needles and cold pulls first.',
    actions: ['clear a clog'],
  },
  {
    key: 'dryer',
    hazard: 'Hot dryers and beds under covers start fires; an oven that dried filament is no longer for food.',
    what: 'Attended, on a spacer, under a cover that does not burn; the time-out stays on; never a food oven.',
    actions: ['dry'],
  },
  {
    key: 'hot part',
    hazard: 'Burns: oven, tray and part stay hot for hours after it is switched off, and a soft part sticks.',
    what: 'Heat gloves; open the door from the side; let it come down inside before you take it out.',
    actions: ['anneal'],
  },
  {
    key: 'anneal fumes',
    hazard: 'Fumes: hot plastic gives them off for as long as it is held.',
    what: 'Extract or stand it where nobody breathes; open it into the extraction.',
    actions: ['anneal'],
  },
  {
    key: 'oven fire',
    hazard: 'Fire: an oven that runs for hours; one that held plastic is no longer for food.',
    what: 'Attended, nothing that burns in it or on it; time-out and thermal cut-out stay on; never a food oven.',
    actions: ['anneal'],
  },
  {
    key: 'damp sand',
    hazard: 'Damp sand turns its water to steam: it spits, and a closed box bursts.',
    what: 'Dry the sand alone first, in a thin layer, above 100 °C; no lid that seals; never wet sand on a hot tray.',
    actions: ['anneal'],
    inSand: true,
  },
  {
    key: 'hot sand',
    hazard: 'Sand stays hot long after the oven shows room temperature, and it is heavy and runs.',
    what: 'A steel tray with handles, not too full; measure the middle before you dig the part out, in heat gloves.',
    actions: ['anneal'],
    inSand: true,
  },
  {
    key: 'silica dust',
    hazard: 'Dust of quartz sand scars the lungs for good.',
    what: 'Respirator; pour low and slowly; wipe wet or vacuum with a fine filter, never sweep or blow.',
    actions: ['anneal'],
    inSand: true,
  },
]

const oneOf = (asked: readonly string[] | undefined, given: readonly string[] | undefined) =>
  asked === undefined || (given ?? []).some(g => asked.includes(g))
const from = (limit: number | undefined, given: number | null | undefined) =>
  limit === undefined || (given != null && given >= limit)

/** Cautions by their keys, for a step that names its own. Throws InputError for a key that there is none of. */
export const cautionsNamed = (...keys: string[]): Caution[] =>
  keys.map(key => {
    needOne(
      'key',
      key,
      CAUTIONS.map(c => c.key),
    )
    return CAUTIONS.find(c => c.key === key)!
  })

/**
 * The cautions of a moment, in the catalogue's order; temperatures in °C. What is not known of the moment (null) raises
 * none of the cautions that begin at a temperature.
 *
 * @example
 * cautionsFor({ action: 'wire' }).length > 0 // true
 */
export function cautionsFor(m: Moment): Caution[] {
  needEach(m, ['nozzleC', 'bedC', 'chamberC'], ...SETPOINT_C, '°C')
  return CAUTIONS.filter(
    c =>
      c.actions.includes(m.action) &&
      oneOf(c.polymers, m.polymers) &&
      oneOf(c.fillers, m.fillers) &&
      oneOf(c.roles, m.roles) &&
      oneOf(c.surfaces, m.surfaces) &&
      (c.inSand === undefined || m.inSand === true) &&
      from(c.nozzleFromC, m.nozzleC) &&
      from(c.bedFromC, m.bedC) &&
      from(c.chamberFromC, m.chamberC) &&
      (c.anyOf === undefined ||
        c.anyOf.some(
          a =>
            from(a.nozzleFromC, m.nozzleC) && from(a.bedFromC, m.bedC) && (a.heated === undefined || m.heated === true),
        )),
  )
}
