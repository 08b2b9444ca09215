/**
 * What the app may send, as Zod schemas: one place for the browser's forms and the server's doors.
 * Messages say what to do; units stand in the names.
 */
import { z } from 'zod'
import {
  CHAMBER_LEVELS,
  DETAIL_RANGES,
  isKind,
  ORDERED_FACTS,
  PLACES,
  RULE_RANGES,
  setProblems,
  stackProblems,
  START_RULES,
  VALUE_KEYS,
  VALUES,
  VENTILATION,
  type DescribedPart,
} from '#core/limits'
import { PART_SIZES } from '#core/chamber'
import { AIR_C, DRYER_KINDS, DRYING_C, RH_PERCENT, TIME_OUT_H, WATER_WT } from '#core/drying'
import { MOST_TOOLS } from '#core/gcode'
import { DIAMETER_MM } from '#core/materials'
import { FILLERS, NOZZLE_MATERIALS } from '#core/wear'

export const BASES = ['nameplate', 'data sheet', 'material property', 'practice'] as const
export const SYMPTOMS = [
  'under-extruded',
  'uneven lines',
  'stringing',
  'popping',
  'warped',
  'clog',
  'came loose',
  'layer shift',
  'other',
] as const
export const SHAPES = ['oval', 'flared', 'chipped', 'cracked plating', 'loose insert'] as const
export const TAG = /^[A-Za-z0-9][A-Za-z0-9._-]{0,19}$/

const between = (low: number, high: number, unit: string) =>
  z.number({ error: 'Enter a number' }).min(low, `At least ${low} ${unit}`).max(high, `At most ${high} ${unit}`)
/** Identifiers are integers of the database. */
const id = z
  .number({ error: 'Choose one' })
  .int()
  .positive()
  .max(2 ** 31 - 1, 'This is not known')
export { id as idSchema }
const text = (max: number) => z.string().trim().max(max, `At most ${max} characters`)
const name = (max: number) => text(max).min(1, 'Enter a name')
const note = text(2000).default('')
/** The first year that an entry can be of: a log older than this is a slip of the keyboard. */
export const FIRST_YEAR = 2000
const when = z.iso
  .datetime({ offset: true, abort: true, error: 'Enter a date and time' })
  .refine(t => new Date(t).getTime() >= Date.UTC(FIRST_YEAR, 0, 1), {
    error: `Enter a date from the year ${FIRST_YEAR} on`,
  })
/** Answers to questions that were asked and confirmed, by code. */
const confirmed = z.array(z.string()).max(20).default([])
const basis = z.enum(BASES, { error: 'Say where the value comes from' })
const tag = z.string().trim().regex(TAG, 'Letters, digits, dot and dash, up to 20, starting with a letter or digit')

export const amountSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('job') }),
  z.object({ kind: z.literal('grams'), grams: between(0.01, 50_000, 'g') }),
  z.object({ kind: z.literal('metres'), metres: between(0.001, 20_000, 'm') }),
  z
    .object({ kind: z.literal('weights'), beforeG: between(1, 25_000, 'g'), afterG: between(1, 25_000, 'g') })
    .refine(w => w.afterG < w.beforeG, { path: ['afterG'], error: 'The spool must weigh less after than before' }),
])

export const runToolSchema = z
  .object({
    tool: z.number().int().min(0),
    headId: id,
    nozzleId: id,
    spoolId: id.nullable().default(null),
    materialId: id.nullable().default(null),
    amount: amountSchema,
    setC: between(0, 600, '°C').nullable().default(null),
  })
  .refine(t => t.spoolId !== null || t.materialId !== null, {
    path: ['spoolId'],
    error: 'Choose the spool, or at least the material',
  })

const figure = z.number().min(0).nullable()
/**
 * What a run or a check reads of a scan; the rest of it comes along as it is. Parts that old scans lack may be missing.
 */
const scanFields = z.looseObject({
  filamentDiameterMm: between(...DIAMETER_MM, 'mm'),
  dialect: z.enum(['eIndependent', 'eFollowsPositioning']).optional(),
  tools: z
    .array(
      z.object({
        index: z.number().int().min(0),
        extrudedMm: z.number().min(0),
        offPartMm: z.number().min(0),
        printingMm: z.number().min(0),
      }),
    )
    .max(MOST_TOOLS),
  maxSetpointC: z.object({
    tools: z.record(z.string().max(10), z.number()),
    bed: z.number().nullable(),
    chamber: z.number().nullable(),
  }),
  moveSeconds: figure.optional(),
  flow: z.looseObject({ peak: figure }).nullable().optional(),
  toolFlow: z
    .array(z.looseObject({ index: z.number().int().min(0), peak: figure }))
    .max(MOST_TOOLS)
    .nullable()
    .optional(),
  fan: z.object({ max: figure, mean: figure }).nullable().optional(),
  firstLayer: z.object({ heightMm: z.number(), meanMmS: z.number() }).nullable().optional(),
})

export const jobSchema = z.object({
  name: name(255),
  contentSha256: z.string().regex(/^[0-9a-f]{64}$/),
  sizeBytes: z
    .number()
    .int()
    .min(0)
    .max(2 ** 53 - 1),
  scan: scanFields.extend({
    totalExtrudedMm: z.number().positive('Nothing is extruded in this file'),
    profile: z
      .array(
        z.object({
          percent: z.number(),
          extrudedMm: z.array(z.number()).max(MOST_TOOLS),
          seconds: z.number(),
          zMm: z.number(),
        }),
      )
      .length(101)
      .nullable(),
  }),
})

export const runSchema = z
  .object({
    printerId: id,
    jobId: id.nullable().default(null),
    /** A job that is not stored yet comes along with its first run, so that both are stored or neither. */
    job: jobSchema.nullable().default(null),
    name: name(255),
    endedAt: when,
    hours: between(0.01, 2000, 'h').nullable().default(null),
    outcome: z.enum(['finished', 'failed']),
    stopped: z
      .discriminatedUnion('kind', [
        z.object({ kind: z.literal('percent'), value: between(0, 100, '%') }),
        z.object({ kind: z.literal('height'), value: between(0, 2000, 'mm') }),
        z.object({ kind: z.literal('weighed'), value: between(0.01, 50_000, 'g') }),
      ])
      .nullable()
      .default(null),
    symptoms: z.array(z.enum(SYMPTOMS)).max(9).default([]),
    bedSetC: between(0, 300, '°C').nullable().default(null),
    chamberSetC: between(0, 300, '°C').nullable().default(null),
    /** The check before this run, if one was made. */
    precheckId: id.nullable().default(null),
    note,
    tools: z.array(runToolSchema).min(1, 'At least one tool').max(32),
    confirmed,
  })
  .refine(r => r.job === null || r.jobId === null, { path: ['job'], error: 'Either a stored job or a new one' })
  .refine(r => r.outcome === 'failed' || r.stopped === null, {
    path: ['stopped'],
    error: 'Only a failed job stopped early',
  })

const pinMark = text(20)
  .nullable()
  .default(null)
  .transform(v => v || null)
export const gaugeSchema = z
  .object({
    nozzleId: id,
    occurredAt: when,
    goMm: between(0.05, 3, 'mm').nullable().default(null),
    noGoMm: between(0.05, 3, 'mm').nullable().default(null),
    goPin: pinMark,
    noGoPin: pinMark,
    valueMm: between(0.05, 3, 'mm').nullable().default(null),
    uMm: between(0.0001, 0.2, 'mm').nullable().default(null),
    tipMm: between(1, 60, 'mm').nullable().default(null),
    tipUMm: between(0.001, 1, 'mm').nullable().default(null),
    shape: z.array(z.enum(SHAPES)).default([]),
    note,
    confirmed,
  })
  .superRefine((g, ctx) => {
    const say = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message })
    if (g.goMm !== null && g.noGoMm !== null && g.goMm >= g.noGoMm)
      say('goMm', `The go pin (${g.goMm}) must be smaller than the no-go pin (${g.noGoMm})`)
    if (g.valueMm !== null && (g.goMm !== null || g.noGoMm !== null)) say('valueMm', 'Either pins or a value, not both')
    if (g.valueMm !== null && g.uMm === null) say('uMm', 'Enter how sure the value is (± mm)')
    if (g.goMm === null && g.noGoMm === null && g.valueMm === null && g.tipMm === null && g.shape.length === 0)
      say('goMm', 'Enter a pin, a value, a tip length or what you saw')
  })

export const fittingSchema = z
  .object({
    kind: z.enum(['fit', 'remove', 'retire']),
    nozzleId: id,
    headId: id.nullable().default(null),
    reason: text(300).default(''),
    occurredAt: when,
    confirmed,
  })
  .superRefine((f, ctx) => {
    if (f.kind === 'retire' && f.reason.length < 3)
      ctx.addIssue({ code: 'custom', path: ['reason'], message: 'Say why it is retired' })
    if (f.kind === 'fit' && f.headId === null)
      ctx.addIssue({ code: 'custom', path: ['headId'], message: 'Choose the head' })
  })

export const strikeSchema = z.object({
  target: z.enum([
    'run',
    'gauge',
    'fitting',
    'spool event',
    'stack change',
    'drying',
    'soak',
    'warm-up',
    'changeover',
    'anneal',
  ]),
  targetId: id,
  reason: text(300).min(3, 'Say why it is struck out'),
  confirmed,
})

export const spoolEventSchema = z
  .object({
    spoolId: id,
    kind: z.enum(['opened', 'loaded', 'out', 'in', 'dried', 'weighed']),
    grossG: between(1, 25_000, 'g').nullable().default(null),
    headId: id.nullable().default(null),
    /** Air it goes into, where it is not the shop's usual. */
    roomC: between(-20, 60, '°C').nullable().default(null),
    rh: between(...RH_PERCENT, '%')
      .nullable()
      .default(null),
    /** How a drying that the app did not time was done. */
    atC: between(...DRYING_C, '°C')
      .nullable()
      .default(null),
    hours: between(0.1, 500, 'h').nullable().default(null),
    note,
    occurredAt: when,
  })
  .refine(e => e.kind === 'dried' || (e.atC === null && e.hours === null), {
    path: ['hours'],
    error: 'Only a drying has a temperature and hours',
  })
  .refine(e => (e.kind === 'weighed') === (e.grossG !== null), {
    path: ['grossG'],
    error: 'Enter the weight with the spool, in g',
  })

const maybe = (low: number, high: number, unit: string) => between(low, high, unit).nullable()
const detail = (key: keyof typeof DETAIL_RANGES, unit: string) => between(...DETAIL_RANGES[key], unit).optional()
const theta = (key: keyof typeof DETAIL_RANGES) => detail(key, '(share of the way from room to bed)')
/** What is known of a part beside its limit. */
export const detailsSchema = z.strictObject({
  element: z.enum(['ntc', 'platinum', 'type K']).optional(),
  r25Ohm: detail('r25Ohm', 'Ω'),
  betaK: detail('betaK', 'K'),
  pullUpOhm: detail('pullUpOhm', 'Ω'),
  bits: detail('bits', 'bits'),
  countMicrovolt: detail('countMicrovolt', 'µV'),
  hardened: z.boolean().optional(),
  bendMm: detail('bendMm', 'mm'),
  freedBendMm: detail('freedBendMm', 'mm'),
  bendWay: z.enum(['with', 'against']).optional(),
  freedNeedsLidOff: z.boolean().optional(),
  surface: name(40).optional(),
  reachC: detail('reachC', '°C'),
  level: z.enum(VENTILATION).optional(),
  mains: z.boolean().optional(),
  thetaLow: theta('thetaLow'),
  thetaHigh: theta('thetaHigh'),
  thetaBay: theta('thetaBay'),
  openThetaLow: theta('openThetaLow'),
  openThetaHigh: theta('openThetaHigh'),
  offsetLow: detail('offsetLow', '°C'),
  offsetHigh: detail('offsetHigh', '°C'),
  offsetBay: detail('offsetBay', '°C'),
})
const limitC = between(START_RULES.roomC, 800, '°C, which is room temperature').nullable()
const shortBelow = (p: { limitC?: number | null; shortC?: number | null }) =>
  p.limitC == null || p.shortC == null || p.shortC >= p.limitC
const shortSays = { path: ['shortC'], error: 'The short-time limit is not below the continuous one' }
export const partFields = z
  .object({
    name: name(60),
    place: z.enum(PLACES),
    limitC,
    shortC: maybe(20, 900, '°C').default(null),
    basis,
    note,
    details: detailsSchema.default({}),
  })
  .refine(shortBelow, shortSays)
const describedPart = z.object({
  kind: z.string().trim().min(1, 'Choose a kind').max(60),
  head: z.number().int().min(0).max(15).nullable().default(null),
  name: name(60).optional(),
  place: z.enum(PLACES).optional(),
  limitC: maybe(20, 800, '°C').optional(),
  shortC: maybe(20, 900, '°C').optional(),
  basis: basis.optional(),
  note: text(2000).optional(),
  details: detailsSchema.optional(),
})
export const printerFields = z.object({ name: name(40), kind: name(80), note })
/** A printer as a stack: also the format in which one is written out and read in. */
export const printerSchema = printerFields
  .extend({
    heads: z
      .array(z.object({ name: name(40) }))
      .min(1, 'At least one head')
      .max(16),
    parts: z.array(describedPart).min(1, 'At least one part').max(200),
  })
  .superRefine((p, ctx) => {
    for (const x of stackProblems({ heads: p.heads, parts: p.parts as DescribedPart[] }, START_RULES.roomC))
      ctx.addIssue({
        code: 'custom',
        path: x.field.split('.').map(k => (/^\d+$/.test(k) ? Number(k) : k)),
        message: x.message,
      })
  })

const knownKind = z.string().refine(isKind, { error: 'There is no such part kind; the catalogue lists them' })
/** A part for the shelf, with its kind's start values unless others are given. */
export const shelfPartSchema = z.object({
  kind: knownKind,
  name: name(60).optional(),
  limitC: limitC.optional(),
  basis: basis.optional(),
  note,
  details: detailsSchema.optional(),
})

/** What is changed on a printer, all at one time. Parts that come off go to the shelf. */
export const changeSchema = z
  .object({
    printerId: id,
    text: text(2000).min(3, 'Say what was done'),
    occurredAt: when,
    remove: z.array(id).max(200).default([]),
    /** Parts from the shelf. */
    fit: z
      .array(z.object({ partId: id, headId: id.nullable().default(null) }))
      .max(200)
      .default([]),
    /** Parts that the shop had not recorded. */
    add: z
      .array(
        describedPart
          .omit({ head: true })
          .extend({ kind: knownKind, headId: id.nullable().default(null), limitC: limitC.optional() }),
      )
      .max(200)
      .default([]),
    nozzles: z
      .array(z.object({ nozzleId: id, headId: id }))
      .max(16)
      .default([]),
    confirmed,
  })
  .refine(c => c.remove.length + c.fit.length + c.add.length + c.nozzles.length > 0, {
    path: ['remove'],
    error: 'Nothing is changed',
  })

const valueIn = (key: keyof typeof VALUES) => between(VALUES[key].min, VALUES[key].max, VALUES[key].unit)
const factSchema = z.object({ value: z.number({ error: 'Enter a number' }), basis, note })
export const materialValueFields = z
  .object({ key: z.enum(VALUE_KEYS as [keyof typeof VALUES, ...(keyof typeof VALUES)[]]), ...factSchema.shape })
  .superRefine(valueInRange)
export const materialValueSchema = z
  .object({
    materialId: id,
    key: z.enum(VALUE_KEYS as [keyof typeof VALUES, ...(keyof typeof VALUES)[]]),
    ...factSchema.shape,
  })
  .superRefine(valueInRange)
function valueInRange(
  v: { key: keyof typeof VALUES; value: number },
  ctx: { addIssue: (i: { code: 'custom'; path: (string | number)[]; message: string }) => void },
): void {
  const r = valueIn(v.key).safeParse(v.value)
  if (!r.success) ctx.addIssue({ code: 'custom', path: ['value'], message: r.error.issues[0]!.message })
}

export const practiceSetFields = z
  .object({
    name: name(40),
    conditions: text(2000).default(''),
    enclosed: z.boolean().default(false),
    bedMinC: maybe(15, 300, '°C').default(null),
    bedMaxC: maybe(15, 300, '°C').default(null),
    chamber: z.enum(CHAMBER_LEVELS),
    chamberMinC: maybe(20, 250, '°C').default(null),
    chamberMaxC: maybe(20, 250, '°C').default(null),
    dry: z.boolean().default(true),
    dryMinC: maybe(...DRYING_C, '°C').default(null),
    dryMaxC: maybe(...DRYING_C, '°C').default(null),
    dryHoursMin: maybe(0.1, 200, 'h').default(null),
    dryHoursMax: maybe(0.1, 200, 'h').default(null),
    surfaces: z.array(name(60)).max(12).default([]),
    basis,
    note,
    withdrawn: z.boolean().default(false),
  })
  .superRefine((s, ctx) => {
    for (const p of setProblems(s)) ctx.addIssue({ code: 'custom', path: [p.field], message: p.message })
  })
export const practiceSetSchema = z.object({ materialId: id, set: practiceSetFields })

export const materialFields = z.object({
  name: name(40),
  polymer: name(40),
  filler: z.enum(FILLERS),
  fillerFraction: between(0, 0.8, '(as a share of mass)'),
  densityGCm3: between(0.5, 10, 'g/cm³').nullable().default(null),
  abrasivity: between(0.0001, 10, '(carbon fibre 1)'),
  ventilation: z.enum(VENTILATION).nullable().default(null),
  basis,
  note,
})
const factsSchema = z
  .partialRecord(z.enum(VALUE_KEYS as [keyof typeof VALUES, ...(keyof typeof VALUES)[]]), factSchema)
  .superRefine((facts, ctx) => {
    for (const [k, f] of Object.entries(facts)) {
      const r = valueIn(k as keyof typeof VALUES).safeParse(f!.value)
      if (!r.success) ctx.addIssue({ code: 'custom', path: [k, 'value'], message: r.error.issues[0]!.message })
    }
    for (const [a, b] of ORDERED_FACTS)
      if (facts[a] && facts[b] && facts[a].value > facts[b].value)
        ctx.addIssue({
          code: 'custom',
          path: [b, 'value'],
          message: `Not below ${VALUES[a].label.toLowerCase()}, ${facts[a].value} ${VALUES[a].unit}`,
        })
  })
const fillerAgrees = (m: { filler: string; fillerFraction: number }) =>
  (m.filler === 'none') === (m.fillerFraction === 0)
const fillerSays = { path: ['fillerFraction'], error: 'A filler needs a share above 0; without filler the share is 0' }
export const materialEditSchema = materialFields.refine(fillerAgrees, fillerSays)
/** A new material may come with its facts and practice sets, each with its basis. */
export const materialSchema = materialFields
  .extend({ facts: factsSchema.default({}), sets: z.array(practiceSetFields).max(12).default([]) })
  .refine(fillerAgrees, fillerSays)

export const nozzleTypeFields = z.object({
  name: name(60),
  material: z.enum(NOZZLE_MATERIALS),
  nominalBoreMm: between(0.1, 2, 'mm'),
  lengthMm: between(5, 40, 'mm'),
  coneDeg: between(20, 120, '°'),
  tipFlatMm: between(0.2, 6, 'mm'),
  landMm: between(0.1, 10, 'mm'),
  inletMm: between(1, 5, 'mm'),
  insertMm: between(0.5, 6, 'mm').nullable().default(null),
  boreGrowthLimit: between(0.01, 1, '(as a share of nominal)').nullable().default(0.1),
  tipLossLimitMm: between(0.01, 2, 'mm').nullable().default(0.15),
  massLimitKg: between(0.001, 1000, 'kg').nullable().default(null),
  basis,
  note,
})
export const nozzleTypeSchema = nozzleTypeFields.superRefine((t, ctx) => {
  const say = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message })
  if (t.tipFlatMm <= t.nominalBoreMm) say('tipFlatMm', 'The tip flat must be wider than the bore')
  if (t.inletMm <= t.nominalBoreMm) say('inletMm', 'The inlet must be wider than the bore')
  if (t.landMm >= t.lengthMm) say('landMm', 'The land must be shorter than the nozzle')
  if (t.boreGrowthLimit === null && t.tipLossLimitMm === null && t.massLimitKg === null)
    say('boreGrowthLimit', 'At least one retire rule')
})

export const nozzleFields = z.object({ law: z.enum(['sliding', 'linear']), note })
export const nozzleSchema = z
  .object({
    tag,
    typeId: id,
    wasUsed: z.boolean().default(false),
    note,
    receivedAt: when,
    confirmed,
    receipt: z
      .object({
        goMm: between(0.05, 3, 'mm').nullable().default(null),
        noGoMm: between(0.05, 3, 'mm').nullable().default(null),
        valueMm: between(0.05, 3, 'mm').nullable().default(null),
        uMm: between(0.0001, 0.2, 'mm').nullable().default(null),
        tipMm: between(1, 60, 'mm').nullable().default(null),
      })
      .nullable()
      .default(null),
  })
  .superRefine((n, ctx) => {
    const r = n.receipt
    if (r && r.goMm !== null && r.noGoMm !== null && r.goMm >= r.noGoMm)
      ctx.addIssue({
        code: 'custom',
        path: ['receipt', 'goMm'],
        message: `The go pin (${r.goMm}) must be smaller than the no-go pin (${r.noGoMm})`,
      })
    if (r && r.valueMm !== null && (r.goMm !== null || r.noGoMm !== null))
      ctx.addIssue({ code: 'custom', path: ['receipt', 'valueMm'], message: 'Either pins or a value, not both' })
  })

export const spoolFields = z.object({
  tareG: between(0, 5000, 'g').nullable().default(null),
  hub: text(60).default(''),
  densityGCm3: between(0.5, 10, 'g/cm³').nullable().default(null),
  fillerFraction: between(0, 0.8, '(as a share of mass)').nullable().default(null),
  note,
})
export const spoolSchema = spoolFields.extend({
  tag,
  materialId: id,
  diameterMm: between(1, 3.5, 'mm'),
  netG: between(10, 20_000, 'g'),
})

export const personSchema = z.object({ name: name(80), role: z.enum(['technician', 'lead']) })
export const settingsFields = z.object({
  shopName: name(80),
  timeZone: name(60),
  acceptedRisk: between(0.001, 0.5, ''),
})

const price = z.object({ price: between(0, 1e6, ''), minutes: between(0, 1e4, 'min') })
const rule = (key: keyof typeof RULE_RANGES, unit: string) => between(...RULE_RANGES[key], unit)
/** Guard bands, room, rates and prices that the limits and the cost of nozzles are worked out with. */
export const rulesFields = z.object({
  guardHotendC: rule('guardHotendC', '°C'),
  guardBedC: rule('guardBedC', '°C'),
  guardChamberC: rule('guardChamberC', '°C'),
  roomC: rule('roomC', '°C'),
  bendSafety: rule('bendSafety', ''),
  coarseC: rule('coarseC', '°C per count'),
  labourPerHour: rule('labourPerHour', 'an hour'),
  downtimePerHour: between(0, 10_000, 'an hour'),
  downtimeHours: between(0, 100, 'h'),
  scrapPerSwap: between(0, 10_000, ''),
  currency: text(8).default(''),
  roomRh: between(...RH_PERCENT, '%').default(50),
  dryBoxRh: between(...RH_PERCENT, '%').default(10),
})
export const pricesFields = z.object({
  prices: z
    .record(z.string().max(60), price)
    .refine(p => Object.keys(p).every(k => isKind(k) || k.startsWith('nozzle ')), {
      error: 'Prices are kept by part kind, or "nozzle" and its material',
    }),
})

export const dryerFields = z.object({
  name: name(40),
  kind: z.enum(DRYER_KINDS),
  ceilingC: between(30, 300, '°C'),
  timeOutH: maybe(...TIME_OUT_H, 'h').default(null),
  printerId: id.nullable().default(null),
  basis,
  note,
  withdrawn: z.boolean().default(false),
})
export const dryerSchema = dryerFields.refine(d => d.kind !== 'bed under a cover' || d.printerId !== null, {
  path: ['printerId'],
  error: 'Choose the printer whose bed it is',
})

const gross = between(1, 25_000, 'g').nullable().default(null)
/** A drying that begins: where, how hot, for how long. */
export const dryingSchema = z.object({
  spoolId: id,
  dryerId: id,
  setC: between(...DRYING_C, '°C'),
  plannedH: between(0.1, 500, 'h'),
  targetWt: between(...WATER_WT, 'wt%')
    .nullable()
    .default(null),
  grossG: gross,
  note,
  occurredAt: when,
  confirmed,
})
/** The end of a drying, soak or anneal. */
export const endingSchema = z
  .object({
    target: z.enum(['drying', 'soak', 'anneal']),
    targetId: id,
    outcome: z.enum(['done', 'stopped early']).default('done'),
    actualC: between(0, 300, '°C').nullable().default(null),
    grossG: gross,
    note,
    occurredAt: when,
    confirmed,
  })
  .refine(e => e.target === 'drying' || e.grossG === null, { path: ['grossG'], error: 'Only a spool is weighed' })
  .refine(e => e.target !== 'drying' || e.actualC === null || e.actualC <= AIR_C[1], {
    path: ['actualC'],
    error: `At most ${AIR_C[1]} °C in a dryer`,
  })
export const soakSchema = z.object({
  printerId: id,
  materialId: id.nullable().default(null),
  targetC: between(20, 250, '°C').nullable().default(null),
  bedC: between(0, 300, '°C'),
  part: z.enum(PART_SIZES),
  minutes: between(0, 1440, 'min'),
  basis: z.enum(['warm-up record', 'practice']),
  note,
  occurredAt: when,
  confirmed,
})
export const warmUpSchema = z
  .object({
    printerId: id,
    place: name(60),
    bedC: between(0, 300, '°C'),
    chamberSetC: between(20, 250, '°C').nullable().default(null),
    roomC: between(-20, 60, '°C'),
    note,
    occurredAt: when,
    /** From the readings kept during a soak, or from a probe's file. */
    soakId: id.nullable().default(null),
    readings: z
      .array(z.object({ s: z.number().min(0).max(1e6), c: between(-40, 400, '°C') }))
      .max(20_000)
      .nullable()
      .default(null),
  })
  .refine(w => (w.soakId === null) !== (w.readings === null), {
    path: ['readings'],
    error: 'Either the readings of a soak or those of a file',
  })
export const changeoverSchema = z.object({
  headId: id,
  nozzleId: id,
  fromMaterialId: id.nullable().default(null),
  toMaterialId: id.nullable().default(null),
  atC: between(100, 600, '°C'),
  volumeMm3: between(0, 100_000, 'mm³'),
  clean: z.boolean(),
  note,
  occurredAt: when,
  confirmed,
})
export const annealSchema = z.object({
  name: name(120),
  materialId: id,
  dryerId: id,
  atC: between(30, 300, '°C'),
  holdH: between(0, 200, 'h'),
  rampCPerH: between(1, 600, '°C an hour'),
  thicknessMm: between(1, 300, 'mm'),
  note,
  occurredAt: when,
  confirmed,
})
const answer = z
  .object({ index: z.number().int().min(0).max(100), how: z.enum(['fixed', 'waived']), reason: text(300).default('') })
  .refine(a => a.how !== 'waived' || a.reason.length >= 3, { path: ['reason'], error: 'Say why it is waived' })
/** What the check is made of; its lines are worked out by the server. */
export const precheckSchema = z.object({
  printerId: id,
  headId: id,
  spoolId: id.nullable().default(null),
  materialId: id,
  printsFrom: z.enum(['room', 'dry box', 'dryer']),
  hours: between(0, 2000, 'h').nullable().default(null),
  name: name(255),
  contentSha256: z
    .string()
    .regex(/^[0-9a-f]{64}$/)
    .nullable()
    .default(null),
  scan: scanFields.nullable().default(null),
  tool: z.number().int().min(0).default(0),
  answers: z.array(answer).max(60).default([]),
  /** The lines that the answers were given to, as key and status; null before there are any. */
  seen: z.array(z.string().max(60)).max(100).nullable().default(null),
  note,
  occurredAt: when,
})
/** The stand-in's own panel: what a hand at the machine would do. Real printers have no such door. */
export const standInSchema = z.discriminatedUnion('what', [
  z.object({
    what: z.literal('set'),
    printer: name(40),
    heater: z.enum(['nozzle', 'bed', 'chamber']),
    celsius: between(0, 500, '°C'),
  }),
  z.object({ what: z.literal('door'), printer: name(40), open: z.boolean() }),
])

/** An edit of a record: the version that was seen, and the new values. */
export interface EditBody {
  version: number
  values: Record<string, unknown>
}
const editOf = <T extends z.ZodType<Record<string, unknown>>>(fields: T) => z.object({ version: id, values: fields })
/** What can be edited, by the name it has in the address. */
export const EDITS = {
  'printers': editOf(printerFields),
  'parts': editOf(partFields),
  'dryers': editOf(dryerSchema),
  'materials': editOf(materialEditSchema),
  'material-values': editOf(materialValueFields),
  'practice-sets': editOf(practiceSetFields),
  'nozzle-types': editOf(nozzleTypeSchema),
  'nozzles': editOf(nozzleFields),
  'spools': editOf(spoolFields),
  'settings': editOf(settingsFields),
  'rules': editOf(rulesFields),
  'prices': editOf(pricesFields),
} as const
export type EditableKind = keyof typeof EDITS

export type RunEntry = z.input<typeof runSchema>
export type GaugeEntry = z.input<typeof gaugeSchema>
export type FittingEntry = z.input<typeof fittingSchema>
export type StrikeEntry = z.input<typeof strikeSchema>
export type SpoolEventEntry = z.input<typeof spoolEventSchema>
export type JobEntry = z.input<typeof jobSchema>
export type PrinterEntry = z.input<typeof printerSchema>
export type ChangeEntry = z.input<typeof changeSchema>
export type PracticeSetEntry = z.input<typeof practiceSetFields>
export type MaterialEntry = z.input<typeof materialSchema>
export type NozzleTypeEntry = z.input<typeof nozzleTypeSchema>
export type NozzleEntry = z.input<typeof nozzleSchema>
export type DryingEntry = z.input<typeof dryingSchema>
export type PrecheckEntry = z.input<typeof precheckSchema>
export type SpoolEntry = z.input<typeof spoolSchema>
