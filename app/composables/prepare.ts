/** What Prepare's screens share: one reading, and the time that timers go by. */
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { useAnswer } from '~/composables/answer'

/** Now, anew every few seconds while the page is open: timers are read in minutes. */
export function useNow(everyMs = 5000) {
  const now = ref(Date.now())
  let timer: ReturnType<typeof setInterval> | undefined
  onMounted(() => {
    timer = setInterval(() => {
      now.value = Date.now()
    }, everyMs)
  })
  onBeforeUnmount(() => clearInterval(timer))
  return now
}

export function usePrepare() {
  const { data, failure } = useAnswer('/api/prepare', { everyMs: 60_000 })
  return { data, failure, now: useNow() }
}
