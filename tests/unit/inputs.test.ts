/* eslint-disable max-lines -- a table: every public function of the core */
/**
 * Every public function of the core with numbers that are none: NaN and both infinities are refused by an InputError
 * that names the field, and below nothing is either refused so or answered in numbers. A function that takes numbers
 * and is not called here fails the first test.
 */
import { describe, expect, test } from 'vitest'
import * as anneal from '#core/anneal'
import * as cards from '#core/cards'
import * as cautions from '#core/cautions'
import * as chamber from '#core/chamber'
import * as changeover from '#core/changeover'
import * as cooling from '#core/cooling'
import * as diagnosis from '#core/diagnosis'
import * as drying from '#core/drying'
import * as flow from '#core/flow'
import * as gcode from '#core/gcode'
import * as imaging from '#core/imaging'
import * as intake from '#core/intake'
import * as labels from '#core/labels'
import * as level from '#core/level'
import * as life from '#core/life'
import * as limits from '#core/limits'
import * as materials from '#core/materials'
import * as money from '#core/money'
import * as numeric from '#core/numeric'
import * as precheck from '#core/precheck'
import * as procedures from '#core/procedures'
import * as runs from '#core/runs'
import * as schedule from '#core/schedule'
import * as stock from '#core/stock'
import * as study from '#core/study'
import * as thermometry from '#core/thermometry'
import * as totals from '#core/totals'
import * as wear from '#core/wear'
import { drawMouth, drawPin, drawScale } from '../../sim/mouth-picture'
import { mouthScene, SCALE } from '../../sim/mouth-scenes'
import { asks, nozzle, printer } from './limits-support'

const LEVEL_BED = {
  widthMm: 300,
  depthMm: 300,
  screws: [
    { name: 'front left', xMm: 30, yMm: 30 },
    { name: 'front right', xMm: 270, yMm: 30 },
    { name: 'back', xMm: 150, yMm: 270 },
  ],
  pitchMm: 0.7,
  clockwise: 'lowers' as const,
}
const LEVEL_MESH = {
  how: 'mesh' as const,
  rows: [
    [0.1, 0.05, 0.02],
    [0.12, 0.06, 0],
  ],
  leftMm: 20,
  rightMm: 280,
  frontMm: 20,
  backMm: 280,
  firstRow: 'front' as const,
}

const MODULES: Record<string, Record<string, unknown>> = {
  anneal,
  cards,
  cautions,
  chamber,
  changeover,
  cooling,
  diagnosis,
  drying,
  flow,
  gcode,
  imaging,
  intake,
  labels,
  level,
  life,
  limits,
  materials,
  money,
  numeric,
  precheck,
  procedures,
  runs,
  schedule,
  stock,
  study,
  thermometry,
  totals,
  wear,
}

/** What the core itself made: no door, so nobody can put a wrong number into it. */
class Made {
  constructor(readonly value: unknown) {}
}
const made = (value: unknown) => new Made(value)

interface Call {
  /** Arguments in order, by the names that errors use. */
  args: Record<string, unknown>
  /** Places at which infinity is a real answer, as `left.low80G`. */
  infinite?: string[]
  /** Fields that errors name otherwise, as `readings.1` for `readings.1.s`. */
  named?: Record<string, string>
  /** Places that this function passes over. */
  unused?: RegExp
}

const benchSet = {
  temperaturesC: [260, 280],
  flowsMm3S: [8, 12, 16],
  repeats: 1,
  lengthMm: 1000,
  diameterMm: 1.75,
  densityGCm3: 1.2,
}
const benchFilament = {
  lengthMm: 1000,
  diameterMm: 1.75,
  densityGCm3: 1.2,
  callipersMm: [1.74, 1.75, 1.76],
  mark: { toldMm: 100, fedMm: 99 },
}
const blobs = [260, 280].flatMap(temperatureC =>
  [8, 12, 16].map((flowMm3S, i) => ({ temperatureC, flowMm3S, massG: 2.9 - 0.1 * i, uG: 0.004 })),
)
const shares = flow.sharesOf(blobs, benchFilament)
const benched = { shares, result: flow.benchResult(shares, 0.95)! }
const benchCard = cards.cardValues({ nozzleC: { low: 275, middle: 280, high: 285 } }, { bedC: 100 })
const benchLimits = {
  ceilingSetC: 300,
  sensor: null,
  material: 'PA6-CF20',
  shortMaxC: 310,
  lowestFlowC: 240,
}
const oven = { name: 'oven', ceilingC: 120, timeOutH: 8 }
const warmUp = { startC: 23, finalC: 60, tauS: 900, delayS: 60 }
const surveyProbes = [
  [0, 0, 40],
  [300, 0, 60],
  [0, 280, 60],
  [150, 140, 400],
].map(([xMm, yMm, zMm], i) => ({ name: `P${i}`, place: 'low' as const, xMm: xMm!, yMm: yMm!, zMm: zMm! }))
const survey: chamber.Survey = {
  timesS: [0, 300, 600, 900],
  roomC: [23, 23, 23.1, 23],
  probes: surveyProbes.map(p => ({ ...p, readC: [70, 70.1, 70, 70] })),
  bedC: 100,
  chamberSetC: null,
  tauS: 900,
  shielded: true,
  probeUC: 0.5,
}
const panel: chamber.Wall = { name: 'side', face: 'side', areaM2: 0.2, layers: [{ material: 'acrylic', mm: 4 }] }
const enclosure: chamber.EnclosurePlan = {
  walls: [panel],
  heightM: 0.4,
  roomC: 23,
  bed: { setC: 100, areaM2: 0.09, powerW: 300, under: 'bare' },
  nozzleW: 15,
  heaterW: 300,
  heaterSetC: 70,
  cutOutC: 100,
  stirred: false,
  gapMm2: 1000,
  ventLMin: 10,
}
const warmedUp: chamber.WarmedUp = { meanC: 50, u90: 2, bedC: 100, roomC: 23, tauS: 900 }
const airMap = { bed: { low: 0.6, high: 0.5, bay: 0.2 }, heater: { low: 3, high: -4, bay: -40 } }
const planning: chamber.Planning = {
  now: enclosure,
  then: enclosure,
  map: airMap,
  parts: [{ name: 'belts', place: 'high', allowedC: 75 }],
  record: warmedUp,
  insideKg: 8,
}
const readings = Array.from({ length: 40 }, (_, i) => ({ s: i * 60, c: chamber.warmUpAt(warmUp, i * 60) }))
const pa = { name: 'PA6-CF20', lowestFlowC: 225, shortMaxC: 300 }
const pc = { name: 'PC', lowestFlowC: 230, shortMaxC: 310 }
const joint = { channelMm: 2, nozzleYieldMPa: 140, blockYieldMPa: 90, engagedMm: 6, share: 0.5, nutFactor: 0.2 }
const filament = drying.filamentOf('PA6', 0.2, 1.75)!
const soaked = drying.newSpool(filament, 50, 0)
const wound = drying.START_WOUND
const room = { airC: 23, rh: 50 }
const dryingLimits = { dryHighestC: 80, glassC: 60, meltC: 220, hub: 'ABS' }
const stays = [
  { from: 0, to: 3.6e6, place: 'room' as const, airC: 23, rh: 50, fill: 1 },
  { from: 3.6e6, to: 7.2e6, place: 'dryer' as const, airC: 80, rh: 5, fill: 1 },
]
const spool = { netG: 1000, tareG: 200, weighings: [{ at: 1, grossG: 900 }], uses: [{ at: 2, g: 40 }] }
const weighing = { lostG: 4, uG: 0.5, expectedG: (f: number) => 8 / f }
const hundred = Array.from({ length: 101 }, (_, i) => ({ percent: i, extrudedMm: [i], seconds: i * 5, zMm: 0.2 }))
const scene = mouthScene('clean', 1, 200)
const mouth = { ...scene, ...drawMouth(scene) }
const stage = drawScale({ ...SCALE, width: 256, height: 128, every: 8 })
const pinPicture = drawPin({
  width: 160,
  height: 120,
  x: 80,
  y: 60,
  wide: 40,
  alongDeg: 90,
  blur: 1,
  noise: 0.01,
  seed: 3,
})
const heating = { heater: 'nozzle' as const, head: 0, setC: 245 }
const swapNozzle = (tag: string, lengthMm: number): procedures.SwapNozzle => ({
  id: 1,
  tag,
  words: 'hardened steel 0.4',
  lengthMm,
  lengthBy: 'type',
  insert: false,
  plated: false,
  brittle: false,
})
const swapFacts: procedures.SwapFacts = {
  place: 'P',
  old: swapNozzle('N-1', 12.5),
  fresh: swapNozzle('N-2', 13),
  head: 0,
  turn: { setC: 245, material: 'PA6' },
  resnug: { setC: 280, job: 'PA6-CF20' },
  torque: { newtonMetre: 1.3, by: 'block thread' },
  sock: true,
  liner: false,
  materials: [{ id: 1, name: 'PA6', purgeC: 250 }],
  holds: 'PA6',
  zWay: 'larger is higher',
  zMm: -1.2,
}
const wiredHotend: limits.Hotend = {
  id: 8,
  tag: 'H-08',
  parts: ['all-metal heat break', 'bead thermistor, 12-bit reading'].map((k, i) => limits.partOf(k, 700 + i, null)),
  nozzle: nozzle('hardened steel'),
}
const { turn: _turn, ...headOfSwap } = swapFacts
const hotendFacts: procedures.HotendFacts = {
  ...headOfSwap,
  headId: 1,
  old: null,
  fresh: {
    id: 8,
    tag: 'H-08',
    nozzle: { id: 5, tag: 'N-5', words: 'hardened steel 0.6' },
    heater: 'heater',
    sensor: 'thermistor',
  },
  sameSensor: true,
  firmware: { wasC: 300, mostC: 300, weakest: 'thermistor' },
  snug: { setC: 220, material: null },
  tuneC: 280,
  roomC: 23,
}
const clogFacts: procedures.ClogFacts = {
  ...{ place: 'P', head: 0, sock: true, liner: false, holds: 'PA6', materials: [{ id: 1, name: 'PA6', purgeC: 250 }] },
  ...{ nozzle: swapNozzle('N-1', 12.5), material: 'hardened steel', boreMm: 0.4, softC: 245, pullC: 135 },
}
const shelf = [{ nozzle: nozzle('hardened steel'), left: { low80G: 200, medianG: 400 }, pastChance: 0.02, worn: null }]
const coolsDown: cooling.CoolDown = {
  polymer: 'PC',
  glassC: 147,
  chamber: 'needs',
  enclosed: true,
  bedC: 120,
  roomC: 23,
  thicknessMm: 20,
  surface: 'glass',
}
const newPrinter: procedures.CommissionFacts = {
  printer: 'P',
  heads: [{ id: 1, name: 'head', nozzle: null }],
  gears: [],
  tubes: [],
  mains: [],
  ventilation: null,
  enclosed: true,
  guards: ['hotend runaway protection'],
  nozzleC: 200,
  bedC: 60,
}
const job = { name: 'PA6', demands: [asks('PA6', 'carbon fibre')], fibreG: 60 }
const P = printer('bed-heated enclosure')
const R = limits.START_RULES
const demand = asks('PA6', 'carbon fibre')
const compiled = limits.compile(P, 0, limits.NO_OFFERS, R)
const offers = {
  shelf: [limits.partOf('cartridge heater', 7)],
  nozzles: [nozzle('brass', 0.4)],
  prices: { 'cartridge heater': { price: 10, minutes: 20 } },
}
const filaments = [{ name: 'PA6', demands: [demand] }]
const facts = { nozzleMinC: 260, nozzleMaxC: 290, strainAtBreak: 3, boreMinMm: 0.4 }
const set = limits.startWindow('PA6', 'none')!.sets[0]!
const couple: thermometry.Reference = {
  kind: 'thermocouple',
  readsIn: 'mV',
  type: 'K',
  coupleClass: 1,
  r0Ohm: null,
  build: null,
  platinumClass: null,
  wires: null,
  leadOhm: null,
  uLeadOhm: null,
  certificateUC: null,
  meter: 0.01,
}
const low: thermometry.Correction = {
  own: { points: [{ shownC: 240, cC: 6, uC: 1 }], from: 'its check' },
  atLeast: null,
}
const checkedSensor = thermometry.sensorCheck(
  [{ shownC: 240, reading: 8.9, coldC: 24, swingC: 0 }],
  couple,
  'in the block',
  { by: 'data sheet', plusMinusC: 8 },
)
const studied = [
  [
    [0.42, 0.421],
    [0.45, 0.452],
  ],
  [
    [0.423, 0.422],
    [0.451, 0.454],
  ],
]
const pinPair = { goMm: 0.42, noGoMm: 0.43 }
const spread = { meanLn: 2, sd: 0.4 }
const nozzleCost = { price: 20, swap: 15 }
const rates = { labourPerHour: 40, downtimePerHour: 20, downtimeHours: 0.5, scrapPerSwap: 5 }
const about = (median: number) => ({ median, low80: median - 0.01, high80: median + 0.01 })
const known: diagnosis.KnownFacts = {
  check: null,
  nozzle: {
    tag: 'N-1',
    boreMm: about(0.42),
    boreLimitMm: 0.44,
    tipLossMm: about(0.1),
    tipLimitMm: 0.3,
    gaugedDaysAgo: 3,
    gaugedSince: false,
  },
  spool: null,
  dried: { hours: 8, longestH: 12 },
  bench: null,
  before: [{ name: 'PC', lowestFlowC: 250 }],
  bend: null,
  z: { setDaysAgo: 3, fittedDaysAgo: 4 },
  sinceFit: null,
  sensor: null,
  elsewhere: { good: 2, bad: 0 },
  onHead: { good: 0, bad: 1 },
}
const facts0: precheck.PrecheckFacts = {
  job: {
    name: 'x',
    nozzleC: 270,
    bedC: 80,
    chamberC: 50,
    peakMm3S: 8,
    hours: 4,
    massG: 300,
    fibreG: 60,
    fanMax: 0.2,
    firstLayer: { heightMm: 0.3, meanMmS: 20 },
  },
  made: { nozzleC: 270, bedC: 80 },
  material: {
    name: 'PA6-CF20',
    nozzleMinC: 260,
    nozzleMaxC: 290,
    beds: [[70, 90]],
    polymer: 'PA6',
    surfaces: ['PEI'],
    filler: 'carbon fibre',
    chamber: 'needs' as const,
    shortMaxC: 310,
    glassC: 50,
    chamberMinC: 45,
    chamberMaxC: 70,
  },
  nozzleOffsetC: 5,
  others: [{ name: 'PC', filler: 'none', nozzleMinC: 270, nozzleMaxC: 300, beds: [[100, 115]] }],
  limits: [],
  nozzle: {
    tag: 'N-1',
    boreMm: 0.4,
    provenMm3S: 12,
    bench: {
      sustained: { temperatureC: 265, reach: 'between', flowMm3S: 13, low80: 12.2, high80: 14.4 },
      on: '2026-11-03',
    },
    left: { low80G: 400, medianG: 900, high80G: 2000 },
    pastChance: 0.01,
    shape: [],
    fittedSinceRun: false,
    holds: { name: 'PC', same: false, purgeC: 260 },
  },
  spool: { tag: 'S-1', leftG: 600 },
  dryness: { strandH: 2, woundH: 12 },
  clean: { strandH: 1, woundH: 9 },
  wet: 'stop',
  drynessMissing: '',
  inBox: { strandH: 20, woundH: 120 },
  printsFrom: 'room',
  fittedSurface: 'PEI',
  enclosed: true,
  heated: true,
  air: { coolestC: 50, headC: 60, u90: 2, from: 'practice' },
  level: null,
  zLost: null,
  restrictions: [],
  guards: [],
  soak: { running: true, leftMin: 3, done: false },
  worked: {
    good: 12,
    failed: 1,
    values: cards.cardValues({ nozzleC: { low: 275, middle: 280, high: 280 } }, { fanPercent: 0 }),
  },
  own: [],
  notReady: [],
}
const source: limits.AirSource = {
  trust: 'survey',
  by: 'bed',
  opening: 'shut',
  fan: null,
  place: 'high',
  value: 0.5,
  u: 0.02,
  from: 'a survey',
}
const history: wear.BoreHistory = {
  nominalMm: 0.4,
  wasUsed: false,
  observations: [
    { kind: 'pins', wearKg: 0.6, goMm: 0.41, noGoMm: 0.42, uMm: 0.003 },
    { kind: 'value', wearKg: 0.9, valueMm: 0.418, uMm: 0.004 },
  ],
  doubt: { misread: 0.03, otherBore: 0.03 },
}
const prior = { meanLn: Math.log(0.03), sd: 0.8 }
const tip: wear.TipHistory = {
  tip0: { meanMm: 12.5, uMm: 0.05 },
  observations: [{ wearKg: 1, tipMm: 12.4, uMm: 0.02 }],
}
const rules = { boreLimitMm: 0.44, tipLossLimitMm: 0.5, massLimitKg: 10 }
const input: wear.NozzleInput = {
  material: 'hardened steel',
  law: 'sliding',
  bore: history,
  tip,
  rules,
  wearKg: 1,
  prior,
  acceptedRisk: 0.1,
}
const posterior = wear.borePosterior(history, prior)
const tipped = wear.tipPosterior(tip, wear.tipPrior('hardened steel'))
const lives = [wear.boreLife(posterior, 0.44)]
const term = wear.sisterTerm(history, 'hardened steel')!

const annealAim = { atC: 80, holdH: 4, rampCPerH: 20, thicknessMm: 10, sandMm: 20 }
const passed = { toMs: 5000, hours: 1, extrudedG: 20, material: 'PLA' }

const every = { hours: 500, kg: 20, days: 90 }
const gone = { hours: 480, kg: 3, days: 40 }
const dueNozzle: schedule.NozzleFacts = {
  tag: 'N-01',
  material: 'brass',
  limitMm: 0.44,
  fibreG: 300,
  pastChance: 0.3,
  nextGaugeKg: 0.2,
  jobFibreG: 180,
  lastMaterial: 'PA6-CF20',
  shape: [],
  gaugedSince: false,
}
const duePrinter: schedule.PrinterFacts = {
  name: 'P',
  standing: schedule.NOTHING_STANDS,
  heads: [{ id: 1, name: 'head', askedC: 280, nozzle: dueNozzle }],
  limits: [
    {
      zone: 'hotend',
      headId: 1,
      limitC: 290,
      fineC: 285,
      shortC: 295,
      of: 'setpoint',
      inAir: false,
      heaterOff: false,
      part: 'sensor',
    },
  ],
  last: {
    runId: 1,
    name: 'guide',
    outcome: 'finished',
    symptoms: [],
    stopped: null,
    nozzle: { tag: 'N-014' },
    lookedAt: false,
    fibreG: 180,
    bedC: 100,
    chamberC: 50,
  },
}
/** Nothing of the heads nor of what else the last job asked. */
const LIMITS_ONLY = /^p\.(heads|last\.(?!chamberC))/
const times = { fromMs: 1e12, minutes: 30, nowMs: 1.0001e12 }

const CALLS: Record<string, Record<string, Call>> = {
  schedule: {
    askedAgainst: { args: { p: duePrinter, zone: 'hotend', headId: made(1), askedC: 280 }, unused: LIMITS_ONLY },
    checkEvery: { args: { every } },
    comesInDays: { args: { of: every, since: gone, perDay: { hours: 8, kg: 0.2 } } },
    dueOfCertificate: { args: { name: 'probe', leftDays: 12 } },
    dueOfComing: { args: { printer: 'P', name: 'Belts', inDays: 6 } },
    dueOfCoolDown: { args: { what: 'guide', how: 'warm', ...times } },
    dueOfDrying: { args: { tag: 'S-01', fromMs: 1e12, plannedH: 8, nowMs: 1.0001e12 } },
    dueOfGuard: {
      args: { printer: 'P', guard: 'bed thermal cut-out', state: 'due again', s: { days: 400, every: 365 } },
    },
    dueOfLowSpool: { args: { tag: 'S-01', leftG: 80, netG: 1000 } },
    dueOfNozzle: { args: { n: dueNozzle, headId: made(1), acceptedRisk: 0.1 } },
    dueOfPin: { args: { mark: 'P-42', leftDays: 12 } },
    dueOfPrinter: { args: { p: duePrinter, acceptedRisk: 0.1 }, unused: /runId|jobFibreG/ },
    dueOfSensor: { args: { printer: 'P', of: 'bed', s: { failed: false, isDue: true, nextInH: -3 } } },
    dueOfSoak: { args: { printer: 'P', ...times } },
    dueOfSpoolOut: { args: { tag: 'S-01', leftH: 3 }, infinite: ['leftH'] },
    dueOfStock: { args: { s: { id: 1, name: 'Belt', unit: 'pieces', minimum: 2, onHand: 1, onOrder: 0 } } },
    dueOfSurvey: { args: { printer: 'P', days: 400 } },
    dueOfUpkeep: {
      args: {
        t: {
          printer: 'P',
          name: 'Belts',
          kind: 'belts',
          every,
          since: gone,
          withoutHours: 2,
          doneOn: null,
          found: null,
          says: '',
        },
      },
    },
    dueOfWetSpool: { args: { tag: 'S-01', waterWt: 1.2, usualWt: 0.5 } },
    firstGauge: { args: { p: duePrinter }, unused: /^p\.(?!heads\.0\.nozzle\.nextGaugeKg$)/ },
    gaugeDue: { args: { n: { pastChance: 0.3, nextGaugeKg: 1, jobFibreG: 100 }, acceptedRisk: 0.1 } },
    minutesLeft: { args: times },
    notReady: {
      args: {
        printer: 'P',
        s: { ...schedule.NOTHING_STANDS, procedures: [{ id: 1, title: 'Swap', done: 2, of: 9, by: 'A' }] },
      },
    },
    soakStands: { args: times },
    upkeepShare: { args: { of: every, since: gone } },
    weightOf: { args: { atAll: 20, chance: 0.4, consequence: 30 } },
    wornOut: { args: { n: { limitMm: 0.44, pastChance: 0.3, shape: [] } } },
  },
  anneal: {
    annealNow: { args: { p: made(anneal.annealPlan(annealAim, oven, 23)), hours: 3 } },
    annealPlan: { args: { aim: annealAim, oven, roomC: 23 }, named: { ceilingC: 'oven' } },
    annealDoes: { args: { t: { glassC: 50, meltC: 220 } } },
    annealRefusal: { args: { name: 'PA6', atC: 80, t: { glassC: 50, meltC: 220 }, inSand: false } },
    hottestAnneal: { args: { t: { glassC: 50, meltC: 220 }, inSand: false } },
    annealSchools: { args: { a: { lowC: 80, highC: 120, lowH: 2, highH: 6 } } },
    soakThroughH: { args: { thicknessMm: 10, sandMm: 20 } },
  },
  cautions: {
    cautionsFor: {
      args: {
        m: {
          action: 'print',
          polymers: [],
          fillers: [],
          roles: [],
          surfaces: [],
          nozzleC: 260,
          bedC: 90,
          chamberC: 50,
        },
      },
    },
    printing: { args: { stack: made(compiled.stack), demand, rules: R } },
  },
  cards: {
    cardValues: { args: { found: { nozzleC: { low: 275, middle: 280, high: 280 } }, hand: { fanPercent: 10 } } },
    compareJob: { args: { card: made(benchCard), job: { nozzleC: 262, bedC: 100 } } },
    ofJob: {
      args: {
        job: { nozzleC: 280, bedC: 100, chamberC: 50, fanMax: 0.2, firstLayer: { heightMm: 0.3, meanMmS: 15 } },
      },
    },
    bondShare: { args: { alongN: 420, acrossN: 210 } },
    recordOf: { args: { good: 12, failed: 1 } },
    valueWords: { args: { key: made('nozzleC'), nozzleC: 280 } },
    countWords: { args: { good: 12, failed: 1 } },
  },
  chamber: {
    airProperties: { args: { tC: 50 } },
    burnsFromC: { args: { what: 'metal', contactS: 10 } },
    checkPlan: { args: { p: enclosure } },
    fitBothWays: { args: { now: enclosure, record: warmedUp }, named: { meanC: 'record.meanC' } },
    fitsOf: { args: { now: enclosure, record: warmedUp } },
    gapFilm: {
      args: { gapM: 0.02, heightM: 0.5, differenceC: 10, meanC: 40, of: [0.9, 0.9] },
    },
    guardState: { args: { last: { atMs: 1e12, tripped: true, changed: false }, nowMs: 1.1e12 } },
    heaterFor: { args: { p: enclosure, targetC: 70, fit: chamber.AS_DRAWN } },
    horizontalFilm: { args: { areaM2: 0.09, perimeterM: 1.2, surfaceC: 100, airC: 40, facing: 'up' } },
    meanAt: { args: { map: made(airMap), by: 'bed', place: 'low', c: 60, roomC: 23 } },
    placeC: { args: { map: made(airMap), by: 'bed', place: 'low', meanC: 60, roomC: 23 } },
    planOutcome: { args: { q: planning } },
    powerFor: { args: { p: enclosure, fits: made(chamber.fitsOf(enclosure, null)), targetC: 70 } },
    radiantFilm: { args: { emissivity: 0.9, surfaceC: 50, aroundC: 23 } },
    safeContactS: { args: { what: 'metal', surfaceC: 50 } },
    solidResistance: { args: { layers: panel.layers } },
    steadyAir: { args: { p: enclosure, fit: chamber.AS_DRAWN } },
    stuckOn: { args: { p: enclosure, fit: chamber.AS_DRAWN } },
    timeConstant: { args: { p: enclosure, insideKg: 8 } },
    ventFor: { args: { p: enclosure, targetC: 50, fit: chamber.AS_DRAWN } },
    verticalFilm: { args: { heightM: 0.5, surfaceC: 60, airC: 23 } },
    wallHeat: { args: { wall: panel, heightM: 0.5, insideC: 60, roomC: 23, stirred: false } },
    withMore: { args: { layers: made(panel.layers), more: { material: 'felt', mm: 10 } } },
    evenness: { args: { probes: surveyProbes.map(p => ({ ...p, c: 60 })), uC: 0.5 } },
    steadyAt: { args: { timesS: survey.timesS, reads: survey.roomC, tauS: 1200 } },
    surveyFound: { args: { s: survey }, named: { roomC: 'roomC' } },
    fitWarmUp: { args: { readings }, named: { s: 'readings', c: 'readings' } },
    soakPlan: {
      args: {
        q: {
          targetC: 45,
          nowC: 30,
          roomC: 23,
          part: 'small',
          settles: { settlesC: 60, u90: 3 },
          record: { tauS: 900, delayS: 60 },
        },
      },
    },
    timeToHold: { args: { w: warmUp, targetC: 50, withinC: 2 } },
    warmUpAt: { args: { w: warmUp, s: 300 } },
  },
  changeover: {
    purgeOn: {
      args: { sensor: low, ceilingSetC: 290, from: pa, to: pc, others: [] },
      named: { cC: 'points', uC: 'points', ceilingSetC: 'ceilingC' },
    },
    purge: { args: { from: pa, to: pc, ceilingC: 290, others: [pa] } },
    stressAreaMm2: { args: { diameterMm: 6, pitchMm: 1 } },
    swapTemperature: { args: { through: [{ name: 'PA6', swapC: 240 }], ceilingC: 290 } },
    torqueCeiling: { args: { j: joint } },
    washout: { args: { meltMm3: 65, diameterMm: 1.75, left: 0.01, slowness: 3 } },
    torqueFor: { args: { n: { material: 'brass', insert: false, channelMm: 2, makerNm: 1 }, blockKind: null } },
    turning: {
      args: { sensor: low, ceilingSetC: 290, through: [{ name: 'PA6', swapC: 245 }] },
      named: { cC: 'points', uC: 'points', ceilingSetC: 'ceilingC' },
    },
    zNumbers: { args: { beforeMm: -1.2, changeMm: 0.5, way: 'larger is higher' } },
    zWords: { args: { mm: 0.5 } },
    zChange: { args: { oldLengthMm: 12, newLengthMm: 12.5 } },
  },
  cooling: {
    coolPlan: { args: { c: coolsDown } },
    letDownToC: { args: { glassC: 147 } },
    letDownCPerH: { args: { thicknessMm: 20, acrossC: 10 } },
  },
  diagnosis: {
    posterior: { args: { start: diagnosis.startOf([]), evidence: { seen: ['popping'], not: [], tests: {} } } },
    answerOf: { args: { p: diagnosis.startOf([]) } },
    tellsBits: {
      args: {
        p: diagnosis.startOf([]),
        test: { results: { bubbles: { usual: 0.1, under: { moisture: 0.8 } } }, otherwise: 'none' },
      },
      named: { usual: 'chance', moisture: 'chance' },
    },
    looksBits: {
      args: { p: diagnosis.startOf([]), row: { usual: 0.1, under: { moisture: 0.8 } } },
      named: { usual: 'chance', moisture: 'chance' },
    },
    nextTests: { args: { p: diagnosis.startOf([]), made: [] } },
    nextLooks: { args: { p: diagnosis.startOf([]), asked: [] } },
    wayOf: {
      args: { cause: 'moisture', start: diagnosis.startOf([]), e: { seen: ['popping'], not: [], tests: {} } },
    },
    recordsTell: { args: { f: known } },
  },
  drying: {
    besselJ0: { args: { x: 2 } },
    besselJ1: { args: { x: 2 } },
    carried: { args: { m: made(soaked.strand), atAir: 0.2, x: 0.1 } },
    crankUptake: { args: { x: 0.1 }, infinite: ['x'] },
    dewPointRh: { args: { dewC: -30, airC: 60 }, named: { dewC: 'celsius', airC: 'celsius' } },
    diffusivity: { args: { f: { d80: filament.d80, eaJMol: filament.eaJMol }, celsius: 60 } },
    dryTime: { args: { w: made(soaked), f: filament, air: room, wound, limit: 0.5 } },
    dryerRh: { args: { kind: 'vented', airC: 60, room }, named: { airC: 'celsius', rh: 'roomRh' } },
    dryingPlan: {
      args: {
        w: made(soaked),
        f: filament,
        dryer: { kind: 'vented', ceilingC: 90, timeOutH: 12 },
        room,
        l: dryingLimits,
        wound,
        aim: { targetWt: 0.3, practiceH: 4, brittle: true, askedC: 70 },
      },
    },
    asksHub: { args: { atC: 70, hub: 'ABS' } },
    dryingRefusal: { args: { atC: 70, dryer: { ceilingC: 90 }, l: dryingLimits } },
    drynessFixes: {
      args: { hours: 6, t: { strandH: 2, woundH: 12 }, inBox: { strandH: 20, woundH: 120 } },
      infinite: ['t.strandH', 't.woundH', 'inBox.strandH', 'inBox.woundH'],
    },
    drynessFor: { args: { hours: 6, t: { strandH: 2, woundH: 12 } }, infinite: ['t.strandH', 't.woundH'] },
    equilibriumWater: { args: { f: filament, rh: 50 } },
    evenly: { args: { water: 1 } },
    polymerWater: { args: { filamentWater: 1.8, fillerFraction: 0.2 } },
    filamentOf: {
      args: {
        polymer: 'PA6',
        fillerFraction: 0.2,
        diameterMm: 1.75,
        facts: { waterAt50: 2.7, d80E11: 1, eaKJMol: 55, usual: 0.5, clean: 0.2 },
      },
    },
    fitFactor: { args: { weighings: [weighing], start: wound } },
    goneThroughSurface: { args: { m: made(soaked.strand), atAir: 0.2, x: 0.1 } },
    heatedRh: { args: { roomC: 23, roomRh: 50, hotC: 60 }, named: { roomC: 'celsius', hotC: 'celsius' } },
    hoursToDry: { args: { m: made(soaked.strand), f: filament, atC: 80, rh: 5, factor: 4, target: 0.5 } },
    leftAfter: { args: { w: made(soaked), f: filament, kind: 'vented', atC: 70, hours: 6, room, wound } },
    meanAfter: { args: { m: made(soaked.strand), atAir: 0.2, x: 0.1 } },
    ratePerS: { args: { f: filament, celsius: 60 } },
    safeCap: { args: { l: dryingLimits } },
    saturationPa: { args: { celsius: 23 } },
    shortTimeUptake: { args: { x: 0.001 } },
    newSpool: { args: { f: filament, rh: 50, at: 0, fill: 0.5 } },
    factorAt: { args: { w: wound, fill: 0.5 } },
    marksOf: { args: { polymer: 'PA6', waterAt50: 2.2, entered: { clean: 0.2, usual: 0.5 } } },
    rhFor: { args: { f: filament, water: 0.5 } },
    spoolDryness: {
      args: {
        w: { lowWt: 0.1, highWt: 0.3, soakedWt: 2 },
        marks: { clean: 0.2, usual: 0.5 },
        place: 'room',
        dried: true,
      },
    },
    spoolTempC: { args: { kind: 'bed under a cover', setC: 100, roomC: 23, share: 0.7 } },
    stayed: { args: { w: made(soaked), f: filament, s: stays[0], wound } },
    throughHistory: {
      args: { start: made(soaked), f: filament, stays, wound },
      named: { from: 'stays', to: 'stays', airC: 'stays', rh: 'stays', fill: 'stays' },
    },
    trace: { args: { start: made(soaked), f: filament, stays, wound, perStay: 4 } },
    zerosOfJ0: { args: { count: 3 } },
  },
  flow: {
    planBench: { args: { set: benchSet }, named: { temperaturesC: 'temperaturesC' } },
    blobSeconds: { args: { flowMm3S: 8, lengthMm: 1000, diameterMm: 1.75 } },
    usualBench: {
      args: { highestMm3S: 12, temperatureC: 265, diameterMm: 1.75, densityGCm3: 1.2 },
      named: { temperatureC: 'temperaturesC' },
    },
    cellRefusal: { args: { temperatureC: 280, limits: benchLimits } },
    hottestCellC: { args: { limits: benchLimits } },
    benchFile: { args: { file: { ...benchSet, title: 'bench', stand: { xMm: 20, yMm: 20, zMm: 60 }, tool: 0 } } },
    netUG: { args: { stepG: 0.01 } },
    balanceFor: { args: { stepG: 0.01, blobG: 3 } },
    netOf: { args: { weighed: { grossG: 5.2, panG: 2.2 }, nextPanG: 2.21, stepG: 0.01 } },
    panMoved: { args: { panG: 2.2, nowPanG: 2.25, stepG: 0.01 }, named: { nowPanG: 'panG' } },
    poolAdjacent: { args: { values: [1, 3, 2], weights: [1, 1, 1] } },
    monotoneTable: {
      args: {
        rows: [
          [{ value: 1, weight: 1 }, null],
          [
            { value: 1, weight: 2 },
            { value: 0.9, weight: 1 },
          ],
        ],
      },
      named: { value: 'values', weight: 'weights' },
    },
    nominalOf: { args: { filament: benchFilament } },
    sharesOf: { args: { blobs, filament: benchFilament } },
    benchResult: { args: { shares: made(shares), accepted: 0.95 } },
    sustainedFor: { args: { list: made(benched.result.sustained), setC: 265 } },
    sustainedWords: {
      args: {
        sustained: { temperatureC: 265, reach: 'between', flowMm3S: 13, low80: 12.2, high80: 14.4 },
      },
    },
    levelOf: { args: { result: made(benched.result), filament: benchFilament } },
    compareBenches: { args: { first: made(shares), second: made(shares), lengthMm: 1000 } },
    stallMoved: { args: { shares: made(shares), result: made(benched.result), accepted: 0.95 } },
    limitOf: {
      args: {
        own: made({ ...benched, lengthMm: 1000 }),
        beside: made([]),
        accepted: 0.95,
      },
    },
    droppedSince: { args: { first: made(benched), now: made(benched), lengthMm: 1000 } },
  },
  gcode: {
    movesH: { args: { scan: { moveSeconds: 60 } } },
    Scan: { args: { options: { dialect: 'eIndependent', filamentDiameterMm: 1.75, totalBytes: 100 } } },
    stoppedAt: {
      args: {
        scan: made({ tools: [{ index: 0, extrudedMm: 10, offPartMm: 0, printingMm: 10 }], profile: hundred }),
        stop: { percent: 50 },
      },
    },
  },
  limits: {
    shopDryer: {
      args: {
        d: { id: 1, name: 'oven', kind: 'bed under a cover', ceilingC: 100, basis: 'nameplate', note: '' },
        roomC: 23,
      },
    },
    heatAt: { args: { c: low, setC: 240 }, named: { cC: 'points', uC: 'points', setC: 'shownC' } },
    heatFor: { args: { c: low, wantedC: 240 }, named: { cC: 'points', uC: 'points' } },
    airAt: { args: { sources: [source], by: 'bed', place: 'high', opening: 'shut' } },
    gradeOf: { args: { marginC: 3, u90C: 2 } },
    heatLines: { args: { stack: made(compiled.stack), set: { bedC: 90, chamberC: 40 }, rules: R } },
    airFrom: {
      args: {
        stack: made(compiled.stack),
        found: { value: 0.6, u: 0.02 },
        set: { bedC: 90, chamberC: null },
        rules: R,
      },
    },
    chamberAir: { args: { stack: made(compiled.stack), set: { bedC: 90, chamberC: 40 }, rules: R } },
    hottestBed: { args: { stack: made(compiled.stack), chamberC: 40, rules: R, sure: false } },
    settlesAt: { args: { stack: made(compiled.stack), set: { bedC: 90, chamberC: 40 }, targetC: 50, rules: R } },
    hotendInstead: {
      args: {
        printer: made(P),
        headId: made(0),
        demand,
        offers: made(limits.NO_OFFERS),
        rules: made(R),
        hotends: [wiredHotend],
      },
      unused: /hotends\.0\.nozzle\.headId/,
    },
    hotendMinutes: { args: { printer: made(P), headId: made(0), hotend: wiredHotend }, unused: /nozzle\.headId/ },
    sameSensor: { args: { was: wiredHotend.parts[1], is: wiredHotend.parts[1] } },
    soakDemand: { args: { set: { bedC: 90, chamberC: 40 } } },
    soakRefusal: { args: { stack: made(compiled.stack), set: { bedC: 90, chamberC: 40 }, rules: R } },
    usableLimits: { args: { printer: P, rules: R } },
    usableWindows: { args: { printer: P, headId: made(0), demand, rules: R } },
    worstOf: {
      args: { limits: [{ limitC: 90, fineC: 87, shortC: 93 }], askedC: 88 },
    },
    recordSource: {
      args: {
        r: {
          place: 'high',
          opening: 'shut',
          finalC: 65,
          reachedShare: 0.9,
          bedC: 100,
          roomC: 23,
          chamberSetC: null,
          from: '',
        },
      },
    },
    runsAsItIs: { args: { demands: [demand], printers: made([[compiled]]) } },
    bendStrain: { args: { diameterMm: 1.75, bendMm: 60, curlMm: 150, way: 'against' } },
    bestClass: { args: { heads: made([compiled]), demands: [demand] } },
    blockersOf: { args: { c: made(compiled), demand } },
    ceilingOf: { args: { zone: 'hotend', parts: P.parts, rules: R } },
    ceilings: { args: { printer: P, rules: R } },
    checkStack: { args: { stack: made(compiled.stack), demand, rules: R } },
    classify: { args: { c: made(compiled), demand } },
    compile: { args: { printer: P, headId: made(0), offers, rules: R } },
    compileFleet: { args: { printers: [P], offers, rules: R } },
    consequencesOf: { args: { printer: P, headId: made(0), swaps: [], demand, others: filaments, rules: R, offers } },
    dedicate: { args: { mix: [{ filament: filaments[0], kg: 3 }], printers: made([[compiled]]) } },
    demandOf: {
      args: { m: { name: 'PA6', polymer: 'PA6', filler: 'none', ventilation: null, facts }, set, diameterMm: 1.75 },
      unused: /^set\.dry(Max|Hours)/,
    },
    demandOfJob: {
      args: { name: 'x', s: { nozzleC: 270, bedC: 80, chamberC: 50 }, base: demand },
      unused: /^base\.(nozzle|bed|chamber)/,
    },
    findChanges: { args: { c: made(compiled), demands: [demand] } },
    judge: { args: { c: made(compiled), demand } },
    matrix: { args: { filaments, printers: made([[compiled]]) } },
    setProblems: { args: { s: set } },
    stackOf: { args: { printer: P, headId: made(0) } },
    tightestBend: { args: { diameterMm: 1.75, strainAtBreak: 0.03, curlMm: 150, way: 'against', safety: 1.5 } },
  },
  intake: {
    nextTags: { args: { known: ['N-001'], first: 'N-001', count: 2 } },
    tagsFrom: { args: { first: 'N-001', count: 2 } },
    startMaterial: { args: { polymer: 'PA6', filler: 'carbon fibre', fillerFraction: 0.2 } },
    startNozzle: { args: { boreMm: 0.4 } },
  },
  materials: {
    checkDensity: { args: { statedGCm3: 1.2, matrixGCm3: 1.13, filler: 'carbon fibre', fillerMassFraction: 0.2 } },
    compositeDensity: { args: { matrixGCm3: 1.13, fillerGCm3: 1.78, fillerMassFraction: 0.2 } },
    fibreMassG: { args: { extrudedG: 300, fillerMassFraction: 0.2 } },
    filamentAreaMm2: { args: { diameterMm: 1.75 } },
    filamentVolumeMm3: { args: { lengthMm: 100, diameterMm: 1.75 } },
    fillerFraction: { args: { measuredGCm3: 1.2, matrixGCm3: 1.13, fillerGCm3: 1.78 } },
    lengthForMassMm: { args: { grams: 100, diameterMm: 1.75, densityGCm3: 1.2 } },
    massG: { args: { lengthMm: 100, diameterMm: 1.75, densityGCm3: 1.2 } },
    solidOf: { args: { t: { glassC: 50, meltC: 220 } } },
    heaviestSpool: { args: { s: spool, at: 5 } },
    spoolFill: { args: { s: spool, at: 5 } },
    spoolMass: { args: { s: spool, at: 5 } },
  },
  imaging: {
    fitEllipse: { args: { x: [3, 2, 0, -2, -3, 0], y: [0, 1.5, 2, 1.5, 0, -2] } },
    measureBore: {
      args: {
        p: made(mouth),
        q: {
          umPerPx: 2,
          uUmPerPx: 0.01,
          tone: 'linear',
          isToneStated: false,
          near: { x: mouth.x, y: mouth.y, a: mouth.a, b: mouth.b, angle: 0 },
        },
      },
    },
    pinScale: {
      args: { p: made(pinPicture), a: { x: 60, y: 60 }, b: { x: 100, y: 60 }, pinMm: 0.5, uPinMm: 0.001 },
    },
    stageScale: { args: { p: made(stage), everyMm: 0.01, uEveryMm: 0.00001 } },
    isScaleDue: { args: { readMs: 1e12, nowMs: 1.1e12, days: 180 } },
    partsOf: {
      args: {
        b: { scaleUm: 1, edgeUm: 1, blurUm: 1, noiseUm: 1, toneUm: 0, hiddenUm: 0, bandUm: 0, tiltUm: 0 },
      },
    },
    randomPart: {
      args: {
        b: { scaleUm: 1, edgeUm: 1, blurUm: 1, noiseUm: 1, toneUm: 0, hiddenUm: 0, bandUm: 0, tiltUm: 0 },
        studyMm: 0.002,
      },
    },
    scaleFor: {
      args: { read: { umPerPx: 2, uUmPerPx: 0.01 }, how: { focusesItself: true, isOfThisPicture: false } },
    },
    twoPointScale: { args: { a: { x: 10, y: 10 }, b: { x: 200, y: 10 }, knownMm: 0.5, uKnownMm: 0.001 } },
  },
  life: {
    boreLifeSpread: { args: { nominalBoreMm: 0.4, growthLimit: 0.1, kappa: spread, wearPerKg: 0.2 } },
    fitWeibull: {
      args: {
        records: [
          { kind: 'failed', at: 2 },
          { kind: 'failed', at: 3 },
          { kind: 'between', from: 3, to: 5 },
          { kind: 'survived', until: 4 },
        ],
      },
      named: { at: 'records', from: 'records', to: 'records', until: 'records' },
    },
    foundPast: {
      args: {
        rules: { boreLimitMm: 0.44, tipLossLimitMm: 0.15 },
        nominalMm: 0.4,
        bore: { kind: 'value', valueMm: 0.43 },
        tipLossMm: 0.1,
      },
    },
    lifeKgAt: { args: { l: spread, p: 0.3 } },
    lifeRecordOf: {
      args: {
        n: {
          wasUsed: false,
          isRetired: false,
          isOnForecast: false,
          gauges: [
            { wearKg: 1, isPast: false },
            { wearKg: 2, isPast: true },
          ],
        },
      },
    },
    meanLifeKg: { args: { l: { shape: 2, scale: 3 } } },
    medianLifeKg: { args: { l: { shape: 2, scale: 3 } } },
    plotPoints: {
      args: {
        records: [
          { kind: 'failed', at: 2 },
          { kind: 'between', from: 3, to: 5 },
          { kind: 'survived', until: 4 },
        ],
      },
      named: { at: 'records', from: 'records', to: 'records', until: 'records' },
    },
    weibullRanges: {
      args: {
        records: [
          { kind: 'failed', at: 2 },
          { kind: 'failed', at: 3 },
          { kind: 'between', from: 3, to: 5 },
          { kind: 'survived', until: 4 },
        ],
        fit: { shape: 3, scale: 4 },
      },
      named: { at: 'records', from: 'records', to: 'records', until: 'records' },
    },
  },
  money: {
    breakEvenLifeRatio: { args: { dear: { price: 80, swap: 15 }, cheap: nozzleCost }, named: { swap: 'price' } },
    chanceCheaper: {
      args: {
        a: { cost: nozzleCost, life: spread },
        b: { cost: { price: 80, swap: 15 }, life: { meanLn: 4, sd: 0.5 } },
        kgPerYear: 100,
        seed: 1,
        draws: 20,
      },
    },
    costInYear: { args: { c: nozzleCost, lifeKg: 20, kgPerYear: 100 } },
    costPerKg: { args: { c: nozzleCost, lifeKg: 20 } },
    crossingKg: {
      args: {
        a: { cost: nozzleCost, life: spread },
        b: { cost: { price: 80, swap: 15 }, life: { meanLn: 4, sd: 0.5 } },
      },
    },
    swapCost: { args: { minutes: 20, r: rates } },
  },
  numeric: {
    chiSquareCdf: { args: { x: 3, degrees: 4 } },
    studentCdf: { args: { t: 1, degrees: 4 }, infinite: ['t'] },
    gamma: { args: { z: 2.5 } },
    inverseChiSquare: { args: { p: 0.3, degrees: 4 } },
    lnGamma: { args: { z: 2.5 } },
    rootOf: { args: { f: (x: number) => x - 0.5, low: 0, high: 1, tolerance: 1e-6 } },
    bisect: { args: { isPast: (x: number) => x > 0.5, low: 0, high: 1, tolerance: 1e-6 } },
    fastNormalCdf: { args: { z: 1 }, infinite: ['z'] },
    inverseNormal: { args: { p: 0.3 } },
    leastSquares: {
      args: {
        residuals: (p: readonly number[]) => [p[0]! - 1, p[0]! - 2],
        start: [0],
        options: { steps: 20, tolerance: 1e-9 },
      },
    },
    minimise: { args: { f: (x: number) => (x - 0.3) ** 2, low: 0, high: 1, tolerance: 1e-6 } },
    mulberry32: { args: { seed: 7 } },
    normalCdf: { args: { z: 1 }, infinite: ['z'] },
    solve: {
      args: {
        a: [
          [2, 1],
          [1, 3],
        ],
        b: [1, 2],
      },
      named: { 0: 'a', 1: 'a' },
    },
    symmetricEigen: {
      args: {
        matrix: [
          [2, 1],
          [1, 3],
        ],
      },
    },
  },
  precheck: {
    likeliest: { args: { job: { nozzleC: 270, bedC: 80 }, materials: facts0.others, filler: 'none' } },
    precheck: {
      args: { f: facts0 },
      infinite: [
        'f.nozzle.left.low80G',
        'f.nozzle.left.medianG',
        'f.nozzle.left.high80G',
        'f.soak.leftMin',
        'f.clean.strandH',
        'f.clean.woundH',
        'f.dryness.strandH',
        'f.dryness.woundH',
        'f.inBox.strandH',
        'f.inBox.woundH',
      ],
    },
  },
  labels: {
    checkLabel: { args: { size: { widthMm: 62, heightMm: 29 } } },
    gridOf: { args: { size: { widthMm: 62, heightMm: 29 }, g: { leftMm: 5, topMm: 5, gapXMm: 1, gapYMm: 1 } } },
    middleGrid: { args: { size: { widthMm: 62, heightMm: 29 } } },
    labelPlaces: {
      args: {
        size: { widthMm: 62, heightMm: 29 },
        g: { leftMm: 5, topMm: 5, gapXMm: 1, gapYMm: 1 },
        from: 2,
        count: 3,
      },
    },
    labelFace: { args: { size: { widthMm: 62, heightMm: 29 } } },
    moduleMm: { args: { size: { widthMm: 62, heightMm: 29 }, modules: 29 } },
    wrapped: { args: { text: made('tungsten carbide 0.4'), widthMm: 30, letterMm: 3 } },
    textMm: { args: { text: made('N-014'), widthMm: 30, wantedMm: 8 } },
  },
  stock: {
    needChances: {
      args: {
        heads: [
          { leftKg: { low80: 0.5, median: 1, high80: 2 }, kgPerDay: 0.02, life: { shape: 2, scale: 1.5 } },
          { leftKg: { low80: 0.5, median: 1, high80: 2 }, kgPerDay: 0.02, life: { meanLn: 0.2, sd: 0.4 } },
        ],
        days: 60,
      },
      infinite: [0, 1].map(i => `heads.${i}.leftKg.high80`),
      named: { median: 'high80' },
    },
    enoughFor: { args: { chances: [0.3, 0.5, 0.2], sure: 0.8 } },
    enoughByUse: { args: { used: { uses: 6, quantity: 6, overDays: 180 }, aheadDays: 60, sure: 0.8 } },
    toOrder: { args: { s: { onHand: 1, onOrder: 0, minimum: 2, need: 1.2 } } },
    shortOf: { args: { s: { onHand: 1, onOrder: 0, minimum: 2 } } },
    quantityWords: { args: { quantity: 3, unit: 'g' } },
  },
  study: {
    componentsOf: {
      args: { c: made(study.crossed(studied)), addedSd: 0.002 },
    },
    crossed: { args: { readings: studied }, named: { readings: 'readings', 0: 'readings', 1: 'readings' } },
    inOrder: {
      args: { lines: [{ personId: 1, nozzleId: 2, round: 0, reading: null }] },
      unused: /personId|nozzleId/,
    },
    oneWay: { args: { groups: studied[0] }, named: { 0: 'readings', 1: 'readings' } },
    pinScatter: { args: { nozzles: [[pinPair, { goMm: 0.43, noGoMm: 0.44 }]] } },
    readBoreMm: { args: { r: { valueMm: 0.42 } }, named: { valueMm: 'readings' } },
    studyReading: { args: { r: { goMm: 0.42, noGoMm: 0.43, valueMm: null } } },
    studyList: { args: { people: 2, nozzles: 3, repeats: 2, seed: 7 } },
    studyResult: {
      args: { method: 'picture', readings: studied.map(p => p.map(n => n.map(valueMm => ({ valueMm })))) },
      named: { valueMm: 'readings' },
    },
  },
  level: {
    checkBed: { args: { bed: LEVEL_BED } },
    checkLevel: { args: { m: LEVEL_MESH } },
    driftOf: {
      args: {
        points: [
          { day: 0, mm: -1.2 },
          { day: 5, mm: -1.21 },
          { day: 9, mm: -1.19 },
          { day: 14, mm: -1.2 },
        ],
      },
    },
    fitPlane: { args: { points: level.meshPoints(LEVEL_MESH) } },
    levelFound: { args: { m: LEVEL_MESH, bed: LEVEL_BED } },
    levelVerdict: {
      args: {
        m: LEVEL_MESH,
        found: level.levelFound(LEVEL_MESH, LEVEL_BED),
        bed: LEVEL_BED,
        at: { bedC: 100, jobC: 100 },
      },
      // of a bed and a measure that the core has checked
      unused: /^(m|found|bed)\./,
    },
    lostZ: { args: { of: { setMm: -1.25, readMm: 0 } } },
    meshPoints: { args: { m: LEVEL_MESH } },
    screwTurns: { args: { plane: level.fitPlane(level.meshPoints(LEVEL_MESH)), bed: LEVEL_BED, toMm: 0 } },
    turnWords: { args: { of: { parts: 6, way: 'clockwise' } } },
  },
  procedures: {
    clogSteps: { args: { f: clogFacts }, unused: /id$|lengthMm/ },
    coldPullC: { args: { of: { glassC: 60, meltC: 170 } } },
    needleMm: { args: { boreMm: 0.4 } },
    hotendSteps: { args: { f: hotendFacts }, unused: /id$/ },
    matchWords: { args: { f: hotendFacts }, unused: /^f\.(?!firmware)/ },
    rankHotends: {
      args: { printer: made(P), headId: made(0), hotends: [wiredHotend], coming: [job], rules: made(R) },
      unused: /nozzle\.headId|fibreG/,
    },
    roomDoubt: { args: { f: hotendFacts, values: { showsC: 24 } }, unused: /^f\.(?!roomC)/ },
    commissionSteps: { args: { f: newPrinter }, unused: /heads/ },
    byHand: { args: { wait: heating, nowC: 245 }, unused: /head/ },
    lengthChange: { args: { f: swapFacts, values: { lengthMm: 12.7 } }, unused: /^f\.(?!old\.lengthMm)/ },
    lengthDoubt: { args: { f: swapFacts, values: { lengthMm: 12.7 } }, unused: /^f\./ },
    rankNozzles: {
      args: { printer: made(P), headId: P.heads[0]!.id, boreMm: 0.6, candidates: shelf, coming: [job], rules: made(R) },
      infinite: ['candidates.0.left.low80G', 'candidates.0.left.medianG'],
      unused: /nozzle\.|demands|headId/,
    },
    swapSteps: { args: { f: swapFacts }, unused: /id$/ },
    swapZ: {
      args: { f: swapFacts, values: { lengthMm: 12.7, zBeforeMm: -1.2, zAfterMm: -1 } },
      unused: /^f\.(?!old\.lengthMm)/,
      named: { zBeforeMm: 'beforeMm' },
    },
    waitState: {
      args: { wait: heating, reading: { c: 245, atMs: 1000 }, nowMs: 2000 },
      named: { c: 'nowC' },
      unused: /head/,
    },
  },
  runs: {
    during: { args: { atMs: 1000, run: { toMs: 5000, hours: 1 } } },
    meanFlowMm3S: { args: { volumeMm3: 1000, hours: 1 } },
    overlap: { args: { a: { toMs: 5000, hours: 1 }, b: { toMs: 6000, hours: 1 } } },
    sameRun: { args: { a: passed, b: { ...passed, toMs: 5100 } } },
    spanOf: { args: { run: { toMs: 5000, hours: 1 } } },
  },
  thermometry: {
    allowedAt: { args: { a: { by: 'data sheet', plusMinusC: 2 }, tC: 200 } },
    checkReference: { args: { r: couple }, named: { uLeadOhm: 'leadOhm' } },
    correctionAt: { args: { c: low, shownC: 240 }, named: { cC: 'points', uC: 'points' } },
    correctionFrom: {
      args: {
        checks: [{ atMs: 1000, own: true, points: made([{ shownC: 240, cC: 6, uC: 1 }]), from: 'its check' }],
      },
    },
    sensorState: { args: { checks: [{ hoursSince: 10, result: made(checkedSensor) }] } },
    driftBetween: {
      args: { before: made([{ shownC: 240, cC: 2, uC: 1 }]), after: made([{ shownC: 241, cC: 4, uC: 1 }]), hours: 200 },
    },
    firmwareTable: {
      args: {
        s: made(thermometry.ofBeta(1e5, 3950)),
        d: { pullUpOhm: 4700, bits: 12 },
        range: { fromC: 0, toC: 300, stepC: 10 },
      },
    },
    firstAbove: { args: { c: low, of: (s: number) => s, limit: 250, fromC: 0, toC: 400 }, named: { cC: 'points' } },
    leadError: { args: { wires: 2, leadOhm: 1, uLeadOhm: 0.1 } },
    nextCheckHours: {
      args: { check: made(checkedSensor), drift: { per100H: 1, u90: 0.5, hours: 100 } },
      unused: /hours/,
    },
    ntcCelsius: { args: { s: made(thermometry.ofBeta(1e5, 3950)), ohm: 1000 } },
    ofBeta: { args: { r25Ohm: 1e5, betaK: 3950 } },
    ohmOf: { args: { s: made(thermometry.ofBeta(1e5, 3950)), tC: 200 } },
    platinumCelsius: { args: { ohm: 150, r0Ohm: 100 } },
    platinumTolerance: { args: { is: 'B', build: 'film', tC: 200 } },
    referenceSays: { args: { r: couple, reading: 8, coldC: 24 } },
    sensorCheck: {
      args: {
        points: [{ shownC: 240, reading: 8.9, coldC: 24, swingC: 1 }],
        reference: couple,
        placement: 'in the block',
        allowed: { by: 'data sheet', plusMinusC: 5 },
      },
    },
    setFor: { args: { c: low, wantedC: 250 }, named: { cC: 'points', uC: 'points' } },
    steinhartHart: {
      args: {
        points: [
          { tC: 0, ohm: 32650 },
          { tC: 25, ohm: 10000 },
          { tC: 70, ohm: 1752 },
        ],
      },
    },
    thermocoupleCelsius: { args: { type: 'K', millivolt: 8, coldC: 24 } },
    thermocoupleMillivolt: { args: { type: 'K', tC: 200 } },
    thermocoupleSlope: { args: { type: 'K', tC: 200 } },
    thermocoupleTolerance: { args: { type: 'K', is: 1, tC: 200 }, named: { is: 'class' } },
    verdictOn: { args: { cC: 3, u90C: 1, allowedC: 5, own: true } },
    ntcOhm: { args: { tC: 200, r25Ohm: 1e5, betaK: 3950 } },
    ntcResolution: { args: { tC: 200, ntc: { r25Ohm: 1e5, betaK: 3950 }, d: { pullUpOhm: 4700, bits: 12 } } },
    platinumOhm: { args: { tC: 200, r0Ohm: 100 } },
    platinumResolution: { args: { tC: 200, r0Ohm: 100, d: { pullUpOhm: 4700, bits: 12 } } },
    platinumSlope: { args: { tC: 200, r0Ohm: 100 } },
    typeKResolution: { args: { tC: 200, countMicrovolt: 10 } },
  },
  totals: {
    successRate: { args: { good: 9, failed: 1 } },
  },
  wear: {
    pinAt: {
      args: {
        certificates: [
          { atMs: 100, sizeMm: 0.42, uMm: 0.0005 },
          { atMs: 900, sizeMm: 0.416, uMm: 0.0005 },
        ],
        atMs: 500,
      },
    },
    isOfPin: { args: { typedMm: 0.42, nominalMm: 0.42, certificates: made([]) } },
    isPinPair: { args: { goMm: 0.42, noGoMm: 0.43 } },
    countedPin: {
      args: {
        pin: made({ nominalMm: 0.42, certificates: [{ atMs: 0, sizeMm: 0.416, uMm: 0.0005 }] }),
        typedMm: 0.42,
        atMs: 100,
      },
    },
    beyondBore: { args: { p: made(posterior), of: history, of2: { setup: 'a', uSharedMm: 0.002 } } },
    pictureReading: { args: { wearKg: 1, valueMm: 0.42, uMm: 0.002, uSharedMm: 0.001, setup: 'a' } },
    boreAfter: { args: { law: 'sliding', d0Mm: 0.4, kappa: 0.03, wearKg: 1, nominalMm: 0.4 } },
    boreAt: { args: { p: made(posterior), wearKg: 1 } },
    boreBands: { args: { posterior: made(posterior), wearKg: [0, 1] } },
    boreLife: { args: { p: made(posterior), limitMm: 0.44 } },
    borePosterior: { args: { history, prior, law: 'sliding' } },
    brokenBy: { args: { lives: made(lives), wearKg: 1 } },
    compareLaws: { args: { bore: history, prior } },
    expectedReading: { args: { others: history, reading: history.observations[0], prior, law: 'sliding' } },
    fillerKgFor: { args: { wear: 1, abrasivity: 1 }, infinite: ['wear'] },
    fleetForecast: { args: { nozzles: [{ ...input, key: 'a' }] }, unused: /prior/ },
    forecast: { args: { input } },
    massLife: { args: { massLimitKg: 4 } },
    priorMoved: { args: { from: { meanLn: -3, sd: 0.5 }, to: { meanLn: -2.9, sd: 0.5 } } },
    pooledPrior: { args: { material: 'hardened steel', sum: made(term), sisters: 8 } },
    sisterTerm: { args: { history, material: 'hardened steel' } },
    startOf: { args: { h: { nominalMm: 0.4, wasUsed: false, doubt: history.doubt } }, unused: /misread/ },
    RowStore: { args: { history, law: 'sliding' } },
    takenForMisread: { args: { history, prior, law: 'sliding' } },
    tipLife: { args: { p: made(tipped), limitMm: 0.5 } },
    tipLossAt: { args: { p: made(tipped), wearKg: 1 } },
    tipPosterior: { args: { history: tip, prior: wear.tipPrior('hardened steel') } },
    usualFlareMm: { args: { nominalMm: 0.4 } },
    wearAtRisk: { args: { lives: made(lives), risk: 0.1 } },
    wearAtRisks: { args: { lives: made(lives), risks: [0.1] }, named: { 0: 'risk' } },
    wearKg: { args: { extrudedG: 300, fillerMassFraction: 0.2, abrasivity: 1 } },
    wearToLimit: { args: { law: 'sliding', d0Mm: 0.4, kappa: 0.03, limitMm: 0.44, nominalMm: 0.4 } },
    wouldExplain: { args: { others: history, reading: history.observations[0], prior, law: 'sliding' } },
  },
}

/** Public functions that reckon with no number of their caller's. */
const NO_NUMBERS: Record<string, Record<string, string>> = {
  schedule: {
    byWeight: 'of dues that the core made',
    dueOfBed: 'words in',
    dueOfNoUpkeep: 'a word in',
    dueOfUnchecked: 'words in',
    dueOfUnknownSpool: 'a word in',
    dueOfUntested: 'words in',
    guardName: 'a word in',
    isPutOff: 'of a due that the core made, and of keys',
    keyOf: 'of a due that the core made',
    mayBePutOff: 'of a due that the core made',
    upkeepHazards: 'a word in',
    usualUpkeep: 'words in',
  },
  totals: { isoWeek: 'a day in' },
  level: { readMesh: 'text in' },
  cards: { spreadWords: 'of a card that the core made', differsWords: 'of a comparison that the core made' },
  anneal: { usuallyInSand: 'a word in' },
  chamber: {
    isWallMaterial: 'a word in',
    placesOf: 'of a survey that the core made',
    surveyHolds: 'compares what a survey was stored with',
    surveySources: 'of surveys that the core made',
    readSurveyTable: 'text in; what is no number becomes a problem at its line',
    readTable: 'text in; what is no number becomes a problem at its line',
  },
  intake: {
    columnsOf: 'a name in',
    filamentOfName: 'a name in',
    isLogTable: 'a name in',
    looksLikeHeadings: 'text in',
    matchHeadings: 'text in',
    nozzleTypeOfName: 'a name in',
    readCell: 'text in; what cannot be read becomes a problem',
    separatorOf: 'text in',
    writtenBy: 'text in',
  },
  diagnosis: {
    startOf: 'words in',
    counted: 'words in',
    countsAs: 'a word in',
    chanceOfResult: 'chances of a table, each refused where it is used',
    resultsOf: 'words out',
    evidenceOf: 'words in',
    signWords: 'words in',
    reviewOf: 'words in',
    causeWords: 'a word in',
    testsThatSpeakFor: 'words in, and a start that the core made',
    answerWords: 'an answer that the core made',
    speaks: 'a step that the core made',
  },
  drying: {
    takesNoWater: 'a word in',
    historyProblems: 'answers with the problems themselves',
    hubCeilingC: 'a word in',
    isPolyamide: 'a word in',
    wetVerdict: 'a word in',
    meanWater: 'only of a state that the core made',
  },
  gcode: { publicResult: 'picks fields of a result' },
  limits: {
    nozzleKind: 'a name for what is checked where it is used',
    airPlaceOf: 'reads where a part sits',
    openingOf: 'reads how a lid is',
    standsAt: 'reads where a part sits',
    airSources: 'gathers what is known; what is reckoned with it is checked there',
    isMakers: 'reads a basis',
    narrower: 'compares a window that the core made with what was used',
    surfaceReason: 'words in',
    tightest: 'of lines that the core made',
    usableWords: 'words of a window that the core made',
    welds: 'words in',
    after: 'moves records; what is reckoned with them is checked there',
    better: 'words in',
    byDedication: 'compares results',
    describedPart: 'fills a record from the catalogue',
    describedPrinter: 'fills a record from the catalogue',
    furthest: 'of parts that are checked where they are reckoned with',
    guardOf: 'reads two rules',
    heatSays: 'words of what the core made',
    knownOf: 'reads what is known',
    makesSays: 'words of what the core made',
    sensorsOf: 'reads what is known',
    inOrder: 'sorts lines that the core made',
    isAbrasive: 'a word in',
    isHotendRole: 'a word in',
    withHotend: 'moves records; what is reckoned with them is checked there',
    isKind: 'a word in',
    kindOf: 'a word in',
    kindsOf: 'a word in',
    marginOf: 'of a line that the core made',
    nozzlePart: 'fills a record',
    onSheet: 'words in',
    readSurface: 'words in',
    surfaceText: 'words in',
    offsetC: 'a word in',
    partOf: 'fills a record from the catalogue',
    readDataSheet: 'text in; what cannot be read is listed',
    reason: 'words of a line that the core made',
    sentenceOf: 'words of a verdict that the core made',
    stackProblems: 'answers with the problems themselves',
    startWindow: 'words in',
    wordsOf: 'words of a line that the core made',
    zoneOf: 'a word in',
  },
  numeric: {
    InputError: 'the error itself',
    need: 'the checker itself',
    needEach: 'the checker itself',
    needIfKnown: 'the checker itself',
    needOne: 'the checker itself',
    normalDraw: 'a generator in',
    once: 'a function in',
    shuffled: 'a generator in, and things of any kind',
  },
  cautions: { cautionsNamed: 'words in' },
  changeover: { bodyOf: 'words in' },
  procedures: {
    burnOut: 'construction in words',
    clogDoubt: 'words of steps',
    commissionFacts: 'fills a record from parts that are checked where they are reckoned with',
    guardsOf: 'reads what parts there are',
    notReadyToGo: 'reads what parts there are',
    portsOf: 'reads what was written down',
    missingBefore: 'reads a list of steps',
    typedState: 'what is no reading is not known',
    unproved: 'words in',
    valueFaults: 'answers with the faults themselves',
    progress: 'reads a list of steps',
    waitWords: 'words of a state that the core made',
  },
  precheck: {
    chamberStands: 'facts that the check looks through',
    fanStands: 'facts that the check looks through',
    flowStands: 'facts that the check looks through',
    headStands: 'facts that the check looks through',
    setpointsStand: 'facts that the check looks through',
    sheetStands: 'facts that the check looks through',
    settles: 'words of a line that the core made',
    stillAnswered: 'words of lines that the core made',
    verdictOf: 'words of lines that the core made',
  },
  thermometry: {
    placementOf: 'a word in',
    placementsOf: 'a word in',
    thermocoupleRangeC: 'a word in',
  },
  wear: {
    lnKappa: 'of a posterior that the core made',
    rangeOf: 'of a spread that the core made',
    sumTerms: 'adds terms that the core made',
    withTerm: 'adds terms that the core made',
    withoutTerm: 'takes a term that the core made',
    tipPrior: 'a word in',
  },
}

/** Every number within the arguments: where it stands, and the arguments with another in its place. */
function numbersIn(
  value: unknown,
  path: string[] = [],
): { path: string[]; with: (v: number) => unknown; is: number }[] {
  if (typeof value === 'number') return [{ path, with: v => v, is: value }]
  if (typeof value !== 'object' || value === null || value instanceof Made) return []
  return Object.entries(value).flatMap(([key, inner]) =>
    numbersIn(inner, [...path, key]).map(n => ({
      ...n,
      with: (v: number) =>
        Array.isArray(value)
          ? value.map((x: unknown, i) => (String(i) === key ? n.with(v) : x))
          : { ...value, [key]: n.with(v) },
    })),
  )
}
/** Records by number: looked up, never reckoned with. */
const IDENTIFIERS = new Set(['id', 'headId'])
const bare = (v: unknown) => (v instanceof Made ? v.value : v)
const run = (f: unknown, args: unknown) => {
  const list = Object.values(args as object).map(bare)
  return /^class\b/.test(String(f))
    ? new (f as new (...a: unknown[]) => unknown)(...list)
    : (f as (...a: unknown[]) => unknown)(...list)
}
/** Numbers of an answer that are none; what a posterior keeps for itself is looked at too. */
function nansIn(value: unknown, seen = new Set<unknown>()): boolean {
  if (typeof value === 'number') return Number.isNaN(value)
  if (typeof value !== 'object' || value === null || seen.has(value)) return false
  seen.add(value)
  if (ArrayBuffer.isView(value)) return value instanceof Float64Array && value.some(Number.isNaN)
  return Object.values(value).some(v => nansIn(v, seen))
}

test('every public function is called here, or takes no number', () => {
  for (const [name, module] of Object.entries(MODULES)) {
    const functions = Object.entries(module)
      .filter(([, v]) => typeof v === 'function')
      .map(([k]) => k)
    expect([...Object.keys(CALLS[name] ?? {}), ...Object.keys(NO_NUMBERS[name] ?? {})].sort(), name).toEqual(
      functions.sort(),
    )
  }
})

describe.each(Object.entries(CALLS))('%s', (module, calls) => {
  test.each(Object.entries(calls))('%s', (name, { args, infinite = [], named = {}, unused }) => {
    const f = MODULES[module]![name]
    const places = numbersIn(args).filter(
      p => !IDENTIFIERS.has(p.path[p.path.length - 1]!) && !unused?.test(p.path.join('.')),
    )
    expect(places.length, 'numbers to go wrong').toBeGreaterThan(0)
    expect(nansIn(run(f, args)), 'as it should be').toBe(false)
    const wrong: string[] = []
    for (const place of places) {
      const at = place.path.join('.')
      const key = place.path[place.path.length - 1]!
      const list = place.path
        .slice(0, -1)
        .reverse()
        .find(k => !/^\d+$/.test(k))
      for (const v of [NaN, Infinity, -Infinity, -Math.abs(place.is) - 1]) {
        const says = `${at} = ${v}`
        try {
          const out = run(f, place.with(v))
          if (Number.isNaN(v) || (!Number.isFinite(v) && !infinite.includes(at))) wrong.push(`${says} is taken`)
          else if (nansIn(out)) wrong.push(`${says} gives NaN`)
        } catch (e) {
          if (!(e instanceof numeric.InputError)) wrong.push(`${says}: ${String(e)}`)
          else if (!e.field.split('.').some(s => s === key || s === named[key] || (/^\d+$/.test(key) && s === list)))
            wrong.push(`${says} is said of ${e.field}`)
        }
      }
    }
    expect(wrong).toEqual([])
  })
})
