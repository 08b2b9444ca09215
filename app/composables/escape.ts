/** Esc leaves a field first; what stands around it is left by the next one. */
import { onBeforeUnmount, onMounted } from 'vue'

const FIELDS = 'input:not([type="checkbox"], [type="radio"], [type="file"]), select, textarea'
const isField = (t: EventTarget | null): t is HTMLElement => t instanceof HTMLElement && t.matches(FIELDS)

/**
 * Takes the focus out of a field of a sheet, so that the Esc closes nothing yet; the focus stays in the sheet. A button
 * is no field: there Esc closes.
 */
export function leaveField(e: KeyboardEvent): void {
  if (!isField(e.target)) return
  e.preventDefault()
  e.stopPropagation()
  const sheet = e.target.closest<HTMLElement>('[role="dialog"] [tabindex="-1"], [role="dialog"]')
  e.target.blur()
  sheet?.focus({ preventScroll: true })
}

/** Calls `leave` on an Esc outside of fields, sheets and lists: for a form that is part of a page. */
export function useEscape(leave: () => void): void {
  function onKey(e: KeyboardEvent): void {
    if (e.key !== 'Escape' || e.defaultPrevented || isField(e.target)) return
    if (document.querySelector('[role="dialog"], [role="menu"]')) return
    leave()
  }
  onMounted(() => window.addEventListener('keydown', onKey))
  onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
}
