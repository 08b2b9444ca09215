/**
 * What every entry form does: check with the shared schema, send through the outbox, show errors at their fields and
 * questions for confirmation, and keep what was typed whatever happens.
 */
import { computed, ref } from 'vue'
import type { EntryAnswer, EntryPath } from '#shared/api'
import type { Problem } from '#shared/problem'
import { newKey } from '~/lib/api'
import { checks } from '~/lib/checks'
import { leadToWrong } from '~/lib/first-wrong'
import { queuedWords, useOutbox } from '~/state/outbox'
import { useUi } from '~/state/ui'

/** Without a route nothing is sent: the form of an edit uses its errors alone. */
export function useEntryForm<P extends EntryPath>(route: P | null) {
  const outbox = useOutbox()
  const ui = useUi()
  const problem = ref<Problem | null>(null)
  const fieldErrors = ref<Record<string, string>>({})
  const busy = ref(false)
  /** Error of one field, by its path: `tools.0.spoolId`. */
  const errors = computed(() => {
    const out: Record<string, string> = { ...fieldErrors.value }
    for (const e of problem.value?.errors ?? []) out[e.field] ??= e.message
    return out
  })

  async function check(route: P, body: Record<string, unknown>): Promise<boolean> {
    const wrong = (await checks()).entry(route, body)
    fieldErrors.value = {}
    for (const w of wrong) fieldErrors.value[w.field] ??= w.message
    return wrong.length === 0
  }

  /**
   * Sends it; answers what came back when it was saved, 'queued' when it is kept for later, null when it needs the
   * person.
   */
  async function send(
    body: Record<string, unknown>,
    says: string,
    confirmed: string[] = [],
    draft: string | null = null,
  ): Promise<EntryAnswer<P> | 'queued' | null> {
    if (busy.value || route === null) return null
    problem.value = null
    busy.value = true
    if (!(await check(route, body))) {
      busy.value = false
      leadToWrong()
      return null
    }
    const whole = confirmed.length > 0 ? { ...body, confirmed } : body
    const outcome = await outbox.submit(route, whole, says, newKey(), draft)
    busy.value = false
    if (outcome.kind === 'refused') {
      problem.value = outcome.problem
      leadToWrong()
      return null
    }
    if (outcome.kind === 'queued') {
      ui.say(`${says}. ${queuedWords(outcome)}`, 'look')
      return 'queued'
    }
    return outcome.answer
  }

  function reset(): void {
    problem.value = null
    fieldErrors.value = {}
  }
  return { problem, errors, busy, send, reset }
}
