/* eslint-disable max-lines -- a table: start values by polymer */
/**
 * Windows to start from, by polymer. Temperatures, bores and drying: common practice, no source. Glass transition and
 * melting points: handbook values of the polymers, from memory. Strain at break and curl: from memory, typical
 * filament.
 */
import { START_UPTAKE } from '../drying'
import type { Filler } from '../wear'
import type { Ventilation } from './types'
import type { Facts, PracticeSet, ValueKey } from './windows'

export interface StartWindow {
  polymer: string
  filled: boolean | null
  ventilation: Ventilation
  facts: Facts
  sets: PracticeSet[]
}

type Bare = Partial<Record<ValueKey, number>>
const PROPERTY: readonly string[] = [
  'strainAtBreak',
  'matrixGCm3',
  'glassC',
  'meltC',
  'waterAt50',
  'diffusion80',
  'diffusionEa',
]
function facts(values: Bare): Facts {
  const out: Facts = {}
  for (const [key, value] of Object.entries(values))
    out[key as ValueKey] = { value, basis: PROPERTY.includes(key) ? 'material property' : 'practice', note: '' }
  return out
}

function set(
  name: string,
  conditions: string,
  bed: [number, number],
  dry: [number, number, number, number],
  surfaces: string[],
  more: Partial<PracticeSet> = {},
): PracticeSet {
  return {
    name,
    conditions,
    enclosed: false,
    bedMinC: bed[0],
    bedMaxC: bed[1],
    chamber: 'indifferent',
    chamberMinC: null,
    chamberMaxC: null,
    dry: true,
    dryMinC: dry[0],
    dryMaxC: dry[1],
    dryHoursMin: dry[2],
    dryHoursMax: dry[3],
    surfaces,
    basis: 'practice',
    note: '',
    ...more,
  }
}
const helps = (low: number, high: number): Partial<PracticeSet> => ({
  chamber: 'helps',
  chamberMinC: low,
  chamberMaxC: high,
})
const needs = (low: number, high: number | null): Partial<PracticeSet> => ({
  enclosed: true,
  chamber: 'needs',
  chamberMinC: low,
  chamberMaxC: high,
})

const NYLON_ON = ['epoxy-glass laminate', 'glass + glue stick', 'PEI + glue stick']
const HOT_ON = [
  'PEI + adhesive',
  'glass + adhesive',
  'epoxy-glass laminate + adhesive',
  'carbon fibre plate + adhesive',
  'glass + superglue',
]
const NYLON_SETS = (dryHigh: number): PracticeSet[] => [
  set(
    'open frame',
    'Open frame, bed at 70; small parts with a brim. Less bed heat, so less to pull the corners up.',
    [70, 80],
    [55, dryHigh, 6, 12],
    NYLON_ON,
    { note: '6 h at 55 °C is held to be enough' },
  ),
  set(
    'dried 12 h at 70',
    'Open frame as well, but dried 12 h at about 70 °C, or it fails.',
    [70, 80],
    [70, dryHigh, 12, 12],
    NYLON_ON,
    { note: 'the other school on drying' },
  ),
  set(
    'enclosed',
    'In an enclosure, bed at 100 to 120. Layers bond better; a heated chamber is a help, not required.',
    [100, 120],
    [70, dryHigh, 8, 12],
    NYLON_ON,
    { enclosed: true, ...helps(50, 70), note: '12 h at about 70 °C, or it fails' },
  ),
  set(
    'warm chamber',
    'Large or flat parts: the chamber at 50 to 70 is required.',
    [80, 120],
    [70, dryHigh, 8, 12],
    NYLON_ON,
    needs(50, 70),
  ),
]
/** Unfilled nylon warps more and curls less stiffly; from memory. */
const BARE_NYLON_SETS: PracticeSet[] = [
  set('open frame', 'Small parts with a brim, out of draughts.', [70, 90], [70, 90, 8, 12], NYLON_ON),
  set('enclosed', 'Parts of any size; a warm chamber helps.', [90, 110], [70, 90, 8, 12], NYLON_ON, {
    enclosed: true,
    ...helps(50, 70),
  }),
]
const PC_ON = ['PEI + glue stick', 'glass + glue stick', 'polycarbonate + release agent', 'epoxy-glass laminate']
const PC_SETS: PracticeSet[] = [
  set('bed at 120', 'Glue and a brim; corners of large parts lift.', [120, 130], [80, 90, 6, 8], PC_ON, {
    ...helps(70, 90),
    enclosed: true,
  }),
  set(
    'bed at 135 or more',
    'Bed 135 at least, 145 to 155 better, in a chamber of 70 or more: large parts stay flat.',
    [135, 155],
    [80, 90, 6, 8],
    PC_ON,
    needs(70, 90),
  ),
]
const PPA_SETS: PracticeSet[] = [
  set(
    'dried by the book',
    'Dried at 100 to 140 °C, chamber warm.',
    [90, 110],
    [100, 140, 8, 12],
    NYLON_ON,
    needs(60, 90),
  ),
  set(
    'dried at 70',
    'When the dryer stops at 70: 12 h, and printed straight from it. Leaves more water.',
    [90, 110],
    [70, 80, 12, 12],
    NYLON_ON,
    needs(60, 90),
  ),
  set(
    'lid off or raised',
    'Lid off or on a riser: in a shut box it softens in the heat break and clogs. Small parts; dried well.',
    [90, 110],
    [70, 140, 8, 12],
    NYLON_ON,
    { chamberMaxC: 60 },
  ),
]
const PPS_SETS = [
  set('bed at 160', 'As usual: flat parts stay down.', [160, 170], [100, 120, 6, 8], HOT_ON, needs(60, 90)),
  set('bed at 120', 'Small parts, bed at 120 at least.', [120, 170], [100, 120, 6, 8], HOT_ON, needs(60, 90)),
]
const PEEK_SETS = [
  set('hot chamber', 'Chamber at 90 or more; slow cooling.', [140, 160], [120, 150, 6, 12], HOT_ON, needs(90, null)),
]
const PEI_SETS = [set('hot chamber', 'Chamber at 90 or more.', [140, 160], [120, 150, 6, 6], HOT_ON, needs(90, null))]

const PLA: Bare = {
  nozzleMinC: 200,
  nozzleMaxC: 230,
  lowestFlowC: 180,
  shortMaxC: 260,
  swapC: 220,
  dryHighestC: 55,
  boreMinMm: 0.4,
  matrixGCm3: 1.24,
  glassC: 60,
  meltC: 170,
}
const PETG: Bare = {
  nozzleMinC: 230,
  nozzleMaxC: 260,
  lowestFlowC: 210,
  shortMaxC: 280,
  swapC: 240,
  dryHighestC: 65,
  boreMinMm: 0.4,
  matrixGCm3: 1.27,
  glassC: 80,
}
const STYRENE: Bare = {
  nozzleMinC: 240,
  nozzleMaxC: 260,
  lowestFlowC: 220,
  shortMaxC: 280,
  swapC: 245,
  dryHighestC: 80,
  boreMinMm: 0.4,
  strainAtBreak: 20,
}
const PC: Bare = {
  nozzleMinC: 280,
  nozzleMaxC: 310,
  lowestFlowC: 250,
  shortMaxC: 330,
  swapC: 260,
  dryHighestC: 120,
  boreMinMm: 0.4,
  boreGoodMm: 0.6,
  matrixGCm3: 1.2,
  glassC: 147,
}
const NYLON: Bare = {
  nozzleMinC: 260,
  nozzleMaxC: 290,
  lowestFlowC: 240,
  shortMaxC: 310,
  swapC: 245,
  boreMinMm: 0.4,
  boreGoodMm: 0.6,
  curlMm: 150,
}
const BARE_NYLON: Bare = {
  nozzleMinC: 240,
  nozzleMaxC: 260,
  lowestFlowC: 225,
  shortMaxC: 285,
  swapC: 245,
  dryHighestC: 90,
  boreMinMm: 0.4,
  strainAtBreak: 60,
}
const TPU: Bare = {
  nozzleMinC: 210,
  nozzleMaxC: 240,
  lowestFlowC: 190,
  shortMaxC: 255,
  swapC: 220,
  dryHighestC: 65,
  boreMinMm: 0.4,
  matrixGCm3: 1.21,
  meltC: 180,
}
const PP: Bare = {
  nozzleMinC: 220,
  nozzleMaxC: 250,
  lowestFlowC: 190,
  shortMaxC: 270,
  swapC: 220,
  boreMinMm: 0.4,
  matrixGCm3: 0.9,
  glassC: -10,
  meltC: 165,
}
const PEKK: Bare = {
  nozzleMinC: 345,
  nozzleMaxC: 375,
  lowestFlowC: 320,
  shortMaxC: 390,
  swapC: 340,
  dryHighestC: 150,
  boreMinMm: 0.4,
  matrixGCm3: 1.29,
  glassC: 160,
  meltC: 305,
}
const PPS: Bare = {
  nozzleMinC: 315,
  nozzleMaxC: 345,
  lowestFlowC: 295,
  shortMaxC: 360,
  swapC: 300,
  dryHighestC: 140,
  boreMinMm: 0.4,
  matrixGCm3: 1.35,
  glassC: 85,
  meltC: 285,
}
const PEEK: Bare = {
  nozzleMinC: 400,
  nozzleMaxC: 450,
  lowestFlowC: 370,
  shortMaxC: 460,
  swapC: 380,
  dryHighestC: 160,
  boreMinMm: 0.4,
  matrixGCm3: 1.3,
  glassC: 143,
  meltC: 343,
}
const SULPHONE: Bare = {
  nozzleMinC: 350,
  nozzleMaxC: 400,
  lowestFlowC: 330,
  shortMaxC: 420,
  swapC: 360,
  dryHighestC: 160,
  boreMinMm: 0.4,
  strainAtBreak: 30,
}

/**
 * How it takes up water (core/drying), and how its parts are annealed: lowest and highest °C, hours, steepest ramp;
 * common practice, no source.
 */
function more(polymer: string): Bare {
  const key = polymer.toLowerCase(),
    u = START_UPTAKE[key],
    a = ANNEALS[key]
  return {
    ...(u
      ? { waterAt50: u.waterAt50, diffusion80: Number((u.d80 * 1e11).toPrecision(6)), diffusionEa: u.eaKJMol }
      : {}),
    ...(a ? { annealMinC: a[0], annealMaxC: a[1], annealMinH: a[2], annealMaxH: a[3], annealRamp: a[4] } : {}),
  }
}
const ANNEALS: Readonly<Record<string, readonly [number, number, number, number, number]>> = {
  'pa6': [80, 120, 6, 6, 60],
  'pa12': [80, 120, 6, 6, 60],
  'ppa': [100, 160, 6, 12, 40],
  'pps': [130, 130, 2, 4, 40],
  'peek': [150, 200, 1, 3, 10],
  'pekk': [150, 200, 1, 3, 10],
  'pc': [110, 125, 1, 2, 30],
  'pei': [180, 200, 1, 2, 15],
  'ppsu': [180, 200, 1, 2, 15],
  'psu': [160, 170, 1, 2, 15],
  'liquid-crystal polyester': [220, 220, 7, 7, 30],
}
const window = (
  polymer: string,
  filled: boolean | null,
  ventilation: Ventilation,
  values: Bare,
  sets: PracticeSet[],
): StartWindow => ({ polymer, filled, ventilation, facts: facts({ ...values, ...more(polymer) }), sets })
const PLA_SETS = [
  set(
    'usual',
    'Lid off: a warm chamber softens it in the heat break.',
    [50, 60],
    [45, 55, 4, 6],
    ['PEI', 'glass + glue stick', 'epoxy-glass laminate'],
    { chamberMaxC: 40 },
  ),
]
const PETG_SETS = [
  set('usual', 'Part fan low.', [70, 85], [60, 65, 6, 6], ['PEI + glue stick', 'glass + glue stick'], {
    chamberMaxC: 55,
  }),
]
const STYRENE_SETS = [
  set(
    'usual',
    'Out of draughts; an enclosure at 50 to 70 helps.',
    [100, 110],
    [70, 80, 4, 4],
    ['PEI', 'glass + glue stick', 'epoxy-glass laminate'],
    helps(50, 70),
  ),
]
const TPU_SETS = [
  set(
    'usual',
    'Slow; a direct, short filament path. A warm chamber softens it in the gears.',
    [40, 60],
    [55, 55, 6, 6],
    ['PEI + glue stick', 'glass + glue stick', 'glass'],
    { chamberMaxC: 50 },
  ),
]
const PP_SETS = [
  set(
    'on polypropylene',
    'Holds on polypropylene only; a warm chamber helps against warping.',
    [80, 100],
    [30, 30, 1, 1],
    ['polypropylene'],
    { ...helps(45, 60), dry: false, dryMinC: null, dryMaxC: null, dryHoursMin: null, dryHoursMax: null },
  ),
]
const PEKK_SETS = [
  set('hot chamber', 'Chamber at 80 or more; slow cooling.', [120, 140], [120, 150, 6, 6], HOT_ON, needs(80, null)),
]
/** A support takes its partner's temperatures: its own sheet says which it pairs with. */
const supportSets = (pairs: string) => [
  set(
    'with its partner',
    `Nozzle and bed as its partner asks, and it must stand the partner's chamber. Pairs with ${pairs}, by its sheet.`,
    [0, 0],
    [60, 80, 6, 6],
    [],
    { bedMinC: null, bedMaxC: null },
  ),
]
const LCP_SETS = [
  set(
    'hot chamber',
    'Chamber at 90; annealed in sand afterwards.',
    [120, 155],
    [100, 140, 6, 12],
    HOT_ON,
    needs(90, null),
  ),
]

/** Windows to start from by polymer, filled or not; common practice, no source, each value marked so. */
export const START_WINDOWS: readonly StartWindow[] = [
  window('PLA', false, 'room ventilated', { ...PLA, strainAtBreak: 4 }, PLA_SETS),
  window('PLA', true, 'room ventilated', { ...PLA, nozzleMinC: 210, strainAtBreak: 3, curlMm: 150 }, PLA_SETS),
  window('PETG', false, 'room ventilated', { ...PETG, strainAtBreak: 50 }, PETG_SETS),
  window('PETG', true, 'room ventilated', { ...PETG, strainAtBreak: 4, curlMm: 150 }, PETG_SETS),
  window('ABS', null, 'filtered', { ...STYRENE, matrixGCm3: 1.05, glassC: 105 }, STYRENE_SETS),
  window('ASA', null, 'filtered', { ...STYRENE, matrixGCm3: 1.07, glassC: 100 }, STYRENE_SETS),
  window('PC', false, 'filtered', { ...PC, strainAtBreak: 80 }, PC_SETS),
  window('PC', true, 'filtered', { ...PC, strainAtBreak: 3.5, curlMm: 150 }, PC_SETS),
  window(
    'PA6',
    true,
    'filtered',
    { ...NYLON, dryHighestC: 90, strainAtBreak: 3.5, matrixGCm3: 1.14, glassC: 50, meltC: 220 },
    NYLON_SETS(90),
  ),
  window(
    'PA6',
    false,
    'filtered',
    { ...BARE_NYLON, nozzleMaxC: 270, shortMaxC: 295, matrixGCm3: 1.14, glassC: 50, meltC: 220 },
    BARE_NYLON_SETS,
  ),
  window(
    'PA12',
    true,
    'filtered',
    { ...NYLON, dryHighestC: 90, strainAtBreak: 5, matrixGCm3: 1.01, glassC: 45, meltC: 178 },
    NYLON_SETS(90),
  ),
  window(
    'PA12',
    false,
    'filtered',
    { ...BARE_NYLON, lowestFlowC: 210, matrixGCm3: 1.01, glassC: 45, meltC: 178 },
    BARE_NYLON_SETS,
  ),
  window('TPU', false, 'room ventilated', { ...TPU, strainAtBreak: 400 }, TPU_SETS),
  window('TPU', true, 'room ventilated', { ...TPU, boreGoodMm: 0.6, strainAtBreak: 100 }, TPU_SETS),
  window('PP', false, 'room ventilated', { ...PP, strainAtBreak: 100 }, PP_SETS),
  window('PP', true, 'room ventilated', { ...PP, boreGoodMm: 0.6, strainAtBreak: 3, curlMm: 150 }, PP_SETS),
  window('PEKK', false, 'extracted outdoors', { ...PEKK, strainAtBreak: 30 }, PEKK_SETS),
  window('PEKK', true, 'extracted outdoors', { ...PEKK, boreGoodMm: 0.6, strainAtBreak: 2.5, curlMm: 200 }, PEKK_SETS),
  window('soluble support', null, 'room ventilated', {}, supportSets('PLA, PETG and nylon')),
  window('break-away support', null, 'room ventilated', {}, supportSets('PLA, PETG, ABS, nylon and polycarbonate')),
  window(
    'PPA',
    null,
    'filtered',
    {
      nozzleMinC: 290,
      nozzleMaxC: 320,
      lowestFlowC: 275,
      shortMaxC: 335,
      swapC: 280,
      dryHighestC: 140,
      boreMinMm: 0.4,
      boreGoodMm: 0.6,
      strainAtBreak: 2.5,
      curlMm: 150,
      matrixGCm3: 1.18,
    },
    PPA_SETS,
  ),
  window('PPS', false, 'extracted outdoors', { ...PPS, strainAtBreak: 5 }, PPS_SETS),
  window('PPS', true, 'extracted outdoors', { ...PPS, boreGoodMm: 0.6, strainAtBreak: 2.3, curlMm: 200 }, PPS_SETS),
  window('PEEK', false, 'extracted outdoors', { ...PEEK, strainAtBreak: 25 }, PEEK_SETS),
  window('PEEK', true, 'extracted outdoors', { ...PEEK, boreGoodMm: 0.6, strainAtBreak: 2.5, curlMm: 200 }, PEEK_SETS),
  window('PEI', null, 'extracted outdoors', { ...SULPHONE, matrixGCm3: 1.27, glassC: 217 }, PEI_SETS),
  window('PPSU', null, 'extracted outdoors', { ...SULPHONE, matrixGCm3: 1.29, glassC: 220 }, PEI_SETS),
  window('PSU', null, 'extracted outdoors', { ...SULPHONE, matrixGCm3: 1.24, glassC: 187 }, PEI_SETS),
  window(
    'liquid-crystal polyester',
    null,
    'extracted outdoors',
    {
      nozzleMinC: 300,
      nozzleMaxC: 330,
      lowestFlowC: 285,
      shortMaxC: 340,
      swapC: 300,
      dryHighestC: 150,
      boreMinMm: 0.4,
      strainAtBreak: 2.3,
      curlMm: 200,
      matrixGCm3: 1.4,
      meltC: 280,
    },
    LCP_SETS,
  ),
]

/** The window to start from for a polymer with this filler; null when the table has none. */
export function startWindow(polymer: string, filler: Filler): StartWindow | null {
  const p = polymer.trim().toLowerCase()
  return (
    START_WINDOWS.find(w => w.polymer.toLowerCase() === p && (w.filled === null || w.filled === (filler !== 'none'))) ??
    null
  )
}
