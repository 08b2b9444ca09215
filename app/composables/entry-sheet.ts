/**
 * The sheet of an entry: opened on something, filled in, sent, its effect said. What the form needs is named once; the
 * frame (EntrySheet) and what becomes of the typed are the same for all.
 */
import { computed, reactive, watch } from 'vue'
import type { EntryAnswer, EntryPath } from '#shared/api'
import type { Problem } from '#shared/problem'
import { useDraft } from '~/composables/draft'
import { useEntryForm } from '~/composables/entry-form'
import { plain } from '~/lib/plain'
import { useUi } from '~/state/ui'

/** What the frame needs of a sheet, whatever is saved by it. */
export interface Sheet<V extends object = Record<string, unknown>> {
  open: boolean
  /** What is typed. */
  v: V
  /** Error of one field, by its path. */
  errors: Record<string, string>
  problem: Problem | null
  busy: boolean
  /** What is typed was kept from before. */
  kept: boolean
  save: (confirmed?: string[]) => Promise<void>
  /** Sets a question aside: the person corrects the form instead. */
  dismiss: () => void
  /** Back to the start values. */
  again: () => void
  /** Closes and forgets what was typed. */
  giveUp: () => void
  /** Closes; what was typed is kept. */
  close: () => void
}

interface EntryOf<P extends EntryPath, T, V extends object> {
  /** What the sheet is open on, null while it is closed. */
  on: () => T | null
  /** Tells what is typed about one thing from what is typed about another. */
  name: (t: T) => string
  start: (t: T) => V
  body: (v: V, t: T) => Record<string, unknown>
  /** The entry in a person's words, before it is saved. */
  says: (v: V, t: T) => string
  /** The effect of the save. */
  saved: (done: EntryAnswer<P>, v: V, t: T) => string
  /** Closes the sheet; `logged` when something was saved or kept to be sent. */
  close: (logged: boolean) => void
}

export function useEntrySheet<P extends EntryPath, T, V extends object>(route: P, entry: EntryOf<P, T, V>): Sheet<V> {
  const ui = useUi()
  const form = useEntryForm(route)
  const v = reactive({}) as V
  const draft = useDraft(v as Record<string, unknown>)

  const nameNow = () => {
    const t = entry.on()
    return t === null ? null : `${route} ${entry.name(t)}`
  }
  function begin(): void {
    form.reset()
    const t = entry.on()
    if (t === null) draft.rest()
    else draft.begin(nameNow()!, entry.start(t) as Record<string, unknown>)
  }
  // by its name: what it is open on is read anew after every save anywhere, and what is typed must outlast that
  watch(nameNow, begin, { immediate: true })

  async function save(confirmed: string[] = []): Promise<void> {
    const t = entry.on()
    if (t === null) return
    const typed = plain(v)
    const done = await form.send(entry.body(typed, t), entry.says(typed, t), confirmed)
    if (done === null) return
    draft.drop()
    if (done !== 'queued') ui.say(entry.saved(done, typed, t))
    entry.close(true)
  }
  function again(): void {
    draft.drop()
    begin()
  }
  function giveUp(): void {
    draft.drop()
    entry.close(false)
  }
  return reactive({
    open: computed(() => entry.on() !== null),
    v,
    errors: form.errors,
    problem: form.problem,
    busy: form.busy,
    kept: draft.kept,
    save,
    dismiss: form.reset,
    again,
    giveUp,
    close: () => entry.close(false),
  }) as unknown as Sheet<V>
}
