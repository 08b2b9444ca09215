/** Whether the page is laid out for paper, and when it was. */
import { useEventListener, useMediaQuery } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

export function usePaper() {
  const printing = ref(false)
  const at = ref(new Date())
  // the event comes before the page is laid out, the media query where paper is only looked at
  const media = useMediaQuery('print')
  const onPaper = computed(() => printing.value || media.value)
  useEventListener('beforeprint', () => (printing.value = true))
  useEventListener('afterprint', () => (printing.value = false))
  watch(onPaper, () => (at.value = new Date()), { flush: 'sync' })
  return { onPaper, at }
}
