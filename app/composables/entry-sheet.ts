/**
 * The sheet of an entry: opened on something, filled in, sent, its effect said. What the form needs is named once; the
 * frame (EntrySheet) and what becomes of the typed are the same for all.
 */
import { reactive } from 'vue'
import type { EntryAnswer, EntryPath } from '#shared/api'
import { useEntryForm } from '~/composables/entry-form'
import { useSheet, type Sheet } from '~/composables/sheet'
import { plain } from '~/lib/plain'
import { useUi } from '~/state/ui'

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
  const sheet = useSheet({
    on: entry.on,
    name: t => `${route} ${entry.name(t)}`,
    start: entry.start,
    reset: form.reset,
    close: () => entry.close(false),
  })

  async function save(confirmed: string[] = []): Promise<void> {
    const t = entry.on()
    if (t === null) return
    const typed = plain(sheet.v)
    const done = await form.send(entry.body(typed, t), entry.says(typed, t), confirmed)
    if (done === null) return
    sheet.done()
    if (done !== 'queued') ui.say(entry.saved(done, typed, t))
    entry.close(true)
  }
  const { v, kept, open, again, giveUp, close } = sheet
  const { errors, problem, busy, reset: dismiss } = form
  return reactive({ open, v, errors, problem, busy, kept, save, dismiss, again, giveUp, close }) as unknown as Sheet<V>
}
