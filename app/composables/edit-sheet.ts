/**
 * The sheet of an edit: like that of an entry, but it is saved over the version that was seen. What was typed and kept
 * over a reload stays typed over that version: whatever someone else stored meanwhile is shown, never overwritten.
 */
import { computed, reactive, ref, watch } from 'vue'
import type { z } from 'zod'
import { EDITS, type EditableKind } from '#shared/entries/edits'
import type { Problem } from '#shared/problem'
import { useDraft } from '~/composables/draft'
import type { Sheet } from '~/composables/entry-sheet'
import { editFailure, useRecordEdit } from '~/composables/record-edit'
import { ProblemError } from '~/lib/api'
import { plain } from '~/lib/plain'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

interface EditOf<T, V extends object> {
  on: () => T | null
  of: (t: T) => { kind: EditableKind; id: number; version: number }
  start: (t: T) => V
  values: (v: V, t: T) => Record<string, unknown>
  saved: (v: V, t: T) => string
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
  const v = reactive({}) as V
  const draft = useDraft(v as Record<string, unknown>)
  const busy = ref(false)
  const problem = ref<Problem | null>(null)
  const theirs = ref<Record<string, unknown> | null>(null)
  /** What is typed is typed over this version. */
  let version = 0
  const errors = computed(() => Object.fromEntries((problem.value?.errors ?? []).map(e => [e.field, e.message])))

  const nameNow = () => {
    const t = edit.on()
    return t === null ? null : `${edit.of(t).kind} ${edit.of(t).id}`
  }
  function begin(): void {
    problem.value = null
    theirs.value = null
    const t = edit.on()
    if (t === null) draft.rest()
    else version = draft.begin(nameNow()!, edit.start(t) as Record<string, unknown>, edit.of(t).version)
  }
  watch(nameNow, begin, { immediate: true })

  function refusalOf(checked: z.ZodSafeParseError<unknown>): Problem {
    const errors = checked.error.issues.map(i => ({ field: i.path.join('.'), message: i.message }))
    return { type: 'urn:iron-nozzle:field', status: 422, title: '', errors }
  }
  async function save(): Promise<void> {
    const t = edit.on()
    if (t === null || busy.value) return
    const { kind, id } = edit.of(t)
    const typed = plain(v) as V
    const checked = (EDITS[kind].shape.values as z.ZodType).safeParse(edit.values(typed, t))
    problem.value = checked.success ? null : refusalOf(checked)
    if (!checked.success) return
    busy.value = true
    try {
      await edits.save(kind, id, version, checked.data as Record<string, unknown>)
      draft.drop()
      ui.say(edit.saved(typed, t))
      await shop.refresh()
      edit.close()
    } catch (error) {
      const failed = problemOf(error)
      if (failed.type === 'urn:iron-nozzle:stale') theirs.value = failed.current as Record<string, unknown>
      else problem.value = failed
    } finally {
      busy.value = false
    }
  }
  function keepMine(): void {
    version = theirs.value!.version as number
    theirs.value = null
  }
  function again(): void {
    draft.drop()
    begin()
  }
  function giveUp(): void {
    draft.drop()
    edit.close()
  }
  return reactive({
    open: computed(() => edit.on() !== null),
    v,
    errors,
    problem,
    busy,
    kept: draft.kept,
    save,
    dismiss: () => {
      problem.value = null
    },
    again,
    giveUp,
    close: edit.close,
    theirs,
    keepMine,
  }) as unknown as EditSheet<V>
}
