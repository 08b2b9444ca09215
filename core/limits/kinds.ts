/* eslint-disable max-lines -- a table: the catalogue of part kinds */
/**
 * The kinds of parts a printer is made of, with start limits to be overridden by the maker's data sheet. Limits are as
 * rated; the guard band is taken off when they are used. Values are common practice, no source, unless the basis is a
 * material property; prices and minutes are invented start values.
 */
import { InputError } from '../numeric'
import type { Basis, Details, Part, Place, Role, Who } from './types'

export interface Kind {
  key: string
  role: Role
  limitC: number | null
  shortC?: number
  basis: Basis
  note: string
  details?: Details
  place?: Place
  /** Offered as a change, at this price. Null: described on printers, never proposed. */
  price: number | null
  minutes: number
  who: Who
  /** What it breaks elsewhere, or must be done after it. */
  after?: string
}

const kind = (role: Role, key: string, limitC: number | null, note: string, more: Partial<Kind> = {}): Kind => ({
  key,
  role,
  limitC,
  basis: 'practice',
  note,
  price: null,
  minutes: 30,
  who: 'technician',
  ...more,
})
const NTC = { element: 'ntc' as const, r25Ohm: 100_000, betaK: 3950, pullUpOhm: 4700 }
const NEW_SENSOR =
  'Set sensor type and limits in the firmware, retune the loop, and prove that runaway protection and an ' +
  'independent cut-out trip before it runs unattended.'

/** The catalogue of parts, each with its start limit in °C and its basis. */
export const KINDS: readonly Kind[] = [
  kind('heater', 'cartridge heater', 400, 'potted leads'),
  kind('heater', 'high-temperature cartridge heater', 550, 'mineral-insulated leads', {
    price: 35,
    minutes: 40,
    after: 'Retune the loop; check the wiring strain.',
  }),
  kind('sensor', 'bead thermistor, 10-bit reading', 300, 'seal, leads and drift stop it, not the bead', {
    details: { ...NTC, bits: 10 },
  }),
  kind('sensor', 'bead thermistor, 12-bit reading', 300, 'seal, leads and drift stop it, not the bead', {
    details: { ...NTC, bits: 12 },
  }),
  kind('sensor', 'platinum film sensor', 500, 'film range of class B, IEC 60751', {
    basis: 'material property',
    details: { element: 'platinum', r25Ohm: 1000, pullUpOhm: 4700, bits: 12 },
    price: 30,
    minutes: 60,
    after: NEW_SENSOR,
  }),
  kind('sensor', 'type K thermocouple', 700, 'sheath and lead', {
    details: { element: 'type K', countMicrovolt: 10 },
    price: 45,
    minutes: 75,
    after: NEW_SENSOR,
  }),
  kind(
    'liner',
    'PTFE liner to the nozzle',
    250,
    'creeps and fumes above; the liner makes the hotend unfit for nylon and hotter',
  ),
  kind('heat break', 'lined heat break', 400, 'steel tube bored for a liner'),
  kind('heat break', 'all-metal heat break', 500, 'no liner in the hot part', {
    price: 40,
    minutes: 60,
    after: 'Shorten retraction; watch for heat creep; check the cold-side fan.',
  }),
  kind('block', 'aluminium block', 350, 'softens above', { basis: 'material property' }),
  kind('block', 'plated copper block', 510, 'keeps its threads hot', {
    price: 55,
    minutes: 60,
    after: 'Retune the loop: a copper block heats slower.',
  }),
  kind('sock', 'silicone sock', 310, 'hardens and crumbles above', { basis: 'material property' }),
  kind('firmware', 'firmware ceiling', 300, 'highest temperature the firmware allows', { basis: 'nameplate' }),
  kind('firmware', 'firmware ceiling 350', 350, 'raised after the sensor was changed', {
    basis: 'nameplate',
    price: 0,
    minutes: 45,
    after: NEW_SENSOR,
  }),
  kind('firmware', 'firmware ceiling 480', 480, 'raised after the sensor was changed', {
    basis: 'nameplate',
    price: 0,
    minutes: 45,
    after: NEW_SENSOR,
  }),
  kind('gears', 'plain steel gears', null, 'fibre wears them', { details: { hardened: false } }),
  kind('gears', 'brass gears', null, 'fibre wears them fast', { details: { hardened: false } }),
  kind('gears', 'hardened gears', null, 'for fibre', {
    details: { hardened: true },
    price: 30,
    minutes: 45,
    after: 'Calibrate the steps per mm.',
  }),
  kind('feed tube', 'PTFE feed tube', 80, 'moderate chamber heat', { details: { bendMm: 90 } }),
  kind('feed tube', 'PEEK feed tube', 200, 'for a hot chamber', {
    basis: 'material property',
    details: { bendMm: 120 },
    price: 18,
    minutes: 25,
    after: 'Stiffer than PTFE: check its bends at both ends of travel.',
  }),
  kind('feed tube', 'PTFE feed tube led wide', 80, 'hung from above in one wide bend', {
    details: { bendMm: 120 },
    price: 6,
    minutes: 20,
  }),
  kind('feed tube', 'no feed tube', null, 'fed straight from above'),
  kind('other hotend part', 'other hotend part', null, ''),

  kind('bed heater', 'bed heater', 110, 'what it reaches', { basis: 'nameplate' }),
  kind('bed heater', 'strong bed heater', 125, 'what it reaches', { basis: 'nameplate' }),
  kind('bed heater', 'mains bed heater', 180, 'what it reaches', {
    basis: 'nameplate',
    details: { mains: true },
    price: 90,
    minutes: 180,
    who: 'electrician',
    after: 'Mains wiring: switched off, by a licensed electrician, to local code; with an earth and a thermal cut-out.',
  }),
  kind('bed sensor', 'bed thermistor', 250, 'rated 300; its glue stops it'),
  kind('bed wiring', 'bed wiring', 150, 'insulation of the leads'),
  kind('bed wiring', 'silicone bed wiring', 200, 'insulation of the leads', {
    basis: 'material property',
    price: 15,
    minutes: 60,
    who: 'electrician',
    after: 'Strain relief at both ends; mains leads by a licensed electrician.',
  }),
  kind('bed insulation', 'foam under the bed', 130, 'closed-cell foam'),
  kind('bed insulation', 'mineral wool under the bed', 400, 'no binder smell after the first heat', {
    basis: 'material property',
    price: 12,
    minutes: 40,
    after: 'Gloves and respirator: its fibres irritate.',
  }),
  kind('magnets', 'magnets, 120 grade', 120, 'strength falls with heat', { basis: 'material property' }),
  kind('magnets', 'magnets, 180 grade', 180, 'strength falls with heat', {
    basis: 'material property',
    price: 40,
    minutes: 90,
  }),
  kind('magnets', 'no magnets, sheet clipped', null, 'clips at the edge', {
    price: 8,
    minutes: 20,
    after: 'Clips take room: mind the travel limits.',
  }),
  kind('glue line', 'sheet glue line', 130, 'adhesive under the sheet'),
  kind('glue line', 'high-temperature glue line', 200, 'silicone transfer adhesive', { price: 15, minutes: 60 }),
  kind('sheet', 'PEI sheet', 180, 'below its glass transition, 217', {
    basis: 'material property',
    details: { surface: 'PEI' },
    price: 25,
    minutes: 5,
  }),
  kind('sheet', 'epoxy-glass laminate sheet', 165, 'G10', {
    details: { surface: 'epoxy-glass laminate' },
    price: 12,
    minutes: 5,
  }),
  kind('sheet', 'glass plate', 250, 'breaks by shock, not by heat', {
    details: { surface: 'glass' },
    price: 10,
    minutes: 5,
  }),
  kind('sheet', 'polycarbonate sheet', 135, 'below its glass transition, 147', {
    basis: 'material property',
    details: { surface: 'polycarbonate' },
    price: 14,
    minutes: 5,
  }),
  kind('other bed part', 'other bed part', null, ''),

  kind('printed parts', 'printed parts, PETG', 70, 'sag above', { basis: 'material property', place: 'high' }),
  kind('printed parts', 'printed parts, ABS or ASA', 90, 'sag above', {
    basis: 'material property',
    place: 'high',
    price: 8,
    minutes: 120,
  }),
  kind('printed parts', 'printed parts, PC', 100, 'sag above', {
    basis: 'material property',
    place: 'high',
    price: 12,
    minutes: 120,
  }),
  kind('printed parts', 'machined parts instead of printed ones', 250, 'aluminium', {
    basis: 'material property',
    place: 'high',
    price: 70,
    minutes: 120,
  }),
  kind('belts', 'belts', 80, 'rubber with glass cord', { place: 'high' }),
  kind('belts', 'high-temperature belts', 120, 'heat-resistant rubber', {
    place: 'high',
    price: 30,
    minutes: 90,
    after: 'Set the tension cold and check it hot.',
  }),
  kind('motors', 'motors', 75, 'air around them; the winding is hotter', { basis: 'nameplate', place: 'high' }),
  kind('motors', 'high-temperature motors', 110, 'air around them', {
    basis: 'nameplate',
    place: 'high',
    price: 120,
    minutes: 150,
  }),
  kind('fans', 'fans', 70, 'bearing grease', { basis: 'nameplate', place: 'high' }),
  kind('fans', 'high-temperature fans', 110, 'bearing grease', {
    basis: 'nameplate',
    place: 'high',
    price: 40,
    minutes: 45,
  }),
  kind('bearings', 'bearings', 110, 'grease and seals', { place: 'high' }),
  kind('glazing', 'acrylic glazing', 80, 'softens above', { basis: 'material property', place: 'high' }),
  kind('glazing', 'polycarbonate glazing', 120, 'below its glass transition, 147', {
    basis: 'material property',
    place: 'high',
    price: 35,
    minutes: 60,
  }),
  kind('glazing', 'glass glazing', 200, 'tempered', { place: 'high', price: 60, minutes: 60 }),
  kind('insulation', 'foam insulation', 100, 'and it burns', { place: 'high' }),
  kind('insulation', 'mineral wool insulation', 400, '', {
    basis: 'material property',
    place: 'high',
    price: 25,
    minutes: 90,
  }),
  kind('camera', 'camera', 60, 'its own electronics', { basis: 'nameplate', place: 'high' }),
  kind('camera', 'camera behind glass, outside', 60, 'in room air', {
    basis: 'nameplate',
    place: 'outside',
    price: 10,
    minutes: 40,
  }),
  kind('electronics', 'electronics', 60, 'fine at 50 to 60; towards 100 they go outside', { place: 'bay' }),
  kind('electronics', 'electronics moved outside', 60, 'in room air', {
    place: 'outside',
    price: 20,
    minutes: 180,
    who: 'electrician',
    after: 'Mains leads are lengthened: switched off, by a licensed electrician.',
  }),
  kind('other chamber part', 'other chamber part', null, '', { place: 'high' }),

  kind('enclosure', 'enclosure', null, 'its chamber map by practice: 65 to 70 °C near the top with the bed at 110', {
    details: { thetaLow: 0.43, thetaHigh: 0.52, thetaBay: 0.2, openThetaLow: 0.12, openThetaHigh: 0.18 },
  }),
  kind('enclosure', 'enclosure kit', null, 'its chamber map by practice, to be measured', {
    details: { thetaLow: 0.35, thetaHigh: 0.45, thetaBay: 0.2, openThetaLow: 0.1, openThetaHigh: 0.15 },
    price: 150,
    minutes: 180,
    after:
      'Every part inside now sits in warm air: map the chamber before the first long job. Smoke detector; no ' +
      'cardboard or foam inside.',
  }),
  kind('lid', 'lid', null, 'keeps the heat in'),
  kind('chamber heater', 'chamber heater', null, 'with its own cut-out', {
    basis: 'nameplate',
    details: { reachC: 100, mains: true },
  }),
  kind('dryer', 'filament dryer, 55', null, 'what it reaches', {
    basis: 'nameplate',
    details: { reachC: 55 },
    price: 50,
    minutes: 5,
  }),
  kind('dryer', 'filament dryer, 70', null, 'what it reaches', {
    basis: 'nameplate',
    details: { reachC: 70 },
    price: 90,
    minutes: 5,
  }),
  kind('dryer', 'filament dryer, 90', null, 'what it reaches', {
    basis: 'nameplate',
    details: { reachC: 90 },
    price: 180,
    minutes: 5,
  }),
  kind('dryer', 'drying oven, 160', null, 'what it reaches; never one that food goes in', {
    basis: 'nameplate',
    details: { reachC: 160 },
    price: 420,
    minutes: 30,
  }),
  kind('ventilation', 'no ventilation', null, '', { details: { level: 'none' } }),
  kind('ventilation', 'ventilated room', null, '', { details: { level: 'room ventilated' }, price: 30, minutes: 60 }),
  kind('ventilation', 'particle and carbon filter', null, '', {
    details: { level: 'filtered' },
    price: 80,
    minutes: 30,
  }),
  kind('ventilation', 'extraction outdoors', null, '', {
    details: { level: 'extracted outdoors' },
    price: 180,
    minutes: 180,
    after: 'Vented outdoors or filtered; it takes heat from the chamber too.',
  }),
]

const BY_KEY = new Map(KINDS.map(k => [k.key, k]))

/** The kind of this name. Throws InputError for an unknown one. */
export function kindOf(key: string): Kind {
  const k = BY_KEY.get(key)
  if (!k) throw new InputError('kind', key, 'a part kind of the catalogue')
  return k
}
/** Whether there is a kind of this name. */
export const isKind = (key: string) => BY_KEY.has(key)
/** All kinds of one role, in the catalogue's order. */
export const kindsOf = (role: Role) => KINDS.filter(k => k.role === role)

/** A part of this kind with its start values. */
export function partOf(key: string, id: number | string = key, headId: number | null = null): Part {
  const k = kindOf(key)
  return {
    id,
    kind: k.key,
    role: k.role,
    name: k.key,
    headId,
    place: k.place ?? 'high',
    limitC: k.limitC,
    shortC: k.shortC ?? null,
    basis: k.basis,
    note: k.note,
    details: { ...k.details },
  }
}
