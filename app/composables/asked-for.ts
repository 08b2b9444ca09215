/**
 * A sheet that an address opens (`?head=11`): at once, also while its page is open already. When it is closed the
 * address forgets it, so that the same one opens it again.
 */
import { onBeforeUnmount, watch } from 'vue'

/** A sheet that closes takes its step in the history back first; an address that changes sooner is called off. */
const SETTLED_MS = 250

export function useAskedFor<K extends string>(keys: readonly K[], open: (asked: Record<K, string | null>) => void) {
  const route = useRoute()
  const router = useRouter()
  const text = (q: unknown) => (typeof q === 'string' && q !== '' ? q : null)
  const asked = () => keys.map(k => text(route.query[k]))
  // by its text: the step back of a closing sheet makes the same query anew, and asks for nothing
  watch(
    () => JSON.stringify(asked()),
    () => {
      const values = asked()
      if (values.some(v => v !== null))
        open(Object.fromEntries(keys.map((k, i) => [k, values[i]!])) as Record<K, string | null>)
    },
    { immediate: true },
  )
  let timer: ReturnType<typeof setTimeout> | undefined
  function forget(): void {
    clearTimeout(timer)
    timer = setTimeout(() => {
      const rest = Object.fromEntries(Object.entries(route.query).filter(([k]) => !keys.includes(k as K)))
      void router.replace({ query: rest })
    }, SETTLED_MS)
  }
  onBeforeUnmount(() => clearTimeout(timer))
  return { forget }
}
