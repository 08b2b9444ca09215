/* eslint-disable max-lines -- a table of tables */
/** The tables as Drizzle sees them. The SQL in migrations/ is what makes them; a test holds the two together. */
import type { PlanSpec } from '#shared/entries/plans'
import type { SaidAtClosing } from '#shared/answers/diagnosis'
import type { StoredCheck } from '#shared/answers/prepare'
import type { ZoneLimit } from '#shared/answers/printers'
import type { SCALE_WAYS, SpoolKind } from '#shared/choices'
import type { StoredPicture } from '#shared/entries/pictures'
import type { Proof } from '#shared/entries/log'
import type { ProcedureKind } from '#shared/entries/change'
import type { EndingTarget, StrikeTarget } from '#shared/logs'
import { sql } from 'drizzle-orm'
import {
  bigint,
  boolean,
  customType,
  date,
  doublePrecision,
  integer,
  jsonb,
  pgTable,
  text,
  timestamp,
} from 'drizzle-orm/pg-core'
import type { AirPlace, Basis, ChamberLevel, Details, Opening, Place, Role, ValueKey, Ventilation } from '#core/limits'
import type { FILLERS, Law, NozzleForecast, NOZZLE_MATERIALS } from '#core/wear'
import type { ChamberSize, FittedWarmUp, Guard, PartSize, Read, Reading, SurveyProbe } from '#core/chamber'
import type { Cause, Finding, KnownBy } from '#core/diagnosis'
import type { Tone } from '#core/imaging'
import type { ZWay } from '#core/changeover'
import type { Clockwise, LevelMeasured, ZWhy } from '#core/level'
import type { ClogFacts, CommissionFacts, HotendFacts, Step, SwapFacts, Values } from '#core/procedures'
import type { Found, UpkeepKind } from '#core/schedule'
import type { StockKind, StockMove, StockUnit, UsedBy } from '#core/stock'
import type { StudyMethod } from '#core/study'
import type { Allowed, Placement, Point, Reference, Sensed } from '#core/thermometry'
import type { DryerKind, FittedFactor } from '#core/drying'
import type { TableName } from '#core/intake'
import type { SpoolMass } from '#core/materials'
import type { LifeFacts } from '../records/nozzles/life-facts'
import type { SpoolStand } from '../records/spools/moisture'
import type { FullScan } from '#core/gcode'
import type { Answer, CheckLine } from '#core/precheck'

/** What a person can say a number rests on. */
type Entered = Exclude<Basis, 'start value'>

const id = () => integer().primaryKey().generatedAlwaysAsIdentity()
const entryId = () => bigint({ mode: 'number' }).primaryKey().generatedAlwaysAsIdentity()
const at = () => timestamp({ withTimezone: true })
const now = () => at().notNull().defaultNow()
const bytes = customType<{ data: Buffer }>({ dataType: () => 'bytea' })
const version = () => integer().notNull().default(1)
const note = () => text().notNull().default('')

/** When it happened, who entered it, and when. */
const logged = () => ({ occurredAt: at().notNull(), personId: integer().notNull(), recordedAt: now() })

/** Forecast as stored, with the names that go with it. */
export interface ForecastDetail {
  forecast: NozzleForecast
  sisters: number
  prior: { meanLn: number; sd: number }
}

export const people = pgTable('people', {
  id: id(),
  name: text().notNull(),
  role: text().$type<'technician' | 'lead'>().notNull(),
  outOfUse: boolean().notNull().default(false),
  version: version(),
  createdAt: now(),
})

export const settings = pgTable('settings', {
  id: integer().primaryKey().default(1),
  shopName: text().notNull(),
  timeZone: text().notNull(),
  labelAddress: text().notNull().default(''),
  acceptedRisk: doublePrecision().notNull(),
  guardHotendC: doublePrecision('guard_hotend_c').notNull(),
  guardBedC: doublePrecision('guard_bed_c').notNull(),
  guardChamberC: doublePrecision('guard_chamber_c').notNull(),
  guardHotendCheckedC: doublePrecision('guard_hotend_checked_c').notNull().default(5),
  guardBedCheckedC: doublePrecision('guard_bed_checked_c').notNull().default(3),
  guardChamberCheckedC: doublePrecision('guard_chamber_checked_c').notNull().default(3),
  roomC: doublePrecision('room_c').notNull(),
  bendSafety: doublePrecision().notNull(),
  coarseC: doublePrecision('coarse_c').notNull(),
  labourPerHour: doublePrecision().notNull(),
  downtimePerHour: doublePrecision().notNull(),
  downtimeHours: doublePrecision().notNull(),
  scrapPerSwap: doublePrecision().notNull(),
  currency: text().notNull(),
  highestFlowMm3S: doublePrecision('highest_flow_mm3_s').notNull(),
  roomRh: doublePrecision().notNull(),
  dryBoxRh: doublePrecision().notNull(),
  dryBoxReadAt: timestamp({ withTimezone: true, mode: 'string' }),
  prices: jsonb().$type<Record<string, { price: number; minutes: number }>>().notNull(),
  demoAnchor: at(),
  version: version(),
})

export const printers = pgTable('printers', {
  id: id(),
  name: text().notNull(),
  kind: text().notNull(),
  note: note(),
  outOfUse: boolean().notNull().default(false),
  toCommission: boolean().notNull().default(false),
  /** What it is not used for, in words. */
  restrictions: text().array().notNull().default([]),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const heads = pgTable('heads', {
  id: id(),
  printerId: integer().notNull(),
  name: text().notNull(),
  position: integer().notNull().default(0),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const parts = pgTable('parts', {
  id: id(),
  kind: text().notNull(),
  role: text().$type<Role>().notNull(),
  name: text().notNull(),
  place: text().$type<Place>().notNull(),
  limitC: doublePrecision('limit_c'),
  shortC: doublePrecision('short_c'),
  basis: text().$type<Basis>().notNull(),
  note: note(),
  details: jsonb().$type<Details>().notNull().default({}),
  toShelf: boolean().notNull().default(false),
  version: version(),
  enteredBy: integer().notNull(),
  enteredAt: now(),
})

export const hotends = pgTable('hotends', {
  id: id(),
  tag: text().notNull(),
  note: note(),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const stackChanges = pgTable('stack_changes', {
  id: entryId(),
  /** Null for work at the bench. */
  printerId: integer(),
  kind: text().$type<'described' | 'changed' | 'tagged' | 'bench'>().notNull(),
  text: text().notNull(),
  occurredAt: at().notNull(),
  personId: integer().notNull(),
  recordedAt: now(),
})

export const partEvents = pgTable('part_events', {
  id: entryId(),
  changeId: bigint({ mode: 'number' }).notNull(),
  partId: integer().notNull(),
  kind: text().$type<'fit' | 'shelve' | 'scrap'>().notNull(),
  headId: integer(),
  /** The hotend that it sits in on the shelf. */
  hotendId: integer(),
})

export const assemblyEvents = pgTable('assembly_events', {
  id: entryId(),
  changeId: bigint({ mode: 'number' }).notNull(),
  hotendId: integer().notNull(),
  kind: text().$type<'fit' | 'shelve'>().notNull(),
  headId: integer(),
})

export const stackCeilings = pgTable('stack_ceilings', {
  printerId: integer().primaryKey(),
  limits: jsonb().$type<ZoneLimit[]>().notNull(),
  model: integer().notNull(),
})

export const materials = pgTable('materials', {
  id: id(),
  name: text().notNull(),
  polymer: text().notNull(),
  filler: text().$type<(typeof FILLERS)[number]>().notNull(),
  fillerFraction: doublePrecision().notNull(),
  densityGCm3: doublePrecision('density_g_cm3'),
  abrasivity: doublePrecision().notNull(),
  ventilation: text().$type<Ventilation>(),
  basis: text().$type<Entered>().notNull(),
  note: note(),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const materialValues = pgTable('material_values', {
  id: id(),
  materialId: integer().notNull(),
  key: text().$type<ValueKey>().notNull(),
  value: doublePrecision().notNull(),
  basis: text().$type<Entered>().notNull(),
  note: note(),
  version: version(),
  enteredBy: integer().notNull(),
  enteredAt: now(),
})

/** What a person wrote of what worked with a material, a type of nozzle and a printer. */
export const cards = pgTable('cards', {
  id: id(),
  materialId: integer().notNull(),
  typeId: integer().notNull(),
  printerId: integer().notNull(),
  nozzleC: doublePrecision(),
  bedC: doublePrecision(),
  chamberC: doublePrecision(),
  printMmS: doublePrecision(),
  peakMm3S: doublePrecision('peak_mm3_s'),
  firstLayerMmS: doublePrecision(),
  firstLayerMm: doublePrecision(),
  fanPercent: doublePrecision(),
  flowPercent: doublePrecision(),
  holdMin: doublePrecision(),
  coolCPerMin: doublePrecision('cool_c_per_min'),
  bondAlongN: doublePrecision(),
  bondAcrossN: doublePrecision(),
  adhesive: text().notNull(),
  outcome: text().notNull(),
  note: note(),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const practiceSets = pgTable('practice_sets', {
  id: id(),
  materialId: integer().notNull(),
  name: text().notNull(),
  conditions: text().notNull().default(''),
  enclosed: boolean().notNull().default(false),
  bedMinC: doublePrecision('bed_min_c'),
  bedMaxC: doublePrecision('bed_max_c'),
  chamber: text().$type<ChamberLevel>().notNull(),
  chamberMinC: doublePrecision('chamber_min_c'),
  chamberMaxC: doublePrecision('chamber_max_c'),
  dry: boolean().notNull().default(true),
  dryMinC: doublePrecision('dry_min_c'),
  dryMaxC: doublePrecision('dry_max_c'),
  dryHoursMin: doublePrecision(),
  dryHoursMax: doublePrecision(),
  surfaces: text().array().notNull().default([]),
  basis: text().$type<Entered>().notNull(),
  note: note(),
  withdrawn: boolean().notNull().default(false),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const nozzleTypes = pgTable('nozzle_types', {
  id: id(),
  name: text().notNull(),
  material: text().$type<(typeof NOZZLE_MATERIALS)[number]>().notNull(),
  nominalBoreMm: doublePrecision().notNull(),
  lengthMm: doublePrecision().notNull(),
  coneDeg: doublePrecision().notNull(),
  tipFlatMm: doublePrecision().notNull(),
  landMm: doublePrecision().notNull(),
  inletMm: doublePrecision().notNull(),
  insertMm: doublePrecision(),
  boreGrowthLimit: doublePrecision(),
  tipLossLimitMm: doublePrecision(),
  massLimitKg: doublePrecision(),
  torqueNm: doublePrecision(),
  basis: text().$type<Entered>().notNull(),
  note: note(),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const nozzles = pgTable('nozzles', {
  id: id(),
  tag: text().notNull(),
  typeId: integer().notNull(),
  wasUsed: boolean().notNull().default(false),
  law: text().$type<Law>().notNull().default('sliding'),
  note: note(),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const spools = pgTable('spools', {
  id: id(),
  tag: text().notNull(),
  materialId: integer().notNull(),
  diameterMm: doublePrecision().notNull(),
  netG: doublePrecision().notNull(),
  tareG: doublePrecision(),
  hub: text().notNull().default(''),
  densityGCm3: doublePrecision('density_g_cm3'),
  fillerFraction: doublePrecision(),
  note: note(),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const jobs = pgTable('jobs', {
  id: entryId(),
  name: text().notNull(),
  contentSha256: text('content_sha256').notNull(),
  sizeBytes: bigint({ mode: 'number' }).notNull(),
  scan: jsonb().$type<FullScan>().notNull(),
  personId: integer().notNull(),
  recordedAt: now(),
})

export const runs = pgTable('runs', {
  id: entryId(),
  printerId: integer().notNull(),
  jobId: bigint({ mode: 'number' }),
  name: text().notNull(),
  endedAt: at().notNull(),
  hours: doublePrecision(),
  outcome: text().$type<'finished' | 'failed'>().notNull(),
  stoppedKind: text().$type<'percent' | 'height' | 'weighed'>(),
  stoppedValue: doublePrecision(),
  symptoms: text().array().notNull().default([]),
  enteredAs: text().$type<'job file' | 'grams' | 'metres' | 'spool weights'>().notNull(),
  bedSetC: doublePrecision('bed_set_c'),
  chamberSetC: doublePrecision('chamber_set_c'),
  surface: text(),
  precheckId: bigint({ mode: 'number' }),
  note: note(),
  personId: integer().notNull(),
  recordedAt: now(),
})

export const runTools = pgTable('run_tools', {
  id: entryId(),
  runId: bigint({ mode: 'number' }).notNull(),
  tool: integer().notNull(),
  headId: integer().notNull(),
  nozzleId: integer().notNull(),
  materialId: integer().notNull(),
  spoolId: integer(),
  endedAt: at().notNull(),
  extrudedMm: doublePrecision(),
  extrudedG: doublePrecision().notNull(),
  fibreG: doublePrecision().notNull(),
  wearKg: doublePrecision().notNull(),
  setC: doublePrecision('set_c'),
  peakFlowMm3S: doublePrecision('peak_flow_mm3_s'),
  densityGCm3: doublePrecision('density_g_cm3'),
  diameterMm: doublePrecision().notNull(),
  filler: text().notNull(),
  fillerFraction: doublePrecision().notNull(),
  abrasivity: doublePrecision().notNull(),
  materialName: text().notNull(),
  /** What the spool weighed before and after it, g, where the run was logged by that. */
  beforeG: doublePrecision(),
  afterG: doublePrecision(),
})

export const gauges = pgTable('gauges', {
  id: entryId(),
  nozzleId: integer().notNull(),
  kind: text().$type<'receipt' | 'service'>().notNull(),
  goMm: doublePrecision(),
  noGoMm: doublePrecision(),
  goPin: text(),
  noGoPin: text(),
  valueMm: doublePrecision(),
  uMm: doublePrecision('u_mm'),
  tipMm: doublePrecision(),
  tipUMm: doublePrecision('tip_u_mm'),
  shape: text().array().notNull().default([]),
  /** Read from a picture: by which set-up, the part of its uncertainty that all its pictures share, what it showed. */
  setupId: integer(),
  uSharedMm: doublePrecision('u_shared_mm'),
  picture: jsonb().$type<StoredPicture>(),
  blob: text(),
  note: note(),
  occurredAt: at().notNull(),
  personId: integer().notNull(),
  recordedAt: now(),
})

export const setups = pgTable('setups', {
  id: id(),
  name: text().notNull(),
  focusesItself: boolean().notNull().default(false),
  tone: text().$type<Tone>(),
  dueDays: integer().notNull(),
  note: note(),
  withdrawn: boolean().notNull().default(false),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const studies = pgTable('studies', {
  id: entryId(),
  name: text().notNull(),
  method: text().$type<StudyMethod>().notNull(),
  setupId: integer(),
  repeats: integer().notNull(),
  /** The list as it was drawn: person, nozzle and round of each line. */
  lines: jsonb().$type<[person: number, nozzle: number, round: number][]>().notNull(),
  note: note(),
  ...logged(),
})

export const studyReadings = pgTable('study_readings', {
  id: entryId(),
  studyId: bigint({ mode: 'number' }).notNull(),
  line: integer().notNull(),
  goMm: doublePrecision(),
  noGoMm: doublePrecision(),
  valueMm: doublePrecision(),
  note: note(),
  ...logged(),
})

export const flowBenches = pgTable('flow_benches', {
  id: entryId(),
  headId: integer().notNull(),
  nozzleId: integer().notNull(),
  spoolId: integer().notNull(),
  materialId: integer().notNull(),
  materialName: text().notNull(),
  diameterMm: doublePrecision().notNull(),
  densityGCm3: doublePrecision('density_g_cm3').notNull(),
  /** In the order of the work: setpoint in °C, flow in mm³/s, round. */
  lines: jsonb().$type<[temperatureC: number, flowMm3S: number, round: number][]>().notNull(),
  lengthMm: doublePrecision().notNull(),
  balanceStepG: doublePrecision().notNull(),
  accepted: doublePrecision().notNull(),
  stand: jsonb().$type<{ xMm: number; yMm: number; zMm: number }>().notNull(),
  tool: integer(),
  note: note(),
  ...logged(),
})

export const flowBlobs = pgTable('flow_blobs', {
  id: entryId(),
  benchId: bigint({ mode: 'number' }).notNull(),
  line: integer().notNull(),
  grossG: doublePrecision().notNull(),
  panG: doublePrecision().notNull(),
  note: note(),
  ...logged(),
})

export const filamentMeasures = pgTable('filament_measures', {
  id: entryId(),
  benchId: bigint({ mode: 'number' }).notNull(),
  callipersMm: doublePrecision().array(),
  toldMm: doublePrecision(),
  fedMm: doublePrecision(),
  note: note(),
  ...logged(),
})

export const flowBenchRuns = pgTable('flow_bench_runs', {
  id: entryId(),
  benchId: bigint({ mode: 'number' }).notNull(),
  runId: bigint({ mode: 'number' }).notNull(),
})

export const referenceProbes = pgTable('reference_probes', {
  id: id(),
  name: text().notNull(),
  is: jsonb('spec').$type<Reference>().notNull(),
  dueOn: date(),
  note: note(),
  withdrawn: boolean().notNull().default(false),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const sensorChecks = pgTable('sensor_checks', {
  id: entryId(),
  printerId: integer().notNull(),
  zone: text().$type<Sensed>().notNull(),
  headId: integer(),
  partId: integer(),
  referenceId: integer().notNull(),
  reference: jsonb().$type<Reference>().notNull(),
  placement: text().$type<Placement>().notNull(),
  points: jsonb().$type<Point[]>().notNull(),
  allowed: jsonb().$type<Allowed>().notNull(),
  note: note(),
  ...logged(),
})

export const surveys = pgTable('surveys', {
  id: entryId(),
  printerId: integer().notNull(),
  opening: text().$type<Opening>().notNull(),
  fan: boolean(),
  gapMm: doublePrecision('gap_mm').notNull(),
  shielded: boolean().notNull(),
  bedC: doublePrecision('bed_c').notNull(),
  chamberSetC: doublePrecision('chamber_set_c'),
  bedCheckId: bigint({ mode: 'number' }),
  chamberCheckId: bigint({ mode: 'number' }),
  tauS: doublePrecision('tau_s').notNull(),
  probeUC: doublePrecision('probe_u_c').notNull(),
  size: jsonb().$type<ChamberSize>().notNull(),
  timesS: jsonb('times_s').$type<number[]>().notNull(),
  roomC: jsonb('room_c').$type<Read[]>().notNull(),
  probes: jsonb().$type<SurveyProbe[]>().notNull(),
  note: note(),
  ...logged(),
})

export const enclosurePlans = pgTable('enclosure_plans', {
  id: entryId(),
  printerId: integer().notNull(),
  name: text().notNull(),
  spec: jsonb().$type<PlanSpec>().notNull(),
  note: note(),
  ...logged(),
})

export const cutOutTests = pgTable('cut_out_tests', {
  id: entryId(),
  printerId: integer().notNull(),
  guard: text().$type<Guard>().notNull(),
  tripped: boolean().notNull(),
  atC: doublePrecision('at_c'),
  note: note(),
  ...logged(),
})

export const scales = pgTable('scales', {
  id: entryId(),
  setupId: integer().notNull(),
  how: text().$type<(typeof SCALE_WAYS)[number]>().notNull(),
  knownMm: doublePrecision(),
  umPerPx: doublePrecision().notNull(),
  uUmPerPx: doublePrecision('u_um_per_px').notNull(),
  note: note(),
  ...logged(),
})

/** Crops of pictures, by the hash of their bytes. */
export const blobs = pgTable('blobs', {
  id: entryId(),
  sha256: text().notNull(),
  type: text().notNull(),
  bytes: bytes().notNull(),
  recordedAt: now(),
})

export const fittings = pgTable('fittings', {
  id: entryId(),
  kind: text().$type<'fit' | 'remove' | 'retire'>().notNull(),
  nozzleId: integer().notNull(),
  headId: integer(),
  reason: text().notNull().default(''),
  occurredAt: at().notNull(),
  personId: integer().notNull(),
  recordedAt: now(),
  /** The hotend in which it went to the shelf, and the change that moved that. */
  hotendId: integer(),
  changeId: bigint({ mode: 'number' }),
})

export const spoolEvents = pgTable('spool_events', {
  id: entryId(),
  spoolId: integer().notNull(),
  kind: text().$type<SpoolKind>().notNull(),
  grossG: doublePrecision(),
  headId: integer(),
  roomC: doublePrecision('room_c'),
  rh: doublePrecision(),
  atC: doublePrecision('at_c'),
  hours: doublePrecision(),
  note: note(),
  ...logged(),
})

export const dryers = pgTable('dryers', {
  id: id(),
  name: text().notNull(),
  kind: text().$type<DryerKind>().notNull(),
  ceilingC: doublePrecision('ceiling_c').notNull(),
  timeOutH: doublePrecision(),
  printerId: integer(),
  basis: text().$type<Entered>().notNull(),
  note: note(),
  withdrawn: boolean().notNull().default(false),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const checkLines = pgTable('check_lines', {
  id: id(),
  says: text().notNull(),
  printerId: integer(),
  materialId: integer(),
  withdrawn: boolean().notNull().default(false),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const dryings = pgTable('dryings', {
  id: entryId(),
  spoolId: integer().notNull(),
  dryerId: integer().notNull(),
  setC: doublePrecision('set_c').notNull(),
  plannedH: doublePrecision().notNull(),
  targetWt: doublePrecision(),
  grossG: doublePrecision(),
  note: note(),
  ...logged(),
})

export const soaks = pgTable('soaks', {
  id: entryId(),
  printerId: integer().notNull(),
  materialId: integer(),
  targetC: doublePrecision('target_c'),
  bedC: doublePrecision('bed_c').notNull(),
  part: text().$type<PartSize>().notNull(),
  minutes: doublePrecision().notNull(),
  basis: text().$type<'warm-up record' | 'practice'>().notNull(),
  note: note(),
  ...logged(),
})

export const warmUps = pgTable('warm_ups', {
  id: entryId(),
  printerId: integer().notNull(),
  place: text().notNull(),
  source: text().$type<'live readings' | 'probe file'>().notNull(),
  bedC: doublePrecision('bed_c').notNull(),
  chamberSetC: doublePrecision('chamber_set_c'),
  roomC: doublePrecision('room_c').notNull(),
  /** Read from `place` by the database: what was typed before places were a list. */
  atPlace: text()
    .$type<AirPlace>()
    .generatedAlwaysAs(sql`place`),
  opening: text().$type<Opening>().notNull(),
  fit: jsonb().$type<FittedWarmUp>().notNull(),
  readings: jsonb().$type<Reading[]>().notNull(),
  /** Of long ones, the few that a drawing shows. */
  drawn: jsonb().$type<Reading[]>(),
  note: note(),
  ...logged(),
})

export const warmUpPlaces = pgTable('warm_up_places', {
  id: entryId(),
  warmUpId: integer().notNull(),
  place: text().$type<AirPlace>().notNull(),
  ...logged(),
})

export const changeovers = pgTable('changeovers', {
  id: entryId(),
  headId: integer().notNull(),
  nozzleId: integer().notNull(),
  fromMaterialId: integer(),
  toMaterialId: integer(),
  atC: doublePrecision('at_c').notNull(),
  volumeMm3: doublePrecision('volume_mm3').notNull(),
  clean: boolean().notNull(),
  note: note(),
  ...logged(),
})

export const anneals = pgTable('anneals', {
  id: entryId(),
  name: text().notNull(),
  materialId: integer().notNull(),
  dryerId: integer().notNull(),
  atC: doublePrecision('at_c').notNull(),
  holdH: doublePrecision().notNull(),
  rampCPerH: doublePrecision('ramp_c_per_h').notNull(),
  thicknessMm: doublePrecision().notNull(),
  sandMm: doublePrecision(),
  totalH: doublePrecision().notNull(),
  note: note(),
  ...logged(),
})

export const endings = pgTable('endings', {
  id: entryId(),
  target: text().$type<EndingTarget>().notNull(),
  targetId: bigint({ mode: 'number' }).notNull(),
  outcome: text().$type<'done' | 'stopped early'>().notNull(),
  actualC: doublePrecision('actual_c'),
  grossG: doublePrecision(),
  proved: jsonb().$type<Proof[]>(),
  note: note(),
  ...logged(),
})

export const coolDowns = pgTable('cool_downs', {
  id: entryId(),
  printerId: integer().notNull(),
  materialId: integer().notNull(),
  name: text().notNull(),
  thicknessMm: doublePrecision().notNull(),
  bedC: doublePrecision('bed_c').notNull(),
  surface: text(),
  minutes: doublePrecision().notNull(),
  takeOff: text().$type<'warm' | 'cold'>().notNull(),
  takeOffC: doublePrecision('take_off_c').notNull(),
  note: note(),
  ...logged(),
})

export const procedures = pgTable('procedures', {
  id: entryId(),
  kind: text().$type<ProcedureKind>().notNull(),
  printerId: integer().notNull(),
  headId: integer(),
  title: text().notNull(),
  facts: jsonb().$type<SwapFacts | HotendFacts | ClogFacts | CommissionFacts>().notNull(),
  steps: jsonb().$type<Step[]>().notNull(),
  note: note(),
  ...logged(),
})

export const procedureTicks = pgTable('procedure_ticks', {
  id: entryId(),
  procedureId: bigint({ mode: 'number' }).notNull(),
  step: text().notNull(),
  /** How many ticks of this step were struck out before. */
  again: integer().notNull().default(0),
  entered: jsonb().$type<Values>().notNull().default({}),
  readC: doublePrecision('read_c'),
  readBy: text().$type<'printer' | 'person'>(),
  note: note(),
  ...logged(),
})

export const cases = pgTable('cases', {
  id: entryId(),
  headId: integer().notNull(),
  nozzleId: integer(),
  spoolId: integer(),
  materialId: integer(),
  runId: bigint({ mode: 'number' }),
  afterId: bigint({ mode: 'number' }),
  picture: text(),
  note: note(),
  ...logged(),
})

export const caseFindings = pgTable('case_findings', {
  id: entryId(),
  caseId: bigint({ mode: 'number' }).notNull(),
  kind: text().$type<Finding['kind']>().notNull(),
  key: text().notNull(),
  state: text().notNull(),
  note: note(),
  ...logged(),
})

export const caseClosings = pgTable('case_closings', {
  id: entryId(),
  caseId: bigint({ mode: 'number' }).notNull(),
  cause: text().$type<Cause>().notNull(),
  known: text().$type<KnownBy>().notNull(),
  how: text().notNull(),
  said: jsonb().$type<SaidAtClosing>().notNull(),
  note: note(),
  ...logged(),
})

export const zRecords = pgTable('z_records', {
  id: entryId(),
  headId: integer().notNull(),
  nozzleId: integer().notNull(),
  procedureId: bigint({ mode: 'number' }),
  way: text().$type<ZWay>().notNull(),
  beforeMm: doublePrecision(),
  zMm: doublePrecision().notNull(),
  changeMm: doublePrecision(),
  why: text().$type<ZWhy>().notNull().default('change'),
  probeMm: doublePrecision(),
  note: note(),
  ...logged(),
})

export const beds = pgTable('beds', {
  id: id(),
  printerId: integer().notNull(),
  widthMm: doublePrecision().notNull(),
  depthMm: doublePrecision().notNull(),
  screws: jsonb().$type<{ name: string; xMm: number; yMm: number }[]>().notNull(),
  pitchMm: doublePrecision().notNull(),
  clockwise: text().$type<Clockwise>().notNull(),
  basis: text().$type<Entered>().notNull(),
  note: note(),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const levels = pgTable('levels', {
  id: entryId(),
  printerId: integer().notNull(),
  measured: jsonb().$type<LevelMeasured>().notNull(),
  bedC: doublePrecision('bed_c').notNull(),
  soakedMin: doublePrecision(),
  note: note(),
  ...logged(),
})

export const upkeepTasks = pgTable('upkeep_tasks', {
  id: id(),
  printerId: integer().notNull(),
  kind: text().$type<UpkeepKind>().notNull(),
  name: text().notNull(),
  everyHours: doublePrecision(),
  everyKg: doublePrecision(),
  everyDays: doublePrecision(),
  guard: text().$type<Guard>(),
  /** What it takes from the shelf each time. */
  stockItemId: integer(),
  stockQuantity: doublePrecision(),
  basis: text().$type<Entered>().notNull(),
  note: note(),
  withdrawn: boolean().notNull().default(false),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const upkeepEntries = pgTable('upkeep_entries', {
  id: entryId(),
  taskId: integer().notNull(),
  printerId: integer().notNull(),
  found: text().$type<Found>().notNull(),
  says: text().notNull().default(''),
  note: note(),
  ...logged(),
})

export const snoozes = pgTable('snoozes', {
  id: entryId(),
  key: text().notNull(),
  says: text().notNull(),
  until: at().notNull(),
  reason: text().notNull(),
  ...logged(),
})

export const calendarFeeds = pgTable('calendar_feeds', {
  id: id(),
  name: text().notNull(),
  tokenSha256: text('token_sha256').notNull(),
  revoked: boolean().notNull().default(false),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const pins = pgTable('pins', {
  id: id(),
  mark: text().notNull(),
  nominalMm: doublePrecision().notNull(),
  note: note(),
  withdrawn: boolean().notNull().default(false),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const pinCertificates = pgTable('pin_certificates', {
  id: entryId(),
  pinId: integer().notNull(),
  sizeMm: doublePrecision().notNull(),
  uMm: doublePrecision('u_mm').notNull(),
  dueOn: date({ mode: 'string' }),
  note: note(),
  ...logged(),
})

export const stockItems = pgTable('stock_items', {
  id: id(),
  kind: text().$type<StockKind>().notNull(),
  name: text().notNull(),
  unit: text().$type<StockUnit>().notNull(),
  /** Counted by tags: nozzles of this type. */
  nozzleTypeId: integer(),
  minimum: doublePrecision(),
  usedBy: text().$type<UsedBy>(),
  price: doublePrecision(),
  pricedOn: date({ mode: 'string' }),
  note: note(),
  withdrawn: boolean().notNull().default(false),
  version: version(),
  createdBy: integer().notNull(),
  createdAt: now(),
})

export const stockMoves = pgTable('stock_moves', {
  id: entryId(),
  itemId: integer().notNull(),
  kind: text().$type<StockMove>().notNull(),
  quantity: doublePrecision().notNull(),
  upkeepId: bigint({ mode: 'number' }),
  procedureId: bigint({ mode: 'number' }),
  note: note(),
  ...logged(),
})

/** Derived from the moves by triggers. */
export const stockStands = pgTable('stock_stands', {
  itemId: integer().primaryKey(),
  onHand: doublePrecision().notNull(),
  countedAt: at(),
  onOrder: doublePrecision().notNull(),
})

export const serviceTags = pgTable('service_tags', {
  id: entryId(),
  printerId: integer().notNull(),
  why: text().notNull(),
  must: text().array().notNull().default([]),
  procedureId: bigint({ mode: 'number' }),
  note: note(),
  ...logged(),
})

export const shiftNotes = pgTable('shift_notes', {
  id: entryId(),
  printerId: integer().notNull(),
  says: text().notNull(),
  note: note(),
  ...logged(),
})

export const prechecks = pgTable('prechecks', {
  id: entryId(),
  printerId: integer().notNull(),
  headId: integer().notNull(),
  spoolId: integer(),
  materialId: integer().notNull(),
  name: text().notNull(),
  contentSha256: text('content_sha256'),
  hours: doublePrecision(),
  printsFrom: text().$type<'room' | 'dry box' | 'dryer'>().notNull(),
  tool: integer().notNull().default(0),
  /** Set by hand at the printer, where the file sets none; °C. */
  setC: jsonb('set_c').$type<StoredCheck['setC']>(),
  lines: jsonb().$type<CheckLine[]>().notNull(),
  answers: jsonb().$type<Answer[]>().notNull(),
  may: boolean().notNull(),
  note: note(),
  ...logged(),
})

export const readings = pgTable('readings', {
  printerId: integer().notNull(),
  at: at().notNull(),
  bedC: doublePrecision('bed_c'),
  chamberC: doublePrecision('chamber_c'),
})

export const strikes = pgTable('strikes', {
  id: entryId(),
  target: text().$type<StrikeTarget>().notNull(),
  targetId: bigint({ mode: 'number' }).notNull(),
  reason: text().notNull(),
  personId: integer().notNull(),
  recordedAt: now(),
})

/** What came in by a table, and which entries are of it. */
export const imports = pgTable('imports', {
  id: entryId(),
  kind: text().$type<TableName>().notNull(),
  name: text().notNull(),
  lines: integer().notNull(),
  personId: integer().notNull(),
  recordedAt: now(),
})
export const importRows = pgTable('import_rows', {
  id: entryId(),
  importId: bigint({ mode: 'number' }).notNull(),
  target: text().$type<StrikeTarget>().notNull(),
  targetId: bigint({ mode: 'number' }).notNull(),
})

export const edits = pgTable('edits', {
  id: entryId(),
  kind: text().notNull(),
  recordId: integer().notNull(),
  /** The version that the edit made. */
  version: integer().notNull(),
  /** Former values of what was changed. */
  before: jsonb().$type<Record<string, unknown>>().notNull(),
  personId: integer().notNull(),
  recordedAt: now(),
})

export const answers = pgTable('answers', {
  key: text().primaryKey(),
  route: text().notNull(),
  bodySha256: text('body_sha256').notNull(),
  personId: integer().notNull(),
  /** Null once it is so old that only its key is kept. */
  answer: jsonb(),
  recordedAt: now(),
})

export const forecasts = pgTable('forecasts', {
  nozzleId: integer().primaryKey(),
  basis: text().notNull(),
  stale: boolean().notNull().default(false),
  /** By how many of its spreads what the sisters tell has moved since; null where it is out of date by itself. */
  moved: doublePrecision(),
  sisterTerm: doublePrecision().array(),
  wearKg: doublePrecision().notNull(),
  fibreG: doublePrecision().notNull(),
  leftKg: doublePrecision().notNull(),
  leftLowKg: doublePrecision().notNull(),
  leftHighKg: doublePrecision().notNull(),
  nextGaugeKg: doublePrecision().notNull(),
  pastChance: doublePrecision().notNull(),
  detail: jsonb().$type<ForecastDetail>().notNull(),
  /** Null in rows from before it was kept, which are stale. */
  life: jsonb().$type<LifeFacts>(),
  computedAt: now(),
  /** Versions of the wear model that the forecast and the sister term were worked out by. */
  model: integer().notNull(),
  termModel: integer().notNull(),
})

/** Derived, like forecasts: a spool after its last event, by the version of its log and by what else it rests on. */
export const spoolStands = pgTable('spool_stands', {
  spoolId: integer().primaryKey(),
  version: bigint({ mode: 'number' }).notNull(),
  basis: text().notNull(),
  inUse: boolean().notNull(),
  leftG: doublePrecision().notNull(),
  leftBy: text().$type<SpoolMass['by']>().notNull(),
  lastUsedAt: at(),
  stand: jsonb().$type<SpoolStand>().notNull(),
})

/** Derived: the shop's wound-spool factor, by what it was fitted to. */
export const woundFactors = pgTable('wound_factors', {
  basis: text().primaryKey(),
  fitted: jsonb().$type<FittedFactor>().notNull(),
  computedAt: now(),
})

/** Derived: the sum of what the nozzles of a material tell each other, and what they were told last. */
export const sisterSums = pgTable('sister_sums', {
  material: text().$type<(typeof NOZZLE_MATERIALS)[number]>().primaryKey(),
  model: integer().notNull(),
  sum: doublePrecision().array(),
  sisters: integer().notNull(),
  told: jsonb().$type<{ meanLn: number; sd: number }>().notNull(),
})
