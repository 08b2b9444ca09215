/**
 * What the doors would refuse, said at its field before anything is sent. Their schemas, and what of the core they rest
 * on, are half of all script, and nobody needs them to look at a screen: they come when one stands.
 */
import type { z } from 'zod'
import type { AskPath, EntryPath } from '#shared/api'
import type { EditableKind } from '#shared/entries/edits'
import type { FieldProblem } from '#shared/problem'

export interface Checks {
  entry: (path: EntryPath, body: unknown) => FieldProblem[]
  ask: (path: AskPath, body: unknown) => FieldProblem[]
  /** The new values of a record. */
  edit: (kind: EditableKind, values: unknown) => FieldProblem[]
}

const wrongOf = (schema: z.ZodType, value: unknown): FieldProblem[] =>
  schema.safeParse(value).error?.issues.map(i => ({ field: i.path.join('.'), message: i.message })) ?? []

async function fetched(): Promise<Checks> {
  const { ASKS, EDIT, ENTRIES } = await import('#shared/api')
  return {
    entry: (path, body) => wrongOf(ENTRIES[path].body, body),
    ask: (path, body) => wrongOf(ASKS[path].body, body),
    edit: (kind, values) => wrongOf(EDIT.bodies[kind].shape.values, values),
  }
}
const none = () => []
/** Where they cannot be fetched the door itself says it, once what was typed has come to it. */
const LEFT_TO_THE_DOOR: Checks = { entry: none, ask: none, edit: none }

let asked: Promise<Checks> | null = null
export function checks(): Promise<Checks> {
  asked ??= fetched().catch(() => {
    asked = null
    return LEFT_TO_THE_DOOR
  })
  return asked
}
