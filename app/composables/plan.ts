/** The outcome of a plan while it is typed: reckoned in the background, the latest question only. */
import { wrap, type Remote } from 'comlink'
import { onScopeDispose, ref, watch, type Ref } from 'vue'
import type { Planning } from '#core/chamber'
import { plain } from '~/lib/plain'
import type { PlanAnswer, PlanWorker } from '~/workers/plan.worker'

const QUIET_MS = 120

export function usePlanOutcome(question: () => { q: Planning; targetMeanC: number | null } | null): {
  answer: Ref<PlanAnswer | null>
  busy: Ref<boolean>
} {
  const answer = ref<PlanAnswer | null>(null)
  const busy = ref(false)
  let worker: { itself: Worker; api: Remote<PlanWorker> } | null = null
  let timer: ReturnType<typeof setTimeout> | undefined
  let asked = 0

  async function ask(): Promise<void> {
    const now = question()
    const nth = ++asked
    if (now === null) {
      answer.value = null
      busy.value = false
      return
    }
    // what is being reckoned for an older question is of no use any more
    if (busy.value) stop()
    worker ??= start()
    busy.value = true
    try {
      const got = await worker.api.plan(plain(now.q), now.targetMeanC)
      if (nth === asked) answer.value = got
    } finally {
      if (nth === asked) busy.value = false
    }
  }
  /** Wrapped once: a wrapping that is thrown away lets go of its worker some time later. */
  function start(): NonNullable<typeof worker> {
    const itself = new Worker(new URL('~/workers/plan.worker.ts', import.meta.url), { type: 'module' })
    return { itself, api: wrap(itself) as Remote<PlanWorker> }
  }
  function stop(): void {
    worker?.itself.terminate()
    worker = null
  }
  watch(
    () => JSON.stringify(question()),
    () => {
      clearTimeout(timer)
      timer = setTimeout(() => void ask(), QUIET_MS)
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    clearTimeout(timer)
    stop()
  })
  return { answer, busy }
}
