/** Reads from the server now and after every save; keeps the last answer on screen while a new one is on its way. */
import { useThrottleFn } from '@vueuse/core'
import { onBeforeUnmount, onMounted, ref, watch, type Ref } from 'vue'
import type { ReadAnswer, ReadPath } from '#shared/api'
import type { PathParams } from '#shared/paths'
import { concerns } from '#shared/news'
import { ProblemError, read } from '~/lib/api'
import { useShop } from '~/state/shop'

/** Many saves at once (an import, a bench) are not read one by one. */
const GATHER_MS = 400

/** `params` fills the `{name}` of the path; null reads nothing yet. `query` stands behind the question mark. */
export function useAnswer<P extends ReadPath>(
  path: P,
  {
    params = () => ({}),
    query = () => ({}),
    everyMs = 0,
  }: { params?: () => PathParams | null; query?: () => Record<string, string>; everyMs?: number } = {},
) {
  const data = ref(null) as Ref<ReadAnswer<P> | null>
  const failure = ref<string | null>(null)
  const shop = useShop()
  let timer: ReturnType<typeof setInterval> | undefined
  let round = 0

  async function load(): Promise<void> {
    const filled = params()
    if (filled === null) return
    const mine = ++round
    try {
      const answer = await read(path, filled, query())
      if (mine !== round) return
      data.value = answer
      failure.value = null
    } catch (error) {
      if (mine !== round) return
      failure.value =
        error instanceof ProblemError
          ? error.problem.title
          : 'The server does not answer. What is shown is what was last read.'
    }
  }
  watch([() => JSON.stringify([params(), query()]), () => shop.revision, () => shop.reachable], () => void load(), {
    immediate: true,
  })
  // a burst of saves is read at its first news and once more at its end
  const soon = useThrottleFn(() => void load(), GATHER_MS, true, true)
  watch(
    () => shop.news,
    items => {
      if (params() !== null && concerns(path, data.value, items)) void soon()
    },
  )
  onMounted(() => {
    if (everyMs > 0)
      timer = setInterval(() => {
        if (!document.hidden) void load()
      }, everyMs)
  })
  onBeforeUnmount(() => clearInterval(timer))
  return { data, failure, load }
}
