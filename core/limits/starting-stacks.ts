/** Three ready-made stacks to adapt, and what is asked of any stack that is described. Common practice, no source. */
import { isKind, kindOf, partOf } from './kinds'
import {
  BED_ROLES,
  CHAMBER_ROLES,
  SITE_ROLES,
  type Basis,
  type Details,
  type FittedNozzle,
  type Part,
  type Place,
  type Printer,
} from './types'

/** A part of a described stack: its kind, and whatever differs from the kind's start values. `head` counts from 0. */
export interface DescribedPart {
  kind: string
  head: number | null
  name?: string
  place?: Place
  limitC?: number | null
  shortC?: number | null
  basis?: Basis
  note?: string
  details?: Details
}
export interface DescribedStack {
  kind: string
  heads: { name: string }[]
  parts: DescribedPart[]
}
export interface StartingStack extends DescribedStack {
  key: string
  words: string
}

const ON_HEAD = (kinds: string[], head = 0): DescribedPart[] => kinds.map(kind => ({ kind, head }))
const AROUND = (kinds: string[]): DescribedPart[] => kinds.map(kind => ({ kind, head: null }))

const PLAIN_BED = ['bed thermistor', 'bed wiring', 'magnets, ordinary grade', 'sheet glue line', 'PEI sheet']
const HOT_HEAD = [
  'high-temperature cartridge heater',
  'type K thermocouple',
  'all-metal heat break',
  'plated copper block',
  'firmware ceiling 480',
  'hardened gears',
  'PEEK feed tube',
]

/** Stacks to start from, to be corrected by the nameplates; common practice, no source. */
export const STARTING_STACKS: readonly StartingStack[] = [
  {
    key: 'open frame',
    kind: 'open frame',
    words: 'Hotend with a liner, plain bed, nothing around it.',
    heads: [{ name: 'head' }],
    parts: [
      ...ON_HEAD([
        'cartridge heater',
        'bead thermistor, 10-bit reading',
        'PTFE liner to the nozzle',
        'lined heat break',
        'aluminium block',
        'silicone sock',
        'firmware ceiling',
        'plain steel gears',
        'PTFE feed tube',
      ]),
      // in room air as long as nothing is built around them
      ...AROUND([
        'bed heater',
        ...PLAIN_BED,
        'printed parts, PETG',
        'belts',
        'motors',
        'fans',
        'linear bearings, plastic end caps',
        'electronics',
        'no ventilation',
      ]),
    ],
  },
  {
    key: 'bed-heated enclosure',
    kind: 'enclosed, bed-heated',
    words: 'All-metal hotend; the bed warms the air; printed parts inside.',
    heads: [{ name: 'head' }],
    parts: [
      ...ON_HEAD([
        'cartridge heater',
        'bead thermistor, 12-bit reading',
        'all-metal heat break',
        'aluminium block',
        'silicone sock',
        'firmware ceiling',
        'hardened gears',
        'PTFE feed tube',
      ]),
      ...AROUND([
        'strong bed heater',
        ...PLAIN_BED,
        'printed parts, PETG',
        'belts',
        'motors',
        'fans',
        'linear bearings, plastic end caps',
        'acrylic glazing',
        'camera',
        'electronics',
        'enclosure',
        'lid',
        'ventilated room',
      ]),
    ],
  },
  {
    key: 'hot machine',
    kind: 'hot, active chamber',
    words: 'Heated chamber, metal parts in the heat, electronics outside.',
    heads: [{ name: 'head' }],
    parts: [
      ...ON_HEAD(HOT_HEAD),
      ...AROUND([
        'mains bed heater',
        'bed thermistor',
        'silicone bed wiring',
        'mineral wool under the bed',
        'magnets, 180 grade',
        'high-temperature glue line',
        'PEI sheet',
        'machined parts instead of printed ones',
        'high-temperature belts',
        'high-temperature motors',
        'high-temperature fans',
        'bearings, metal shields',
        'glass glazing',
        'mineral wool insulation',
        'camera behind glass, outside',
        'electronics moved outside',
      ]),
      ...AROUND(['heated enclosure', 'lid', 'chamber heater', 'extraction outdoors']),
    ],
  },
]

const OFF_HEAD: ReadonlySet<string> = new Set([...BED_ROLES, ...CHAMBER_ROLES, ...SITE_ROLES])

/** A printer has no dryer of its own: one set serves all, for Equip and Prepare alike. */
export const DRYERS_ARE_THE_SHOPS = 'dryers belong to the shop, not to a printer; add it under Prepare, Dry'

/**
 * What is wrong with a described stack, each at its field; empty when it can be stored. Limits in °C against the
 * room's.
 */
export function stackProblems(
  s: { heads: readonly { name: string }[]; parts: readonly DescribedPart[] },
  roomC: number,
): { field: string; message: string }[] {
  const out: { field: string; message: string }[] = []
  const say = (field: string, message: string) => out.push({ field, message })
  for (const [i, p] of s.parts.entries()) {
    if (!isKind(p.kind)) {
      say(`parts.${i}.kind`, `There is no part kind “${p.kind}”; the catalogue lists them`)
      continue
    }
    const k = kindOf(p.kind)
    if (k.role === 'dryer') {
      say(`parts.${i}.kind`, `${k.key}: ${DRYERS_ARE_THE_SHOPS}`)
      continue
    }
    if (OFF_HEAD.has(k.role) && p.head !== null)
      say(`parts.${i}.head`, `${k.key}: belongs to the printer, not to a head`)
    if (!OFF_HEAD.has(k.role) && (p.head === null || !s.heads[p.head]))
      say(`parts.${i}.head`, `${k.key}: say on which head it is, counting from 0`)
    if (p.limitC != null && p.limitC < roomC)
      say(`parts.${i}.limitC`, `${k.key}: a limit of ${p.limitC} °C is below the room's ${roomC} °C`)
    if (p.limitC != null && p.shortC != null && p.shortC < p.limitC)
      say(`parts.${i}.shortC`, `${k.key}: the short-time limit is below the continuous one`)
  }
  for (const [h, head] of s.heads.entries()) {
    if (!s.parts.some(p => p.head === h && isKind(p.kind) && kindOf(p.kind).role === 'sensor'))
      say(`heads.${h}`, `${head.name} has no temperature sensor: nothing can be said of its temperature`)
  }
  return out
}

/** A described part with its kind's start values filled in. Throws InputError for an unknown kind. */
export function describedPart(d: DescribedPart, id: number | string, headId: number | null): Part {
  const { kind, head: _, details, ...own } = d
  const start = partOf(kind, id, headId)
  // a limit that somebody entered without saying from where is practice, no start value any more
  const basis = own.limitC === undefined || own.limitC === start.limitC ? start.basis : 'practice'
  return {
    ...start,
    basis,
    ...Object.fromEntries(Object.entries(own).filter(([, v]) => v !== undefined)),
    details: { ...start.details, ...details },
  }
}

/** A described stack as a printer whose heads count from 0, to look at before it is stored. */
export function describedPrinter(
  name: string,
  s: DescribedStack,
  nozzles: readonly (FittedNozzle | null)[] = [],
  dryers: readonly Part[] = [],
): Printer {
  return {
    id: 0,
    name,
    heads: s.heads.map((h, i) => ({ id: i, name: h.name, nozzle: nozzles[i] ? { ...nozzles[i], headId: i } : null })),
    parts: s.parts.map((d, i) => describedPart(d, i + 1, d.head)),
    air: [],
    dryers,
  }
}
