/** Rows that are sorted anew move, and what had the focus in one of them loses it: it gets it back. */
import { onBeforeUpdate, onUpdated } from 'vue'

export function useKeptFocus(): void {
  let had: Element | null = null
  onBeforeUpdate(() => {
    const now = document.activeElement
    if (now !== document.body) had = now
  })
  onUpdated(() => {
    const lost = document.activeElement === document.body
    if (lost && had instanceof HTMLElement && had.isConnected) had.focus({ preventScroll: true })
    had = null
  })
}
