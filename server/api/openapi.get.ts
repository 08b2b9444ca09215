/** The API described from the very schemas that check it (OpenAPI 3.1). */
import { z } from 'zod'
import * as edits from '#shared/entries/edits'
import * as live from '#shared/entries/live'
import * as log from '#shared/entries/log'
import * as materials from '#shared/entries/materials'
import * as nozzles from '#shared/entries/nozzles'
import * as prepare from '#shared/entries/prepare'
import * as printers from '#shared/entries/printers'
import * as runs from '#shared/entries/runs'
import * as shop from '#shared/entries/shop'
import * as spools from '#shared/entries/spools'

const entries = {
  ...edits,
  ...live,
  ...log,
  ...materials,
  ...nozzles,
  ...prepare,
  ...printers,
  ...runs,
  ...shop,
  ...spools,
}

const POSTS = {
  '/api/runs': [entries.runSchema, 'Log a run'],
  '/api/gauges': [entries.gaugeSchema, 'Gauge a nozzle'],
  '/api/fittings': [entries.fittingSchema, 'Fit, remove or retire a nozzle'],
  '/api/strikes': [entries.strikeSchema, 'Strike out an entry with a reason'],
  '/api/spool-events': [entries.spoolEventSchema, 'What happened to a spool'],
  '/api/jobs': [entries.jobSchema, 'Store the scan of a job file'],
  '/api/printers': [entries.printerSchema, 'Add a printer as a stack of parts'],
  '/api/changes': [entries.changeSchema, 'Change parts or nozzles of a printer'],
  '/api/parts': [entries.shelfPartSchema, 'Add a part to the shelf'],
  '/api/materials': [entries.materialSchema, 'Add a material, with its facts and practice sets'],
  '/api/material-values': [entries.materialValueSchema, 'Add a fact to a material'],
  '/api/practice-sets': [entries.practiceSetSchema, 'Add a practice set to a material'],
  '/api/nozzle-types': [entries.nozzleTypeSchema, 'Add a nozzle type'],
  '/api/nozzles': [entries.nozzleSchema, 'Add a nozzle, with its receipt gauge'],
  '/api/spools': [entries.spoolSchema, 'Add a spool'],
  '/api/dryers': [entries.dryerSchema, 'Add a dryer, an oven or a bed under a cover'],
  '/api/dryings': [entries.dryingSchema, 'Start drying a spool'],
  '/api/soaks': [entries.soakSchema, 'Start soaking a chamber'],
  '/api/anneals': [entries.annealSchema, 'Start annealing a part'],
  '/api/endings': [entries.endingSchema, 'End a drying, soak or anneal'],
  '/api/warm-ups': [entries.warmUpSchema, 'Record a warm-up, from a soak or a probe file'],
  '/api/changeovers': [entries.changeoverSchema, 'Purge from one filament to another'],
  '/api/prechecks': [entries.precheckSchema, 'Store a check before a run with its answers'],
  '/api/people': [entries.personSchema, 'Add a person'],
} as const
/** Questions with a body, and the panel of the stand-ins: nothing is stored, so there is no key. */
const ASKS = {
  '/api/prechecks/preview': [entries.precheckSchema, 'Work out a check and store nothing'],
  '/api/stand-in': [entries.standInSchema, 'Heat a stand-in, or open its door'],
} as const
const GETS = {
  '/api/floor': 'Every printer, its limits, fitted nozzles and what is next at the bench',
  '/api/shop': 'Names and tags of everything, and who acts',
  '/api/equip': 'Stacks, shelf, materials, rules and the mix of the last 90 days',
  '/api/buying': 'Wear rate by nozzle material and the filled filament printed',
  '/api/prepare': 'Spools and their water, dryers, soaks, warm-ups, changeovers, anneals, checks',
  '/api/spools/{tag}': 'One spool: its water through its history',
  '/api/prechecks/{id}': 'One check before a run',
  '/api/jobs': 'Jobs the shop has',
  '/api/jobs/{id}': 'One job with its scan',
  '/api/live': 'Server-sent events: what each printer reports, or since when it is lost',
  '/api/nozzles': 'All nozzles with what is left',
  '/api/nozzles/{tag}': 'One nozzle with its forecast and record',
  '/api/runs': 'Runs, newest first; `limit` and the cursor `after`',
  '/api/news': 'Server-sent events: one per save',
  '/api/balance': 'What the balance reads; with the stand-in, `spool` is put on it first',
  '/api/openapi': 'This description',
  '/api/health': 'Ready, or 503 while the database is away',
} as const

const problem = {
  'application/problem+json': {
    schema: {
      type: 'object',
      properties: {
        type: { type: 'string' },
        title: { type: 'string' },
        status: { type: 'integer' },
        errors: { type: 'array' },
        questions: { type: 'array' },
      },
    },
  },
}

const key = {
  name: 'Idempotency-Key',
  in: 'header',
  required: true,
  schema: { type: 'string', minLength: 8, maxLength: 100 },
}
const bodyOf = (schema: z.ZodType) => ({
  required: true,
  content: { 'application/json': { schema: z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) } },
})

export default defineEventHandler(() => {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const [path, summary] of Object.entries(GETS))
    paths[path] = {
      get: {
        summary,
        responses: { 200: { description: 'The answer' }, default: { description: 'What is wrong', content: problem } },
      },
    }
  for (const [path, [schema, summary]] of Object.entries(POSTS))
    paths[path] = {
      ...paths[path],
      post: {
        summary,
        parameters: [key],
        requestBody: bodyOf(schema),
        responses: {
          201: { description: 'Stored, with its effect' },
          409: { description: 'A question to confirm', content: problem },
          422: { description: 'A field to correct', content: problem },
        },
      },
    }
  for (const [path, [schema, summary]] of Object.entries(ASKS))
    paths[path] = {
      post: {
        summary,
        requestBody: bodyOf(schema),
        responses: { 200: { description: 'The answer' }, 422: { description: 'A field to correct', content: problem } },
      },
    }
  for (const [kind, schema] of Object.entries(entries.EDITS))
    paths[`/api/edit/${kind}/{id}`] = {
      patch: {
        summary: `Edit one of the ${kind}`,
        parameters: [key],
        requestBody: bodyOf(schema),
        responses: {
          200: { description: 'Changed; the new version' },
          409: { description: 'Someone else changed it meanwhile', content: problem },
          422: { description: 'A field to correct', content: problem },
        },
      },
    }
  return { openapi: '3.1.0', info: { title: 'Iron Nozzle', version: '0.1.0' }, paths }
})
