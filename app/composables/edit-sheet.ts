/**
 * The sheet of an edit: like that of an entry, but it is saved over the version that was seen. What was typed and kept
 * over a reload stays typed over that version: whatever someone else stored meanwhile is shown, never overwritten.
 */
import { computed, reactive, ref } from 'vue'
import type { EditableKind } from '#shared/entries/edits'
import type { FieldProblem, Problem } from '#shared/problem'
import { editFailure, useRecordEdit } from '~/composables/record-edit'
import { useSheet, type Sheet } from '~/composables/sheet'
import { ProblemError } from '~/lib/api'
import { checks } from '~/lib/checks'
import { leadToWrong } from '~/lib/first-wrong'
import { plain } from '~/lib/plain'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

interface EditOf<T, V extends object> {
  on: () => T | null
  of: (t: T) => { kind: EditableKind; id: number; version: number }
  start: (t: T) => V
  values: (v: V, t: T) => Record<string, unknown>
  saved: (v: V, t: T, confirmed: string[]) => string
  close: () => void
}
export type EditSheet<V extends object> = Sheet<V> & {
  /** What someone else stored meanwhile; null while nobody did. */
  theirs: Record<string, unknown> | null
  /** Goes on over their version. */
  keepMine: () => void
}

/** What a failed edit says: refusals at their fields, and that an unanswered one is not lost. */
function problemOf(error: unknown): Problem {
  if (!(error instanceof ProblemError) || error.problem.status >= 500)
    return { type: 'about:blank', status: 0, title: editFailure(error) }
  const errors = error.problem.errors?.map(e => ({ ...e, field: e.field.replace(/^values\./, '') }))
  return { ...error.problem, errors }
}

export function useEditSheet<T, V extends object>(edit: EditOf<T, V>): EditSheet<V> {
  const ui = useUi()
  const shop = useShop()
  const edits = useRecordEdit()
  const busy = ref(false)
  const problem = ref<Problem | null>(null)
  const theirs = ref<Record<string, unknown> | null>(null)
  /** The version to save over, once a person has seen what someone else stored. */
  let over: number | null = null
  const errors = computed(() => Object.fromEntries((problem.value?.errors ?? []).map(e => [e.field, e.message])))

  const sheet = useSheet({
    on: edit.on,
    name: t => `${edit.of(t).kind} ${edit.of(t).id}`,
    start: edit.start,
    version: t => edit.of(t).version,
    reset: () => {
      problem.value = null
      theirs.value = null
      over = null
    },
    close: edit.close,
  })

  const refusalOf = (errors: FieldProblem[]): Problem => ({
    type: 'urn:iron-nozzle:field',
    status: 422,
    title: '',
    errors,
  })
  async function save(confirmed: string[] = []): Promise<void> {
    const t = edit.on()
    if (t === null || busy.value) return
    const { kind, id } = edit.of(t)
    const typed = plain(sheet.v)
    const values = edit.values(typed, t)
    busy.value = true
    const wrong = (await checks()).edit(kind, values)
    problem.value = wrong.length === 0 ? null : refusalOf(wrong)
    if (wrong.length > 0) {
      busy.value = false
      leadToWrong()
      return
    }
    try {
      await edits.save(kind, id, over ?? sheet.version(), values, confirmed)
      sheet.done()
      ui.say(edit.saved(typed, t, confirmed))
      await shop.refresh()
      edit.close()
    } catch (error) {
      const failed = problemOf(error)
      if (failed.type === 'urn:iron-nozzle:stale') theirs.value = failed.current as Record<string, unknown>
      else {
        problem.value = failed
        leadToWrong()
      }
    } finally {
      busy.value = false
    }
  }
  function keepMine(): void {
    over = theirs.value!.version as number
    theirs.value = null
  }
  function dismiss(): void {
    problem.value = null
  }
  const { v, kept, open, again, giveUp, close } = sheet
  return reactive({
    ...{ open, v, errors, problem, busy, kept, save, dismiss, again, giveUp, close },
    ...{ theirs, keepMine },
  }) as unknown as EditSheet<V>
}
