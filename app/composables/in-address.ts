/**
 * A choice of a page that lives in its address, so that Back, a reload and a link keep it. It is there at once, before
 * a sheet that is opened next takes its step in the history; only what is typed is not written out letter by letter.
 */
import { onBeforeUnmount, ref, watch, type Ref } from 'vue'
import type { Router } from 'vue-router'

const SETTLED_MS = 250
/** A write that another navigation called off is made again, so often. */
const MOST_TRIES = 6

/** What is to stand in the address of the page that is shown, all in one write: two at once call each other off. */
const wishes = new Map<string, string | undefined>()
let writing = false

async function write(router: Router, path: string): Promise<void> {
  if (writing) return
  writing = true
  const now = () => router.currentRoute.value
  for (let tries = 0; wishes.size > 0 && tries < MOST_TRIES; tries++) {
    // the page is left already, and the address is another's
    if (now().path !== path) break
    // what is undefined is left out of the address
    await router.replace({ query: { ...now().query, ...Object.fromEntries(wishes) } })
    for (const [key, value] of wishes) if ((now().query[key] ?? undefined) === value) wishes.delete(key)
  }
  wishes.clear()
  writing = false
}

/** `none` is what it is without the address saying so, and is not written there. */
export function useInAddress(key: string, { none = '', typed = false } = {}): Ref<string> {
  const route = useRoute()
  const router = useRouter()
  const { path } = route
  const asked = () => (typeof route.query[key] === 'string' ? route.query[key] : none)
  const value = ref(asked())
  let timer: ReturnType<typeof setTimeout> | undefined
  function wish(): void {
    if (router.currentRoute.value.path !== path) return
    if (asked() === value.value && !wishes.has(key)) return
    wishes.set(key, value.value === none ? undefined : value.value)
    void write(router, path)
  }
  watch(value, () => {
    clearTimeout(timer)
    if (typed) timer = setTimeout(wish, SETTLED_MS)
    else wish()
  })
  watch(asked, now => {
    // what waits to be written is newer than what the address says
    if (route.path === path && !wishes.has(key)) value.value = now
  })
  onBeforeUnmount(() => clearTimeout(timer))
  return value
}
