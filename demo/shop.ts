/* eslint-disable max-lines -- a table: the invented shop */
/** Hollin Mill Print Shop: the invented shop's printers, materials, nozzle types and nozzles. */
import { NOZZLE_MINUTES, NOZZLE_PRICE, STARTING_STACKS, type DescribedPart } from '#core/limits'
import type { MaterialEntry } from '#shared/entries/materials'
import type { NozzleTypeEntry } from '#shared/entries/nozzles'
import type { PrinterEntry } from '#shared/entries/printers'

/**
 * A stack adapted from a starting one: other kinds for some roles, other values for some parts, things left out or
 * added.
 */
function stack(
  from: string,
  more: {
    heads?: string[]
    swap?: Record<string, string>
    set?: Record<string, Omit<DescribedPart, 'kind' | 'head'>>
    add?: DescribedPart[]
    without?: string[]
  } = {},
): Pick<PrinterEntry, 'heads' | 'parts'> {
  const start = STARTING_STACKS.find(s => s.key === from)!
  const parts = start.parts
    .filter(p => !more.without?.includes(p.kind))
    .map(p => ({ ...p, kind: more.swap?.[p.kind] ?? p.kind }))
  return {
    heads: (more.heads ?? ['head']).map(name => ({ name })),
    parts: [...parts, ...(more.add ?? [])].map(p => ({ ...p, ...more.set?.[p.kind] })),
  }
}
const sheetOf = (limitC: number, note = '') => ({ limitC, basis: 'data sheet' as const, note })
/** What the shop calls them. */
const THERMISTORS = {
  'bead thermistor, 10-bit reading': { name: 'bead thermistor' },
  'bead thermistor, 12-bit reading': { name: 'bead thermistor' },
}
const HOT_SET = {
  'mains bed heater': { ...sheetOf(185), name: 'bed heater' },
  'magnets, 180 grade': { ...sheetOf(165, 'what the maker of the sheet gives'), name: 'magnets' },
}
/** Better ones than such frames come with. */
const OPEN_SWAP = { 'magnets, ordinary grade': 'magnets, 120 grade' }
const ENCLOSED_SWAP = {
  'magnets, ordinary grade': 'magnets, 180 grade',
  'no ventilation': 'particle and carbon filter',
  'ventilated room': 'particle and carbon filter',
}

export const PRINTERS: PrinterEntry[] = [
  {
    name: 'Calder',
    kind: 'hot, active chamber',
    note: '',
    ...stack('hot machine', { set: { ...HOT_SET, 'high-temperature motors': { ...sheetOf(102), name: 'motors' } } }),
  },
  {
    name: 'Ribble',
    kind: 'enclosed, bed-heated',
    note: '',
    ...stack('bed-heated enclosure', {
      swap: { ...ENCLOSED_SWAP, 'bead thermistor, 12-bit reading': 'bead thermistor, 10-bit reading' },
      set: {
        ...THERMISTORS,
        'sheet glue line': { ...sheetOf(115), name: 'glue line' },
        'printed parts, PETG': {
          name: 'printed idler, PETG',
          place: 'high',
          note: 'sags above; on the frame, near the top',
        },
        'motors': sheetOf(75),
        'fans': sheetOf(75),
        'camera': { limitC: 75, basis: 'data sheet', note: 'housing of its own' },
        'PTFE feed tube': {
          details: { bendMm: 60, freedBendMm: 120, freedNeedsLidOff: true },
          note: 'in the drag chain',
        },
      },
    }),
  },
  {
    name: 'Wharfe',
    kind: 'enclosed, bed-heated',
    note: '',
    restrictions: ['no camera: not overnight'],
    ...stack('bed-heated enclosure', {
      swap: {
        ...ENCLOSED_SWAP,
        'printed parts, PETG': 'printed parts, ABS or ASA',
        'acrylic glazing': 'polycarbonate glazing',
      },
      without: ['camera'],
      set: {
        ...THERMISTORS,
        'belts': sheetOf(73),
        'motors': sheetOf(80),
        'fans': sheetOf(75),
        'PTFE feed tube': {
          details: { bendMm: 60, freedBendMm: 120, freedNeedsLidOff: true },
          note: 'in the drag chain',
        },
        'enclosure': {
          note: 'mapped with six probes',
          details: {
            thetaLow: 0.45,
            thetaHigh: 0.38,
            thetaBay: 0.2,
            openThetaLow: 0.15,
            openThetaHigh: 0.1,
            thetaU: 0.02,
          },
        },
      },
    }),
  },
  {
    name: 'Aire',
    kind: 'open frame',
    note: '',
    ...stack('open frame', {
      swap: { ...OPEN_SWAP, 'no ventilation': 'ventilated room' },
      set: {
        'PTFE liner to the nozzle': { ...sheetOf(240, 'the liner reaches the nozzle'), name: 'PTFE liner' },
        ...THERMISTORS,
        'bed heater': { limitC: 105 },
      },
    }),
  },
  {
    name: 'Swale',
    kind: 'hot, active chamber',
    note: '',
    ...stack('hot machine', {
      heads: ['high flow', 'hot'],
      swap: { 'firmware ceiling 480': 'firmware ceiling' },
      without: ['PEEK feed tube'],
      set: {
        ...HOT_SET,
        'mains bed heater': { ...sheetOf(165), name: 'bed heater' },
        'magnets, 180 grade': { ...sheetOf(180), name: 'magnets' },
        'firmware ceiling': { limitC: 310, note: 'high-flow head, to about 300' },
        'high-temperature motors': { ...sheetOf(102), name: 'motors' },
      },
      add: [
        { kind: 'no feed tube', head: 0 },
        { kind: 'high-temperature cartridge heater', head: 1 },
        { kind: 'type K thermocouple', head: 1 },
        { kind: 'all-metal heat break', head: 1, ...sheetOf(510) },
        { kind: 'plated copper block', head: 1 },
        { kind: 'firmware ceiling 480', head: 1, limitC: 520, note: 'set by the maker' },
        { kind: 'hardened gears', head: 1 },
        { kind: 'no feed tube', head: 1 },
      ],
    }),
  },
  {
    name: 'Nidd',
    kind: 'open frame',
    note: '',
    ...stack('open frame', {
      swap: {
        ...OPEN_SWAP,
        'lined heat break': 'all-metal heat break',
        'plain steel gears': 'hardened gears',
        'no ventilation': 'ventilated room',
      },
      without: ['PTFE liner to the nozzle'],
      set: { ...THERMISTORS, 'bed heater': { limitC: 105 } },
    }),
  },
]

/** Parts on the shelf. */
export const SHELF: DescribedPart[] = [
  { kind: 'all-metal heat break', head: null, note: 'wired ready, for Aire or Nidd' },
  { kind: 'hardened gears', head: null },
  { kind: 'platinum film sensor', head: null },
  { kind: 'PTFE feed tube led wide', head: null },
  { kind: 'epoxy-glass laminate sheet', head: null },
  { kind: 'glass plate', head: null },
]

const material = (
  name: string,
  polymer: string,
  densityGCm3: number,
  filler: MaterialEntry['filler'] = 'none',
  fillerFraction = 0,
  abrasivity = 0.002,
): MaterialEntry => ({ name, polymer, filler, fillerFraction, densityGCm3, abrasivity, basis: 'data sheet', note: '' })

export const MATERIALS: MaterialEntry[] = [
  material('PLA', 'PLA', 1.24),
  material('PLA-CF15', 'PLA', 1.3, 'carbon fibre', 0.15, 1),
  material('PLA glow', 'PLA', 1.28, 'glow pigment', 0.15, 1.5),
  material('PETG', 'PETG', 1.27),
  material('PETG-GF10', 'PETG', 1.34, 'glass fibre', 0.1, 1.2),
  material('ABS', 'ABS', 1.05),
  material('PC', 'PC', 1.2),
  material('PC-CF10', 'PC', 1.24, 'carbon fibre', 0.1, 1),
  material('PA6-CF20', 'PA6', 1.228, 'carbon fibre', 0.2, 1),
  material('PA12-CF15', 'PA12', 1.07, 'carbon fibre', 0.15, 1),
  material('PPA-CF20', 'PPA', 1.27, 'carbon fibre', 0.2, 1),
  material('PPS-CF15', 'PPS', 1.4, 'carbon fibre', 0.15, 1),
  material('PEEK-CF10', 'PEEK', 1.34, 'carbon fibre', 0.1, 1),
  material('PEI', 'PEI', 1.27),
  material('PETG-CF10', 'PETG', 1.31, 'carbon fibre', 0.1, 1),
  material('ASA', 'ASA', 1.07),
  material('PA6-GF25', 'PA6', 1.32, 'glass fibre', 0.25, 1.2),
  material('PPS', 'PPS', 1.35),
  material('PEEK', 'PEEK', 1.3),
  material('PEEK-GF20', 'PEEK', 1.44, 'glass fibre', 0.2, 1.2),
  material('PPSU', 'PPSU', 1.29),
  material('PSU', 'PSU', 1.24),
  material('LCP', 'liquid-crystal polyester', 1.4),
  material('PA12', 'PA12', 1.01),
  material('TPU', 'TPU', 1.21),
  material('PP', 'PP', 0.9),
  material('PP-GF30', 'PP', 1.13, 'glass fibre', 0.3, 1.2),
  material('PEKK-CF10', 'PEKK', 1.33, 'carbon fibre', 0.1, 1),
  material('soluble support', 'soluble support', 1.2),
  material('break-away support', 'break-away support', 1.15),
]

/** What this shop pays, as it has entered it: the start values suit it. */
export const PRICES = Object.fromEntries(
  Object.entries(NOZZLE_PRICE).map(([material, price]) => [`nozzle ${material}`, { price, minutes: NOZZLE_MINUTES }]),
)

type Shape = Pick<NozzleTypeEntry, 'lengthMm' | 'coneDeg' | 'tipFlatMm' | 'landMm' | 'inletMm' | 'insertMm'>
const solid: Shape = { lengthMm: 12.5, coneDeg: 60, tipFlatMm: 1.0, landMm: 0.8, inletMm: 2, insertMm: null }
const withInsert: Shape = { ...solid, coneDeg: 70, tipFlatMm: 1.3, landMm: 0.6, insertMm: 2.2 }
const type = (m: NozzleTypeEntry['material'], bore: number, shape: Shape, suffix = ''): NozzleTypeEntry => ({
  name: `${m} ${bore}${suffix}`,
  material: m,
  nominalBoreMm: bore,
  ...shape,
  tipFlatMm: shape.tipFlatMm + (bore - 0.4),
  landMm: bore * 2,
  boreGrowthLimit: 0.1,
  tipLossLimitMm: 0.15,
  massLimitKg: null,
  basis: 'data sheet',
  note: '',
})

export const NOZZLE_TYPES: NozzleTypeEntry[] = [
  type('brass', 0.4, solid),
  type('brass', 0.6, solid),
  type('plated copper', 0.6, solid),
  type('stainless steel', 0.4, solid),
  type('hardened steel', 0.4, solid),
  type('hardened steel', 0.6, solid),
  type('hardened steel', 0.8, solid),
  type('ruby tip', 0.4, withInsert),
  type('tungsten carbide', 0.6, solid),
  type('tungsten carbide', 0.4, withInsert, ' insert'),
  type('polycrystalline diamond', 0.4, withInsert, ' insert'),
]

/** Type of each nozzle, N-001 first. */
export const NOZZLES: string[] = [
  ...Array.from({ length: 6 }, () => 'brass 0.4'),
  'brass 0.6',
  'brass 0.6',
  'brass 0.4',
  ...Array.from({ length: 5 }, () => 'hardened steel 0.4'),
  'plated copper 0.6',
  'plated copper 0.6',
  'plated copper 0.6',
  'plated copper 0.6',
  'stainless steel 0.4',
  'hardened steel 0.6',
  'hardened steel 0.6',
  'hardened steel 0.6',
  'hardened steel 0.8',
  'hardened steel 0.6',
  'ruby tip 0.4',
  'ruby tip 0.4',
  'polycrystalline diamond 0.4 insert',
  'tungsten carbide 0.4 insert',
  'tungsten carbide 0.4 insert',
  'tungsten carbide 0.6',
  'tungsten carbide 0.4 insert',
  'hardened steel 0.4',
  'hardened steel 0.4',
  'hardened steel 0.6',
  'brass 0.4',
  'brass 0.4',
  'plated copper 0.6',
  'stainless steel 0.4',
  'tungsten carbide 0.6',
  'hardened steel 0.8',
]

export interface Work {
  name: string
  material: string
  grams: number
  hours: number
  nozzleC: number
  bedC: number
  chamberC: number | null
}
const work = (
  name: string,
  m: string,
  grams: number,
  hours: number,
  nozzleC: number,
  bedC: number,
  chamberC: number | null = null,
): Work => ({ name, material: m, grams, hours, nozzleC, bedC, chamberC })

/** What it is printed on, one after the other; noted with the run since `SURFACE_DAYS` ago. */
export const SURFACES_OF: Readonly<Record<string, readonly string[]>> = {
  'PEEK-CF10': ['epoxy-glass laminate + adhesive'],
  'PEI': ['PEI + adhesive'],
  'PPS-CF15': ['PEI + adhesive'],
  'PPA-CF20': ['PEI + glue stick'],
  'PA6-CF20': ['PEI + glue stick', 'PEI + glue stick', 'PEI + adhesive'],
  'PC': ['PEI + glue stick'],
  'PC-CF10': ['PEI + glue stick'],
  'PA12-CF15': ['PEI + glue stick', 'epoxy-glass laminate'],
  'ABS': ['PEI'],
  'PETG': ['PEI + release agent'],
  'PETG-GF10': ['PEI + release agent'],
  'PLA': ['PEI'],
}
export const SURFACE_DAYS = 120

/**
 * What each printer prints, how often a week, and the nozzles it is given one after the other. `switchDay`: changed
 * then without retiring; `lastFilledKg`: from that fibre on, the last nozzle is spared and gets the `easy` work.
 */
export const PLANS: {
  printer: string
  head: string
  weekly: number
  nozzles: string[]
  switchDay?: number
  lastFilledKg?: number
  easy?: Work
  work: Work[]
}[] = [
  {
    printer: 'Calder',
    head: 'head',
    weekly: 2.4,
    nozzles: ['N-029', 'N-031'],
    work: [
      work('dye-bath impeller', 'PEEK-CF10', 410, 14, 430, 150, 85),
      work('relay base', 'PEI', 120, 5, 375, 150, 85),
      work('bobbin ring', 'PPS-CF15', 260, 9, 330, 150, 80),
    ],
  },
  {
    printer: 'Ribble',
    head: 'head',
    weekly: 1.85,
    nozzles: ['N-010', 'N-011', 'N-012', 'N-013', 'N-014'],
    lastFilledKg: 0.98,
    easy: work('guide template', 'PC', 150, 6, 285, 110, 55),
    work: [
      work('cable guide', 'PA6-CF20', 312, 9.5, 280, 100, 60),
      work('cable guide ×4', 'PA6-CF20', 590, 18, 280, 100, 60),
      work('brake-shoe carrier', 'PA6-CF20', 240, 8, 280, 100, 60),
    ],
  },
  {
    printer: 'Wharfe',
    head: 'head',
    weekly: 2.8,
    nozzles: ['N-021', 'N-022'],
    work: [
      work('relay base', 'ABS', 180, 6, 245, 105, 55),
      work('brake-shoe carrier', 'PC-CF10', 520, 16, 285, 115, 60),
      work('bobbin ring', 'PA12-CF15', 430, 12, 270, 90, 55),
    ],
  },
  {
    printer: 'Aire',
    head: 'head',
    weekly: 2.6,
    nozzles: ['N-001', 'N-002', 'N-003', 'N-004', 'N-005', 'N-006', 'N-009'],
    work: [
      work('fit check', 'PLA', 90, 4, 210, 60),
      work('fit check', 'PLA', 140, 6, 210, 60),
      work('drill jig', 'PETG', 160, 6, 230, 80),
      work('bobbin ring trial', 'PLA-CF15', 35, 2, 220, 60),
    ],
  },
  {
    printer: 'Swale',
    head: 'high flow',
    weekly: 1.2,
    nozzles: ['N-030'],
    work: [work('guide housing', 'PPA-CF20', 640, 14, 300, 105, 75)],
  },
  {
    printer: 'Swale',
    head: 'hot',
    weekly: 1.4,
    nozzles: ['N-026', 'N-027'],
    switchDay: 230,
    work: [
      work('dye-bath impeller', 'PEEK-CF10', 410, 15, 430, 150, 88),
      work('relay base', 'PEI', 120, 5, 375, 150, 85),
    ],
  },
  {
    printer: 'Nidd',
    head: 'head',
    weekly: 2.2,
    nozzles: ['N-016', 'N-017', 'N-018'],
    work: [
      work('sign bracket', 'PETG-GF10', 70, 5, 250, 80),
      work('guard clip', 'PETG', 130, 5, 245, 80),
      work('drill jig', 'PETG', 210, 8, 245, 80),
    ],
  },
]
