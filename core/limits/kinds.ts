/* eslint-disable max-lines -- a table: the catalogue of part kinds */
/**
 * The kinds of parts a printer is made of, with start limits to be overridden by the maker's data sheet: a part that
 * nobody has entered a limit for says "start value". Limits are as rated; the guard band is taken off when they are
 * used. Values are common practice, no source, unless `of` says that they are a property of the material (from memory);
 * prices and minutes are invented start values.
 */
import { InputError } from '../numeric'
import { HOT_AIR, KIT_AIR, PRACTICE_AIR } from './air'
import type { Basis, Details, Part, Place, Role, Who } from './types'

export interface Kind {
  key: string
  /** What a part of it is called: without the number in its key, which its limit may come to contradict. */
  name: string
  role: Role
  limitC: number | null
  shortC?: number
  /** Where the start value comes from. */
  of: Extract<Basis, 'practice' | 'material property'>
  note: string
  details?: Details
  /** Start values of the air in an enclosure of this kind. */
  air?: typeof PRACTICE_AIR
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
  name: key,
  role,
  limitC,
  of: 'practice',
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
    of: 'material property',
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
  kind('block', 'aluminium block', 350, 'softens above', { of: 'material property' }),
  kind('block', 'plated copper block', 510, 'keeps its threads hot', {
    price: 55,
    minutes: 60,
    after: 'Retune the loop: a copper block heats slower.',
  }),
  kind('sock', 'silicone sock', 310, 'hardens and crumbles above', { of: 'material property' }),
  kind('firmware', 'firmware ceiling', 300, 'highest temperature the firmware allows'),
  kind('firmware', 'firmware ceiling 350', 350, 'raised after the sensor was changed', {
    name: 'firmware ceiling',
    price: 0,
    minutes: 45,
    after: NEW_SENSOR,
  }),
  kind('firmware', 'firmware ceiling 480', 480, 'raised after the sensor was changed', {
    name: 'firmware ceiling',
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
    of: 'material property',
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

  kind('bed heater', 'bed heater', 110, 'what it reaches'),
  kind('bed heater', 'strong bed heater', 125, 'what it reaches'),
  kind('bed heater', 'mains bed heater', 180, 'what it reaches', {
    details: { mains: true },
    price: 90,
    minutes: 180,
    who: 'electrician',
    after: 'Mains wiring: switched off, by a licensed electrician, to local code; with an earth and a thermal cut-out.',
  }),
  kind('bed sensor', 'bed thermistor', 250, 'rated 300; its glue stops it'),
  kind('bed wiring', 'bed wiring', 150, 'insulation of the leads'),
  kind('bed wiring', 'silicone bed wiring', 200, 'insulation of the leads', {
    of: 'material property',
    price: 15,
    minutes: 60,
    who: 'electrician',
    after: 'Strain relief at both ends; mains leads by a licensed electrician.',
  }),
  kind('bed insulation', 'foam under the bed', 130, 'closed-cell foam'),
  kind('bed insulation', 'mineral wool under the bed', 400, 'no binder smell after the first heat', {
    of: 'material property',
    price: 12,
    minutes: 40,
    after: 'Gloves and respirator: its fibres irritate.',
  }),
  kind('magnets', 'magnets, ordinary grade', 80, 'strength falls with heat', {
    of: 'material property',
    name: 'magnets',
  }),
  kind('magnets', 'magnets, 120 grade', 120, 'strength falls with heat', { of: 'material property', name: 'magnets' }),
  kind('magnets', 'magnets, 150 grade', 150, 'strength falls with heat', {
    of: 'material property',
    name: 'magnets',
    price: 30,
    minutes: 90,
  }),
  kind('magnets', 'magnets, 180 grade', 180, 'strength falls with heat', {
    of: 'material property',
    name: 'magnets',
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
    of: 'material property',
    details: { surface: 'PEI' },
    price: 25,
    minutes: 5,
  }),
  kind('sheet', 'epoxy-glass laminate sheet', 135, 'ordinary grade: 130 to 140 continuous', {
    details: { surface: 'epoxy-glass laminate' },
    price: 12,
    minutes: 5,
  }),
  kind('sheet', 'high-temperature laminate sheet', 170, 'epoxy-glass laminate of a high-temperature grade', {
    details: { surface: 'epoxy-glass laminate' },
    price: 28,
    minutes: 5,
  }),
  kind('sheet', 'carbon-fibre plate', 150, 'its resin stops it', {
    details: { surface: 'carbon fibre plate' },
    price: 35,
    minutes: 5,
  }),
  kind('sheet', 'polypropylene sheet', 105, 'softens above', {
    of: 'material property',
    details: { surface: 'polypropylene' },
    price: 12,
    minutes: 5,
  }),
  kind('sheet', 'glass plate', 250, 'breaks by shock, not by heat', {
    details: { surface: 'glass' },
    price: 10,
    minutes: 5,
  }),
  kind('sheet', 'polycarbonate sheet', 135, 'below its glass transition, 147', {
    of: 'material property',
    details: { surface: 'polycarbonate' },
    price: 14,
    minutes: 5,
  }),
  kind('other bed part', 'other bed part', null, ''),

  kind('printed parts', 'printed parts, PETG', 70, 'sag above', { of: 'material property', place: 'low' }),
  kind('printed parts', 'printed parts, ABS or ASA', 90, 'sag above', {
    of: 'material property',
    place: 'low',
    price: 8,
    minutes: 120,
  }),
  kind('printed parts', 'printed parts, PC', 100, 'sag above', {
    of: 'material property',
    place: 'low',
    price: 12,
    minutes: 120,
  }),
  kind('printed parts', 'machined parts instead of printed ones', 250, 'aluminium', {
    of: 'material property',
    place: 'low',
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
  kind('motors', 'motors', 75, 'practice; up to what is printed on the case. Air around them: the winding is hotter', {
    place: 'high',
  }),
  kind('motors', 'high-temperature motors', 110, 'air around them', {
    place: 'high',
    price: 120,
    minutes: 150,
  }),
  kind('fans', 'fans', 70, 'bearing grease', { place: 'low' }),
  kind('fans', 'high-temperature fans', 110, 'bearing grease', {
    place: 'low',
    price: 40,
    minutes: 45,
  }),
  kind('bearings', 'linear bearings, plastic end caps', 80, 'the end caps and their seals stop them', { place: 'low' }),
  kind('bearings', 'bearings, metal shields', 110, 'grease and seals', { place: 'low', price: 45, minutes: 120 }),
  kind('glazing', 'acrylic glazing', 80, 'softens above', { of: 'material property', place: 'high' }),
  kind('glazing', 'polycarbonate glazing', 120, 'below its glass transition, 147', {
    of: 'material property',
    place: 'high',
    price: 35,
    minutes: 60,
  }),
  kind('glazing', 'glass glazing', 200, 'tempered', { place: 'high', price: 60, minutes: 60 }),
  kind('insulation', 'foam insulation', 75, 'kind of foam not known, taken as polystyrene; and it burns', {
    place: 'high',
  }),
  kind('insulation', 'polystyrene foam insulation', 75, 'and it burns', { of: 'material property', place: 'high' }),
  kind('insulation', 'polyisocyanurate foam insulation', 120, 'chars before it burns', { place: 'high' }),
  kind('insulation', 'melamine foam insulation', 150, 'goes out by itself', { place: 'high' }),
  kind('insulation', 'mineral wool insulation', 400, '', {
    of: 'material property',
    place: 'high',
    price: 25,
    minutes: 90,
  }),
  kind('camera', 'camera', 60, 'its own electronics', { place: 'high' }),
  kind('camera', 'camera behind glass, outside', 60, 'in room air', {
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

  kind('enclosure', 'enclosure', null, 'lined; its air by practice: 65 to 70 °C near the top with the bed at 110', {
    air: PRACTICE_AIR,
  }),
  kind('enclosure', 'enclosure kit', 80, 'its panels; it leaks', {
    air: KIT_AIR,
    price: 150,
    minutes: 180,
    after:
      'Every part inside now sits in warm air: map the chamber before the first long job. Smoke detector; no ' +
      'cardboard or foam inside.',
  }),
  kind('enclosure', 'heated enclosure', null, 'of a machine built hot, its electronics outside', { air: HOT_AIR }),
  kind('enclosure', 'lined enclosure', null, 'mineral wool behind sheet metal', {
    air: PRACTICE_AIR,
    price: 40,
    minutes: 180,
    after: 'Hotter near bed and head than near the top: record a warm-up before the first long job.',
  }),
  kind('lid', 'lid', null, 'keeps the heat in'),
  kind('lid', 'lid on a riser', null, 'lets air through all around', {
    details: { opening: 'raised' },
    price: 8,
    minutes: 15,
    after: 'Costs chamber heat and layer adhesion.',
  }),
  kind('lid', 'lid with a regulated vent', null, 'mixes in room air above a set temperature', {
    details: { opening: 'vent open' },
    price: 30,
    minutes: 60,
    after: 'Set it below the weakest part inside.',
  }),
  kind('chamber heater', 'chamber heater', null, 'with its own cut-out', { details: { reachC: 100, mains: true } }),
  kind('chamber heater', 'chamber heater kit', null, 'what such kits reach, with its own cut-out', {
    details: { reachC: 80, mains: true },
    price: 190,
    minutes: 240,
    who: 'electrician',
    after:
      'Mains wiring: switched off, by a licensed electrician, to local code, with a thermal cut-out of its own. ' +
      'Every part inside sits in its heat.',
  }),
  kind('chamber sensor', 'chamber thermistor', null, 'it sees one place only'),
  kind('dryer', 'filament dryer, 55', null, 'what it reaches', {
    name: 'filament dryer',
    details: { reachC: 55 },
    price: 50,
    minutes: 5,
  }),
  kind('dryer', 'filament dryer, 70', null, 'what it reaches', {
    name: 'filament dryer',
    details: { reachC: 70 },
    price: 90,
    minutes: 5,
  }),
  kind('dryer', 'filament dryer, 90', null, 'what it reaches', {
    name: 'filament dryer',
    details: { reachC: 90 },
    price: 180,
    minutes: 5,
  }),
  kind('dryer', 'drying oven, 160', null, 'what it reaches; never one that food goes in', {
    name: 'drying oven',
    details: { reachC: 160 },
    price: 420,
    minutes: 30,
  }),
  kind('dryer', 'vacuum dryer', null, 'what it reaches; water leaves at less heat', {
    details: { reachC: 110 },
    price: 650,
    minutes: 20,
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
/** Kinds as they were called in stacks written out before; read as what they most likely are. */
for (const [was, is] of [['bearings', 'linear bearings, plastic end caps']] as const) BY_KEY.set(was, BY_KEY.get(is)!)

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
    name: k.name,
    headId,
    place: k.place ?? 'high',
    limitC: k.limitC,
    shortC: k.shortC ?? null,
    basis: 'start value',
    note: k.note,
    details: { ...k.details },
  }
}
