/**
 * What a careful technician answers for each material on each printer of the demo, with the part that decides and a
 * word why. Written down before the code was changed to give it; common practice, no source. Worked out by hand from
 * the parts of `demo/shop.ts`, the windows of the trade, the guard bands of 10 and 5 °C, and the air: Ribble by its own
 * warm-up near the top (0.55, so 0.65 near bed and head), Wharfe by its map (0.38 and 0.45), Calder by its own warm-up
 * with the heater (0 at the top), Swale by what such machines start with (4 °C less than set at the top).
 */
export type Told = 'runs' | 'just' | 'changes' | 'cannot' | 'cannot tell'
/** Class, the role that decides (or roles that tie), why. */
export type Answer = readonly [told: Told, decides: string, why: string]

export const COLUMNS = ['Calder', 'Ribble', 'Wharfe', 'Aire', 'Swale', 'Nidd'] as const

const WARM: Answer = ['just', 'enclosure', 'a closed warm box softens it in the heat break: take the lid off']
const COOL_BOX: Answer = ['runs', 'enclosure', 'this box stays cool enough with the lid on']
const TUBE: Answer = ['changes', 'feed tube', 'the drag chain bends filled PLA tighter than it stands']
const SOFT: Answer = ['changes', 'nozzle', 'the filler eats this nozzle']
const SHEET: Answer = ['changes', 'sheet', 'polypropylene holds on polypropylene only']
const BY_ITS_SHEET: Answer = ['cannot tell', 'none', 'a support has the temperatures of its partner and its own sheet']
const KIT: Answer = ['cannot', 'enclosure', 'an open frame boxed in with a kit never stands this chamber']
const SENSOR: Answer = ['changes', 'sensor', 'a 300 sensor stops at 290']
const LINER: Answer = ['changes', 'liner', 'the liner ends at 230']
const HEATER: Answer = ['runs', 'chamber heater', 'the chamber heater is nearest to its end']
const NOT_MAPPED: Answer = ['just', 'chamber heater', 'set 94 of 95 on air that nobody has mapped: measure it']
const MOTORS: Answer = ['runs', 'motors', 'the motors are nearest to their limit']
const FANS: Answer = ['runs', 'fans', 'the head fans are nearest to their limit']
const MAGNETS: Answer = ['runs', 'magnets', 'bed 160 of magnets good for 165: the guard band is used up']

const nearTop = 'by its own warm-up 65 °C near the top, and its printed idler stops at 65; fans near the head are over'
const PLA_FILLED: readonly Answer[] = [WARM, TUBE, TUBE, SOFT, WARM, SOFT]
const PETG_FILLED: readonly Answer[] = [WARM, WARM, COOL_BOX, SOFT, WARM, SOFT]
const STYRENE: readonly Answer[] = [
  MOTORS,
  ['just', 'fans', nearTop],
  FANS,
  LINER,
  MOTORS,
  ['changes', 'ventilation', 'styrene fumes ask for a filter'],
]
const NYLON_FILLED: readonly Answer[] = [
  MOTORS,
  ['runs', 'fans', 'with a bed of 80 the chamber holds 50 and nothing in it is near its limit'],
  FANS,
  LINER,
  MOTORS,
  SOFT,
]
const HOT: readonly Answer[] = [HEATER, SENSOR, SENSOR, KIT, NOT_MAPPED, KIT]
const FULL_BED: Answer = [
  'runs',
  'bed heater, sensor, firmware',
  'bed 120 of 120 and 290 of 290: practice, nothing left',
]
const PC_ON_RIBBLE: Answer = ['changes', 'glue line', 'the glue line under the sheet stops at 110']
const PC_ON_SWALE: Answer = ['runs', 'firmware', 'the high-flow head stops at 300']

export const TECHNICIAN: Readonly<Record<string, readonly Answer[]>> = {
  'PLA': [WARM, WARM, COOL_BOX, ['runs', 'liner', '200 of 230'], WARM, ['runs', 'bed heater', '50 of 100']],
  'PLA-CF15': PLA_FILLED,
  'PLA glow': PLA_FILLED,
  'PETG': [
    WARM,
    WARM,
    COOL_BOX,
    ['runs', 'liner', '230 of 230: the guard band is used up, nothing is uncertain'],
    WARM,
    ['runs', 'bed heater', '70 of 100'],
  ],
  'PETG-GF10': PETG_FILLED,
  'PETG-CF10': PETG_FILLED,
  'ABS': STYRENE,
  'ASA': STYRENE,
  'PC': [
    ['runs', 'fans, bearings', 'bed 120 warms the head to 81 of 105'],
    PC_ON_RIBBLE,
    FULL_BED,
    LINER,
    PC_ON_SWALE,
    ['changes', 'enclosure', 'polycarbonate wants an enclosure'],
  ],
  'PC-CF10': [
    ['runs', 'fans, bearings', 'bed 120 warms the head to 81 of 105'],
    PC_ON_RIBBLE,
    FULL_BED,
    LINER,
    PC_ON_SWALE,
    SOFT,
  ],
  'PA6-CF20': NYLON_FILLED,
  'PA12-CF15': NYLON_FILLED,
  'PA6-GF25': NYLON_FILLED,
  'PA12': [
    MOTORS,
    ['runs', 'printed parts', 'with the bed at 70 all is well inside'],
    FANS,
    LINER,
    MOTORS,
    ['changes', 'ventilation', 'nylon asks for a filter'],
  ],
  'PPA-CF20': [HEATER, SENSOR, SENSOR, LINER, ['runs', 'firmware', '290 of the 300 of the high-flow head'], SOFT],
  'PPS': [MAGNETS, SENSOR, SENSOR, LINER, ['runs', 'bed heater', 'bed 160 of 160'], SENSOR],
  'PPS-CF15': [MAGNETS, SENSOR, SENSOR, LINER, ['runs', 'bed heater', 'bed 160 of 160'], SOFT],
  'PEEK': HOT,
  'PEEK-CF10': HOT,
  'PEEK-GF20': HOT,
  'PEI': HOT,
  'PPSU': HOT,
  'PSU': HOT,
  'LCP': HOT,
  'PEKK-CF10': [HEATER, SENSOR, SENSOR, KIT, ['runs', 'chamber heater', 'set 84 of 95'], KIT],
  'TPU': [
    COOL_BOX,
    COOL_BOX,
    COOL_BOX,
    ['runs', 'liner', '210 of 230'],
    COOL_BOX,
    ['runs', 'bed heater', 'it asks next to nothing'],
  ],
  'PP': [SHEET, SHEET, SHEET, SHEET, SHEET, SHEET],
  'PP-GF30': [SHEET, SHEET, SHEET, SHEET, SHEET, SHEET],
  'soluble support': [BY_ITS_SHEET, BY_ITS_SHEET, BY_ITS_SHEET, BY_ITS_SHEET, BY_ITS_SHEET, BY_ITS_SHEET],
  'break-away support': [BY_ITS_SHEET, BY_ITS_SHEET, BY_ITS_SHEET, BY_ITS_SHEET, BY_ITS_SHEET, BY_ITS_SHEET],
}
