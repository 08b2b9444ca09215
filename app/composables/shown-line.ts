/** The line of a list that the address asks for (`?show=`): brought into sight with its first button ready. */
import { nextTick, watch } from 'vue'

/** `idOf` makes the id of the line's element; `ready` once the list is there. */
export function useShownLine(ready: () => boolean, idOf: (show: string) => string): void {
  const route = useRoute()
  watch(
    () => ready() && route.query.show,
    async show => {
      if (typeof show !== 'string') return
      await nextTick()
      const line = document.getElementById(idOf(show))
      line?.scrollIntoView({ block: 'center' })
      line?.querySelector('button')?.focus({ preventScroll: true })
    },
    { immediate: true },
  )
}
