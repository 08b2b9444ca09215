/** The API's description (OpenAPI 3.1), made from the one list of routes. */
import { z } from 'zod'
import { ASKS, EDIT, ENTRIES, FILES, READS, STREAMS } from '#shared/api'
import { answering } from '../doors/doors'

const schemaOf = (schema: z.ZodType, io: 'input' | 'output') => z.toJSONSchema(schema, { io, unrepresentable: 'any' })
const json = (schema: z.ZodType, io: 'input' | 'output') => ({ 'application/json': { schema: schemaOf(schema, io) } })
const body = (schema: z.ZodType) => ({ required: true, content: json(schema, 'input') })
const answer = (description: string, schema: z.ZodType) => ({ description, content: json(schema, 'output') })

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
const wrong = (description: string) => ({ description, content: problem })
const key = {
  name: 'Idempotency-Key',
  in: 'header',
  required: true,
  schema: { type: 'string', minLength: 8, maxLength: 100 },
}
const inPath = (path: string) =>
  [...path.matchAll(/\{(\w+)\}/g)].map(m => ({ name: m[1], in: 'path', required: true, schema: { type: 'string' } }))
const inQuery = (schema: z.ZodType) =>
  Object.entries((schemaOf(schema, 'input').properties ?? {}) as Record<string, unknown>).map(([name, s]) => ({
    name,
    in: 'query',
    schema: s,
  }))

function described() {
  const paths: Record<string, Record<string, unknown>> = {}
  const add = (path: string, method: string, what: Record<string, unknown>) => {
    paths[path] = { ...paths[path], [method]: what }
  }
  for (const [path, r] of Object.entries(READS))
    add(path, 'get', {
      'summary': r.says,
      'x-who': r.who,
      'parameters': [...inPath(path), ...('query' in r ? inQuery(r.query) : [])],
      'responses': { 200: answer('The answer', r.answer), default: wrong('What is wrong') },
    })
  for (const [path, r] of Object.entries(STREAMS))
    add(path, 'get', {
      'summary': r.says,
      'x-who': r.who,
      'responses': { 200: { description: 'Events', content: { 'text/event-stream': {} } } },
    })
  for (const [path, r] of Object.entries(FILES))
    add(path, 'get', {
      'summary': r.says,
      'x-who': r.who,
      'parameters': [...inPath(path), ...inQuery(r.query)],
      'responses': { 200: { description: 'The file', content: { '*/*': {} } }, default: wrong('What is wrong') },
    })
  for (const [path, r] of Object.entries(ENTRIES))
    add(path, 'post', {
      'summary': r.says,
      'x-who': r.who,
      'parameters': [key],
      'requestBody': body(r.body),
      'responses': {
        201: answer('Stored, with its effect', r.answer),
        409: wrong('A question to confirm'),
        422: wrong('A field to correct'),
      },
    })
  for (const [path, r] of Object.entries(ASKS))
    add(path, 'post', {
      'summary': r.says,
      'x-who': r.who,
      'requestBody': body(r.body),
      'responses': { 200: answer('The answer', r.answer), 422: wrong('A field to correct') },
    })
  for (const [kind, schema] of Object.entries(EDIT.bodies))
    add(EDIT.path.replace('{kind}', kind), 'patch', {
      'summary': `Edit one of the ${kind}`,
      'x-who': EDIT.who,
      'parameters': [...inPath('{id}'), key],
      'requestBody': body(schema),
      'responses': {
        200: answer('Changed; the new version', EDIT.answer),
        409: wrong('Someone else changed it meanwhile'),
        422: wrong('A field to correct'),
      },
    })
  const schemas: Record<string, unknown> = {}
  const lean = withShared(paths, schemas) as typeof paths
  const info = { title: 'Iron Nozzle', version: '0.1.0' }
  return { openapi: '3.1.0' as const, info, paths: lean, components: { schemas } }
}

/** Shorter ones are written where they stand. */
const WORTH_SHARING = 150

/** The same with schemas that stand in several places written once, under a name of their own. */
function withShared(whole: unknown, schemas: Record<string, unknown>): unknown {
  const seen = new Map<string, number>()
  const isShared = (v: unknown): v is object =>
    typeof v === 'object' && v !== null && 'type' in v && JSON.stringify(v).length > WORTH_SHARING
  const each = (v: unknown, see: (inner: unknown) => unknown): unknown => {
    if (Array.isArray(v)) return v.map(see)
    if (typeof v !== 'object' || v === null) return v
    return Object.fromEntries(Object.entries(v).map(([key, inner]) => [key, see(inner)]))
  }
  const count = (v: unknown): unknown => {
    if (isShared(v)) {
      const text = JSON.stringify(v)
      seen.set(text, (seen.get(text) ?? 0) + 1)
      if (seen.get(text)! > 1) return v // what is in it is counted already
    }
    return each(v, count)
  }
  count(whole)
  const names = new Map([...seen].filter(([, n]) => n > 1).map(([text], i) => [text, `shared${i + 1}`]))
  const put = (v: unknown): unknown => {
    const name = isShared(v) ? names.get(JSON.stringify(v)) : undefined
    if (name === undefined) return each(v, put)
    schemas[name] ??= each(v, put)
    return { $ref: `#/components/schemas/${name}` }
  }
  return put(whole)
}

/** Made once: it changes with the program alone. */
let made: ReturnType<typeof described> | null = null

export default answering('/api/openapi', async () => (made ??= described()))
