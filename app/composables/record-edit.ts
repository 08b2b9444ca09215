/**
 * Editing a record so that each edit counts once. When an answer is lost the edit may or may not have been stored: it
 * is sent again as it was, under its key, before anything else is, so that its own change is never taken for someone
 * else's.
 */
import type { EditableKind } from '#shared/entries/edits'
import { FaultError, newKey, patch, ProblemError } from '~/lib/api'

const EDIT_UNANSWERED =
  'The server does not answer, so it is not known whether this was changed. What you typed is kept here; save ' +
  'again and it counts once.'

/** What a failed edit says to a person. */
export const editFailure = (error: unknown): string =>
  error instanceof ProblemError && !(error instanceof FaultError) ? error.problem.title : EDIT_UNANSWERED

export function useRecordEdit() {
  interface Edit {
    kind: EditableKind
    id: number
    body: { version: number; values: Record<string, unknown>; confirmed: string[] }
    key: string
  }
  let unanswered: Edit | null = null

  async function send(e: Edit): Promise<number> {
    unanswered = e
    try {
      const { version } = await patch(e.kind, e.id, e.body, e.key)
      unanswered = null
      return version
    } catch (error) {
      if (error instanceof ProblemError && !(error instanceof FaultError)) unanswered = null
      throw error
    }
  }

  /** Saves the values over the version that was seen; answers the new version. */
  async function save(
    kind: EditableKind,
    id: number,
    version: number,
    values: Record<string, unknown>,
    confirmed: string[] = [],
  ): Promise<number> {
    const before = unanswered?.kind === kind && unanswered.id === id ? unanswered : null
    const after = before ? await send(before) : version
    if (before && JSON.stringify(before.body.values) === JSON.stringify(values)) return after
    return await send({ kind, id, body: { version: after, values, confirmed }, key: newKey() })
  }
  return { save }
}
