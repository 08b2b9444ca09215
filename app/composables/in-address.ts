/**
 * A choice of a page that lives in its address, so that Back, a reload and a link keep it. It is there at once, before
 * a sheet that is opened next takes its step in the history; only what is typed is not written out letter by letter.
 */
import { onBeforeUnmount, ref, watch, type Ref } from 'vue'

const SETTLED_MS = 250

/** `none` is what it is without the address saying so, and is not written there. */
export function useInAddress(key: string, { none = '', typed = false } = {}): Ref<string> {
  const route = useRoute()
  const router = useRouter()
  const { path } = route
  const asked = () => (typeof route.query[key] === 'string' ? route.query[key] : none)
  const value = ref(asked())
  let timer: ReturnType<typeof setTimeout> | undefined
  async function write(again = true): Promise<void> {
    // the page may be left already, and the address is another's
    if (route.path !== path || asked() === value.value) return
    const { [key]: _, ...rest } = route.query
    await router.replace({ query: value.value === none ? rest : { ...rest, [key]: value.value } })
    // another choice of the page was written at the same moment, and called this one off
    if (again) await write(false)
  }
  watch(value, () => {
    clearTimeout(timer)
    if (typed) timer = setTimeout(() => void write(), SETTLED_MS)
    else void write()
  })
  watch(asked, now => {
    if (route.path === path) value.value = now
  })
  onBeforeUnmount(() => clearTimeout(timer))
  return value
}
