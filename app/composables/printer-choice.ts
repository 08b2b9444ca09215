/** Which printer a page is about: as its address asks, else the first that has something to show, else the first. */
import { ref, watch, type Ref } from 'vue'

export function usePrinterChoice(
  printers: () => readonly { id: number; name: string }[],
  shows: (id: number) => boolean = () => false,
): Ref<number | null> {
  const route = useRoute()
  const chosen = ref<number | null>(null)
  watch(
    // a string: every save reads the list anew, and what is chosen stays
    () =>
      printers()
        .map(p => p.id)
        .join(),
    () => {
      const all = printers()
      if (all.some(p => p.id === chosen.value)) return
      const of = all.find(p => p.name === route.query.printer) ?? all.find(p => shows(p.id)) ?? all[0]
      chosen.value = of?.id ?? null
    },
    { immediate: true },
  )
  return chosen
}
