/* eslint-disable max-lines -- a table: every route */
/**
 * Every route of the API: who may use it, what it takes and what it answers. The doors, the browser's calls, the forms,
 * the description at /api/openapi and the tests all read it here; a route that is not here does not compile.
 */
import { MOST_BACK, TOTALS_BY, TOTALS_PER } from './choices'
import { z } from 'zod'
import { AHEAD_DAYS } from '#core/stock'
import { entered } from './answers/again'
import { buying, equip, floor } from './answers/bench'
import { chambers, surveyEffect } from './answers/chambers'
import { change, clogOffer, hotendOffer, procedurePage, swapOffer, tickEffect } from './answers/change'
import { hotendLine } from './answers/hotends'
import { dueList } from './answers/due'
import { editLine } from './answers/edits'
import { levelEffect, levelPage, zEffect } from './answers/level'
import { temperatures, weight } from './answers/live'
import { typeLife } from './answers/lives'
import { nozzleLine, nozzlePage, gaugeEffect } from './answers/nozzles'
import { setupLine } from './answers/pictures'
import { id, maybe, stored, text, time } from './answers/parts'
import { precheckAnswer, prepare, storedCheck, warmUpFit, warmUpLine } from './answers/prepare'
import { changeEffect, fittingEffect } from './answers/printers'
import { jobLine, jobPage, jobStored, runEffect, runPage } from './answers/runs'
import { sensorCheckEffect, verify } from './answers/sensors'
import { intakeEffect, intakeImports, intakeLines, intakeProgress } from './answers/intake'
import { knownTags, shop } from './answers/shop'
import { spoolPage } from './answers/spools'
import { certificateEffect, pinLine } from './answers/pins'
import { moveEffect, stock } from './answers/stock'
import { totals } from './answers/totals'
import { planEffect, upkeep } from './answers/upkeep'
import { card } from './answers/cards'
import { caseList, casePage } from './answers/diagnosis'
import { benchPage, benchPlan, benchRow, blobEffect } from './answers/flow'
import { readingEffect, studyLine } from './answers/studies'
import { dropSchema, intakeSchema, pieceSchema } from './entries/intake'
import { surveySchema } from './entries/chambers'
import { coolDownSchema, procedureSchema, serviceTagSchema, shiftNoteSchema, tickSchema } from './entries/change'
import { feedSchema, snoozeSchema } from './entries/due'
import { EDITS } from './entries/edits'
import { idSchema } from './entries/fields'
import { LIST_NAMES } from './lists'
import type { StrikeTarget } from './logs'
import { EDIT_PATH } from './paths'
import { assemblySchema, hotendSchema } from './entries/hotends'
import { bedSchema, levelSchema, zRecordSchema } from './entries/level'
import { standInSchema } from './entries/live'
import { endingSchema, strikeSchema } from './entries/log'
import { materialSchema, materialValueSchema, practiceSetSchema } from './entries/materials'
import { gaugeSchema, nozzleSchema, nozzleTypeSchema } from './entries/nozzles'
import { scaleSchema, setupFields } from './entries/pictures'
import { cutOutTestSchema, planSchema } from './entries/plans'
import {
  annealSchema,
  changeoverSchema,
  checkLineSchema,
  dryerSchema,
  dryingSchema,
  precheckSchema,
  soakSchema,
  warmUpPlaceSchema,
  warmUpSchema,
} from './entries/prepare'
import { changeSchema, fittingSchema, printerSchema, shelfPartSchema } from './entries/printers'
import { jobSchema, runSchema } from './entries/runs'
import { referenceFields, sensorCheckSchema } from './entries/sensors'
import { personSchema } from './entries/shop'
import { spoolEventSchema, spoolSchema } from './entries/spools'
import { cardSchema } from './entries/cards'
import { caseSchema, closingSchema, findingSchema } from './entries/diagnosis'
import { benchSchema, blobSchema, filamentMeasureSchema } from './entries/flow'
import { studyReadingSchema, studySchema } from './entries/studies'
import { pinCertificateSchema, pinFields } from './entries/pins'
import { stockItemFields, stockMoveSchema } from './entries/stock'
import { upkeepPlanSchema, upkeepSchema, upkeepTaskFields } from './entries/upkeep'

/** Who may use a route. Accounts and roles come in here; today everybody on the shop's network may do everything. */
export const WHO = ['everybody'] as const
export type Who = (typeof WHO)[number]

interface Route {
  who: Who
  says: string
  answer: z.ZodType
}

/** The place after a page of runs: the time and the id of its last run. */
const cursor = z.string().transform((value, ctx) => {
  const [at = '', last = ''] = value.split('~')
  const read = z.object({ at: time, id: idSchema }).safeParse({ at, id: Number(last) })
  if (read.success && !Number.isNaN(Date.parse(at))) return read.data
  ctx.addIssue({ code: 'custom', message: 'after is the cursor of the page before: a time and an id, with ~ between' })
  return z.NEVER
})
const LIMIT = 'limit is 1 to 200'
export const runsQuery = z.object({
  limit: z.coerce.number(LIMIT).int(LIMIT).min(1, LIMIT).max(200, LIMIT).default(50),
  after: cursor.nullable().default(null),
})

const PAGE = 'limit is 1 to 500'
export const nozzlesQuery = z.object({
  /** Those in service, or those that are retired. */
  retired: z.enum(['0', '1'], 'retired is 0 or 1').default('0'),
  find: z.string().max(40, 'find is a part of a tag, type or reason').default(''),
  /** The last tag of the page before. */
  after: z.string().max(20, 'after is the last tag of the page before').nullable().default(null),
  limit: z.coerce.number(PAGE).int(PAGE).min(1, PAGE).max(500, PAGE).default(500),
})

export const microscopeQuery = z.object({
  nozzle: z.coerce.number().pipe(idSchema).optional().catch(undefined),
  every: z.coerce.number().min(0.005).max(1).optional().catch(undefined),
})

const DAYS = `days is ${AHEAD_DAYS[0]} to ${AHEAD_DAYS[1]}`
export const stockQuery = z.object({
  /** So long what is ordered is to be enough. */
  days: z.coerce.number(DAYS).int(DAYS).min(AHEAD_DAYS[0], DAYS).max(AHEAD_DAYS[1], DAYS).default(60),
})

const BACK = `back is 1 to ${MOST_BACK}`
export const totalsQuery = z.object({
  by: z.enum(TOTALS_BY, `by is one of ${TOTALS_BY.join(', ')}`).default('printer'),
  per: z.enum(TOTALS_PER, `per is ${TOTALS_PER.join(' or ')}`).default('week'),
  /** So many weeks or months, this one among them. */
  back: z.coerce.number(BACK).int(BACK).min(1, BACK).max(MOST_BACK, BACK).default(13),
})

/** What can be read. */
export const READS = {
  '/api/floor': {
    who: 'everybody',
    says: 'Every printer, its limits, fitted nozzles and what is next at the bench',
    answer: floor,
  },
  '/api/shop': { who: 'everybody', says: 'Names and tags of everything, and who acts', answer: shop },
  '/api/imports': { who: 'everybody', says: 'What came in by tables, the latest first', answer: intakeImports },
  '/api/intake/progress': {
    who: 'everybody',
    says: 'How far a long table has come: stage',
    answer: intakeProgress,
  },
  '/api/known-tags': {
    who: 'everybody',
    says: 'Every tag of a nozzle or a spool there ever was',
    answer: knownTags,
  },
  '/api/equip': {
    who: 'everybody',
    says: 'Stacks, shelf, materials, rules and the mix of the last 90 days',
    answer: equip,
  },
  '/api/buying': {
    who: 'everybody',
    says: 'Wear rate by nozzle material and the filled filament printed',
    answer: buying,
  },
  '/api/prepare': {
    who: 'everybody',
    says: 'Spools and their water, dryers, soaks, changeovers, anneals, checks',
    answer: prepare,
  },
  '/api/warm-ups/{id}': {
    who: 'everybody',
    says: 'Warm-ups of a printer, the latest first',
    answer: z.array(warmUpLine),
  },
  '/api/spools/{tag}': { who: 'everybody', says: 'One spool: its water through its history', answer: spoolPage },
  '/api/prechecks/{id}': { who: 'everybody', says: 'One check before a run', answer: storedCheck },
  '/api/jobs': { who: 'everybody', says: 'Jobs the shop has', answer: z.array(jobLine) },
  '/api/entered/{kind}/{id}': {
    who: 'everybody',
    says: 'An entry as it was sent, to enter it again with what is right',
    answer: entered,
  },
  '/api/jobs/{id}': { who: 'everybody', says: 'One job with its scan', answer: jobPage },
  '/api/nozzles': {
    who: 'everybody',
    says: 'Nozzles in service with what is left, or retired ones, by their tags; `next` is the cursor of more',
    answer: z.object({ nozzles: z.array(nozzleLine), next: maybe(text) }),
  },
  '/api/nozzles/{tag}': { who: 'everybody', says: 'One nozzle with its forecast and record', answer: nozzlePage },
  '/api/change': {
    who: 'everybody',
    says: 'Procedures under way, printers out of service, notes, and nozzles that are due',
    answer: change,
  },
  '/api/swaps/{id}': {
    who: 'everybody',
    says: 'Which nozzle to take for a head, and how the swap would go',
    answer: swapOffer,
  },
  '/api/clogs/{id}': { who: 'everybody', says: 'How a clog on a head would be cleared', answer: clogOffer },
  '/api/due': {
    who: 'everybody',
    says: 'What is due in the whole shop, what comes, what was put off',
    answer: dueList,
  },
  '/api/upkeep': {
    who: 'everybody',
    says: 'What each printer is kept up by, how far each has come, what was found',
    answer: upkeep,
  },
  '/api/pins': {
    who: 'everybody',
    says: 'Pin gauges with their certificates, and how many gauges rest on each',
    answer: z.array(pinLine),
  },
  '/api/stock': {
    who: 'everybody',
    says: 'What is on the shelf, what will be used up within so many days, and what to order',
    query: stockQuery,
    answer: stock,
  },
  '/api/totals': {
    who: 'everybody',
    says: 'What was printed by week or month, by printer, material, nozzle or person; what came out well; what it cost',
    query: totalsQuery,
    answer: totals,
  },
  '/api/levels/{id}': {
    who: 'everybody',
    says: 'The bed of a printer: its screws, what was measured of it, and its Z numbers',
    answer: levelPage,
  },
  '/api/hotend-swaps/{id}': {
    who: 'everybody',
    says: 'Which hotend to take for a head, and how the change would go',
    answer: hotendOffer,
  },
  '/api/hotends': {
    who: 'everybody',
    says: 'Hotends: where each is, what is inside, and where it was',
    answer: z.array(hotendLine),
  },
  '/api/cards/{id}': {
    who: 'everybody',
    says: 'What worked with a material, by type of nozzle and printer',
    answer: z.array(card),
  },
  '/api/benches': { who: 'everybody', says: 'Flow benches, the latest first', answer: z.array(benchRow) },
  '/api/benches/{id}': {
    who: 'everybody',
    says: 'One flow bench with its weights and what they tell',
    answer: benchPage,
  },
  '/api/bench-plans/{id}': {
    who: 'everybody',
    says: 'What a flow bench on a head rests on, with the spool that is asked about, or the one that is loaded there',
    query: z.object({ spool: z.coerce.number().pipe(idSchema).optional().catch(undefined) }),
    answer: benchPlan,
  },
  '/api/cases': {
    who: 'everybody',
    says: 'Cases of what is wrong with a print, open ones first, and how often the answer was right',
    answer: caseList,
  },
  '/api/cases/{id}': {
    who: 'everybody',
    says: 'One case: what was found, what the records tell, and what was said',
    answer: casePage,
  },
  '/api/procedures/{id}': { who: 'everybody', says: 'One procedure with its steps and ticks', answer: procedurePage },
  '/api/verify': { who: 'everybody', says: 'Sensors with their checks, and references', answer: verify },
  '/api/chambers': {
    who: 'everybody',
    says: 'Chambers of enclosed printers: surveys, plans, tests of cut-outs',
    answer: chambers,
  },
  '/api/setups': {
    who: 'everybody',
    says: 'Set-ups that take pictures, with their scales',
    answer: z.array(setupLine),
  },
  '/api/studies': {
    who: 'everybody',
    says: 'Gauge studies with their lists, the latest first',
    answer: z.array(studyLine),
  },
  '/api/lives': {
    who: 'everybody',
    says: 'How long nozzles of each type live, from what gauges found',
    answer: z.array(typeLife),
  },
  '/api/runs': {
    who: 'everybody',
    says: 'Runs, newest first; `limit` and the cursor `after`',
    query: runsQuery,
    answer: runPage,
  },
  '/api/balance': {
    who: 'everybody',
    says: 'What the balance reads; with the stand-in, with `spool` on it',
    query: z.object({
      spool: z.coerce.number().pipe(idSchema).optional().catch(undefined),
      /** The fine one, with blob `line` of a bench on it, or its empty pan. */
      bench: z.coerce.number().pipe(idSchema).optional().catch(undefined),
      line: z.coerce.number().int().min(-1).max(59).optional().catch(undefined),
    }),
    answer: weight,
  },
  '/api/thermometer': {
    who: 'everybody',
    says: 'What the thermometer reads, by channel',
    answer: temperatures,
  },
  '/api/edits/{kind}/{id}': {
    who: 'everybody',
    says: 'The edits of a record, the latest first, with what stood there before',
    answer: z.array(editLine),
  },
  '/api/health': {
    who: 'everybody',
    says: 'Ready, or 503 while the database is away',
    answer: z.object({ status: z.literal('ready') }),
  },
  '/api/openapi': {
    who: 'everybody',
    says: 'This description',
    answer: z.looseObject({ openapi: z.literal('3.1.0'), paths: z.record(text, z.unknown()) }),
  },
} as const satisfies Record<string, Route & { query?: z.ZodType }>

/** Server-sent events. */
export const STREAMS = {
  '/api/events': {
    who: 'everybody',
    says: 'Server-sent events: one per save, and what each printer reports, or since when it is lost',
  },
} as const satisfies Record<string, Omit<Route, 'answer'>>

export const listQuery = z.object({
  as: z.enum(['csv', 'json'], 'as is csv or json').default('csv'),
  nozzle: z.string().max(20, 'nozzle is a tag').optional(),
  spool: z.string().max(20, 'spool is a tag').optional(),
  printer: z.string().max(60, 'printer is a name').optional(),
})

/** Files; one by the hash of its bytes never changes, so a browser may keep it. */
export const FILES = {
  '/api/pictures/{sha256}': {
    who: 'everybody',
    says: 'The crop of a picture that goes with a gauge',
    keeps: true,
    query: z.object({}),
  },
  '/api/lists/{list}': {
    who: 'everybody',
    says: `A list as CSV or JSON, its units in the headings: ${LIST_NAMES.join(', ')}`,
    keeps: false,
    query: listQuery,
  },
  '/api/calendar': {
    who: 'everybody',
    says: 'What is due as an iCalendar file',
    keeps: false,
    query: z.object({}),
  },
  '/api/feeds/{token}': {
    who: 'everybody',
    says: 'The same under a private address, for a calendar that reads it by itself',
    keeps: false,
    query: z.object({}),
  },
  '/api/archive': {
    who: 'everybody',
    says: 'Everything the shop has in one ZIP: tables, lists, pictures, and what they mean',
    keeps: false,
    query: z.object({}),
  },
  '/api/microscope': {
    who: 'everybody',
    says: 'What the microscope sees; with the stand-in, with a nozzle or a stage scale under it',
    keeps: false,
    query: microscopeQuery,
  },
} as const satisfies Record<string, Omit<Route, 'answer'> & { keeps: boolean; query: z.ZodType }>

const begun = z.object({ id, until: time })
const tagged = z.object({ id, tag: text })

/** Entries: each counts exactly once under its Idempotency-Key. */
export const ENTRIES = {
  '/api/intake': {
    who: 'everybody',
    says: 'Take in a table that a shop brings along: every line, or none',
    body: intakeSchema,
    answer: intakeEffect,
  },
  '/api/runs': { who: 'everybody', says: 'Log a run', body: runSchema, answer: runEffect, again: 'run' },
  '/api/gauges': {
    who: 'everybody',
    says: 'Gauge a nozzle',
    body: gaugeSchema,
    answer: gaugeEffect,
    again: 'gauge',
  },
  '/api/setups': {
    who: 'everybody',
    says: 'Add a set-up that takes pictures',
    body: setupFields,
    answer: stored,
  },
  '/api/references': {
    who: 'everybody',
    says: 'A reference that sensors are checked against',
    body: referenceFields,
    answer: stored,
  },
  '/api/sensor-checks': {
    who: 'everybody',
    says: 'A sensor checked against a reference',
    body: sensorCheckSchema,
    answer: sensorCheckEffect,
    again: 'sensor check',
  },
  '/api/surveys': {
    who: 'everybody',
    says: 'A chamber surveyed with probes at several places',
    body: surveySchema,
    answer: surveyEffect,
  },
  '/api/plans': {
    who: 'everybody',
    says: 'A plan of an enclosure; under a name that is there it is the newer one',
    body: planSchema,
    answer: stored,
  },
  '/api/cut-out-tests': {
    who: 'everybody',
    says: 'A test of what stops a heater that runs away',
    body: cutOutTestSchema,
    answer: stored,
  },
  '/api/beds': { who: 'everybody', says: 'Describe the bed of a printer', body: bedSchema, answer: stored },
  '/api/levels': {
    who: 'everybody',
    says: 'A bed measured: three points and more by feeler, or a mesh',
    body: levelSchema,
    answer: levelEffect,
  },
  '/api/z-records': {
    who: 'everybody',
    says: 'A Z number, set by feeler or read after a power-off',
    body: zRecordSchema,
    answer: zEffect,
  },
  '/api/snoozes': { who: 'everybody', says: 'Put off what is due, with a reason', body: snoozeSchema, answer: stored },
  '/api/feeds': {
    who: 'everybody',
    says: 'Give a calendar a private address: of its secret only the hash is sent',
    body: feedSchema,
    answer: stored,
  },
  '/api/upkeep-tasks': {
    who: 'everybody',
    says: 'Plan one thing that a printer is kept up by',
    body: upkeepTaskFields,
    answer: stored,
  },
  '/api/upkeep-plans': {
    who: 'everybody',
    says: 'Plan the usual upkeep of a printer',
    body: upkeepPlanSchema,
    answer: planEffect,
  },
  '/api/upkeep-entries': {
    who: 'everybody',
    says: 'Upkeep done, and what was found',
    body: upkeepSchema,
    answer: stored,
  },
  '/api/pins': { who: 'everybody', says: 'Add a pin gauge', body: pinFields, answer: tagged },
  '/api/pin-certificates': {
    who: 'everybody',
    says: 'What a pin measured: earlier gauges made with it are worked out anew',
    body: pinCertificateSchema,
    answer: certificateEffect,
  },
  '/api/stock-items': {
    who: 'everybody',
    says: 'Add something that is kept on the shelf',
    body: stockItemFields,
    answer: stored,
  },
  '/api/stock-moves': {
    who: 'everybody',
    says: 'What came and went of it: counted, received, used, scrapped, ordered',
    body: stockMoveSchema,
    answer: moveEffect,
  },
  '/api/procedures': {
    who: 'everybody',
    says: 'Begin a procedure: its steps are worked out for this head',
    body: procedureSchema,
    answer: stored,
  },
  '/api/ticks': { who: 'everybody', says: 'A step of a procedure is done', body: tickSchema, answer: tickEffect },
  '/api/benches': {
    who: 'everybody',
    says: 'Begin a flow bench: its order is kept',
    body: benchSchema,
    answer: stored,
  },
  '/api/blobs': { who: 'everybody', says: 'Weigh one blob of a flow bench', body: blobSchema, answer: blobEffect },
  '/api/filament-measures': {
    who: 'everybody',
    says: 'Callipers or a length mark for a flow bench',
    body: filamentMeasureSchema,
    answer: stored,
  },
  '/api/cases': {
    who: 'everybody',
    says: 'Open a case: something is wrong with a print',
    body: caseSchema,
    answer: stored,
  },
  '/api/findings': {
    who: 'everybody',
    says: 'A sign of a case that is there or was looked for in vain, or what a test found',
    body: findingSchema,
    answer: stored,
  },
  '/api/closings': {
    who: 'everybody',
    says: 'Close a case: what it was, and how that is known',
    body: closingSchema,
    answer: stored,
  },
  '/api/tags': {
    who: 'everybody',
    says: 'Take a printer out of service',
    body: serviceTagSchema,
    answer: stored,
  },
  '/api/notes': { who: 'everybody', says: 'A note to the next shift', body: shiftNoteSchema, answer: stored },
  '/api/cool-downs': {
    who: 'everybody',
    says: 'A part begins to cool on its printer',
    body: coolDownSchema,
    answer: begun,
  },
  '/api/scales': {
    who: 'everybody',
    says: 'Record the scale of a set-up',
    body: scaleSchema,
    answer: stored,
  },
  '/api/studies': {
    who: 'everybody',
    says: 'Begin a gauge study: its list is drawn',
    body: studySchema,
    answer: stored,
  },
  '/api/study-readings': {
    who: 'everybody',
    says: 'Read one line of a gauge study',
    body: studyReadingSchema,
    answer: readingEffect,
  },
  '/api/fittings': {
    who: 'everybody',
    says: 'Fit, remove or retire a nozzle',
    body: fittingSchema,
    answer: fittingEffect,
    again: 'fitting',
  },
  '/api/strikes': {
    who: 'everybody',
    says: 'Strike out an entry with a reason',
    body: strikeSchema,
    answer: z.object({ id, nozzles: z.array(text) }),
  },
  '/api/spool-events': {
    who: 'everybody',
    says: 'What happened to a spool',
    body: spoolEventSchema,
    answer: z.object({ id, leftG: z.number() }),
    again: 'spool event',
  },
  '/api/jobs': { who: 'everybody', says: 'Store the scan of a job file', body: jobSchema, answer: jobStored },
  '/api/printers': {
    who: 'everybody',
    says: 'Add a printer as a stack of parts',
    body: printerSchema,
    answer: z.object({ id, headIds: z.array(id) }),
  },
  '/api/changes': {
    who: 'everybody',
    says: 'Change parts, nozzles or hotends of a printer',
    body: changeSchema,
    answer: changeEffect,
  },
  '/api/parts': {
    who: 'everybody',
    says: 'Add a part to the shelf',
    body: shelfPartSchema,
    answer: z.object({ id, name: text }),
  },
  '/api/hotends': {
    who: 'everybody',
    says: 'Put a hotend together at the bench',
    body: hotendSchema,
    answer: tagged,
  },
  '/api/assemblies': {
    who: 'everybody',
    says: 'Change what is inside a hotend on the shelf',
    body: assemblySchema,
    answer: tagged,
  },
  '/api/materials': {
    who: 'everybody',
    says: 'Add a material, with its facts and practice sets',
    body: materialSchema,
    answer: stored,
  },
  '/api/material-values': {
    who: 'everybody',
    says: 'Add a fact to a material',
    body: materialValueSchema,
    answer: stored,
  },
  '/api/cards': {
    who: 'everybody',
    says: 'Write a card of what worked',
    body: cardSchema,
    answer: stored,
  },
  '/api/practice-sets': {
    who: 'everybody',
    says: 'Add a practice set to a material',
    body: practiceSetSchema,
    answer: stored,
  },
  '/api/nozzle-types': { who: 'everybody', says: 'Add a nozzle type', body: nozzleTypeSchema, answer: stored },
  '/api/nozzles': {
    who: 'everybody',
    says: 'Add a nozzle, with its receipt gauge',
    body: nozzleSchema,
    answer: tagged,
  },
  '/api/spools': { who: 'everybody', says: 'Add a spool', body: spoolSchema, answer: tagged },
  '/api/dryers': {
    who: 'everybody',
    says: 'Add a dryer, an oven or a bed under a cover',
    body: dryerSchema,
    answer: stored,
  },
  '/api/check-lines': {
    who: 'everybody',
    says: "Add a line of the shop's own to the check before a run",
    body: checkLineSchema,
    answer: stored,
  },
  '/api/dryings': { who: 'everybody', says: 'Start drying a spool', body: dryingSchema, answer: begun },
  '/api/soaks': { who: 'everybody', says: 'Start soaking a chamber', body: soakSchema, answer: begun },
  '/api/anneals': { who: 'everybody', says: 'Start annealing a part', body: annealSchema, answer: begun },
  '/api/endings': {
    who: 'everybody',
    says: 'End what was started: a drying, soak, anneal or procedure; a printer back in service; a note read',
    body: endingSchema,
    answer: stored,
  },
  '/api/warm-ups': {
    who: 'everybody',
    says: 'Record a warm-up, from a soak or a probe file',
    body: warmUpSchema,
    answer: z.object({ id, fit: warmUpFit }),
  },
  '/api/warm-up-places': {
    who: 'everybody',
    says: 'Tell where the probe of a warm-up was',
    body: warmUpPlaceSchema,
    answer: stored,
  },
  '/api/changeovers': {
    who: 'everybody',
    says: 'Purge from one filament to another',
    body: changeoverSchema,
    answer: tagged,
  },
  '/api/prechecks': {
    who: 'everybody',
    says: 'Store a check before a run with its answers',
    body: precheckSchema,
    answer: z.object({ id, may: z.boolean() }),
  },
  '/api/people': { who: 'everybody', says: 'Add a person', body: personSchema, answer: stored },
} as const satisfies Record<string, Route & { body: z.ZodType; again?: StrikeTarget }>

/** Questions with a body: nothing is stored. */
export const ASKS = {
  '/api/intake/pieces': {
    who: 'everybody',
    says: 'Send a piece of a long table ahead; it is no record yet',
    body: pieceSchema,
    answer: z.object({ kept: z.number() }),
  },
  '/api/intake/drop': {
    who: 'everybody',
    says: 'Give up a long table that was sent ahead',
    body: dropSchema,
    answer: z.object({}),
  },
  '/api/intake/look': {
    who: 'everybody',
    says: 'What each line of a table would add, and store nothing',
    body: intakeSchema,
    answer: intakeLines,
  },
  '/api/prechecks/preview': {
    who: 'everybody',
    says: 'Work out a check and store nothing',
    body: precheckSchema,
    answer: precheckAnswer,
  },
  '/api/stand-in': {
    who: 'everybody',
    says: 'What a hand would do at the stand-ins: heat one, open its door, hold a probe to it',
    body: standInSchema,
    answer: z.object({ done: z.literal(true) }),
  },
} as const satisfies Record<string, Route & { body: z.ZodType }>

/** Edits of records: what may be sent depends on the kind that the path names. */
export const EDIT = {
  path: EDIT_PATH,
  who: 'everybody',
  says: 'Edit a record',
  bodies: EDITS,
  answer: z.object({ version: id }),
} as const satisfies Route & { path: string; bodies: Record<string, z.ZodType> }

export type ReadPath = keyof typeof READS
export type EntryPath = keyof typeof ENTRIES
export type AskPath = keyof typeof ASKS
export type ReadAnswer<P extends ReadPath> = z.output<(typeof READS)[P]['answer']>
export type EntryBody<P extends EntryPath> = z.output<(typeof ENTRIES)[P]['body']>
export type EntryAnswer<P extends EntryPath> = z.output<(typeof ENTRIES)[P]['answer']>
export type AskBody<P extends AskPath> = z.output<(typeof ASKS)[P]['body']>
export type AskAnswer<P extends AskPath> = z.output<(typeof ASKS)[P]['answer']>
