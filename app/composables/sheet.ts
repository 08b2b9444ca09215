/** What every sheet that saves something does with what is typed: opened, kept, begun again, given up, done. */
import { computed, reactive, watch } from 'vue'
import type { Problem } from '#shared/problem'
import { useDraft } from '~/composables/draft'

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

interface SheetOf<T, V extends object> {
  /** What the sheet is open on, null while it is closed. */
  on: () => T | null
  /** Tells what is typed about one thing from what is typed about another. */
  name: (t: T) => string
  start: (t: T) => V
  /** The version that is typed over, where there are versions. */
  version?: (t: T) => number
  /** Takes away what an earlier opening left: errors, questions. */
  reset: () => void
  close: () => void
}

export function useSheet<T, V extends object>(sheet: SheetOf<T, V>) {
  const v = reactive({}) as V
  const draft = useDraft(v as Record<string, unknown>)
  /** What is typed is typed over this version. */
  let version = 0

  const nameNow = () => {
    const t = sheet.on()
    return t === null ? null : sheet.name(t)
  }
  function begin(): void {
    sheet.reset()
    const t = sheet.on()
    if (t === null) draft.rest()
    else version = draft.begin(sheet.name(t), sheet.start(t) as Record<string, unknown>, sheet.version?.(t))
  }
  // by its name: what it is open on is read anew after every save anywhere, and what is typed must outlast that
  watch(nameNow, begin, { immediate: true })

  return {
    v,
    kept: draft.kept,
    open: computed(() => sheet.on() !== null),
    version: () => version,
    /** It is saved: nothing is kept of it. */
    done: draft.drop,
    again: () => {
      draft.drop()
      begin()
    },
    giveUp: () => {
      draft.drop()
      sheet.close()
    },
    close: sheet.close,
  }
}
