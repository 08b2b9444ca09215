/** Esc leaves a field first; what stands around it is left by the next one. */
import { useEventListener } from '@vueuse/core'

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

/** Takes the focus out of whatever a page lets one fill in; the strip and sheets have their own Esc. */
export function leavePageField(target: HTMLElement | null): void {
  if (target?.matches('input:not([role="combobox"]), select, textarea') && !target.closest('[role="dialog"]'))
    target.blur()
}

/** Calls `leave` on an Esc outside of fields, sheets and lists: for a form that is part of a page. */
export function useEscape(leave: () => void): void {
  function onKey(e: KeyboardEvent): void {
    if (e.key !== 'Escape' || e.defaultPrevented || isField(e.target)) return
    if (document.querySelector('[role="dialog"], [role="menu"]')) return
    leave()
  }
  useEventListener(window, 'keydown', onKey)
}
