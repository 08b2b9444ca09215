/**
 * Arrow keys in the list of a page, which is marked `data-list`: up and down between its rows, left and right within
 * one. They work as soon as the page is there, and from the field in which one looks for something in it.
 */
import { useEventListener } from '@vueuse/core'

const STEPS: Partial<Record<string, [rows: number, within: number]>> = {
  ArrowDown: [1, 0],
  ArrowUp: [-1, 0],
  ArrowRight: [0, 1],
  ArrowLeft: [0, -1],
}
const clamp = (i: number, length: number) => Math.min(length - 1, Math.max(0, i))
const focusable = (row: Element) => [...row.querySelectorAll<HTMLElement>('a[href], button:not(:disabled)')]

const isShown = (e: HTMLElement) => e.offsetParent !== null
/** The rows of the lists of a page, one after the other, each with what can be reached in it. */
const rowsShown = (): HTMLElement[][] =>
  [...document.querySelectorAll<HTMLElement>('[data-list]')]
    .filter(isShown)
    .flatMap(list => [...list.querySelectorAll(':scope > li, :scope > tr')].map(focusable))
    .filter(row => row.length > 0)

/** Where a step leads to; null where there is nothing. */
function stepped([down, right]: [number, number]): HTMLElement | null {
  const rows = rowsShown()
  const at = document.activeElement
  const row = rows.findIndex(r => r.some(x => x === at))
  if (row < 0) return rows[0]?.[0] ?? null
  const within = rows[row]!.findIndex(x => x === at)
  const next = rows[clamp(row + down, rows.length)]!
  return next[clamp(within + right, next.length)]!
}

export function useListKeys(): void {
  useEventListener(window, 'keydown', (e: KeyboardEvent) => {
    const step = STEPS[e.key]
    if (!step || e.defaultPrevented || e.ctrlKey || e.metaKey || e.altKey || e.shiftKey) return
    const at = document.activeElement
    const isInside = at?.closest('[data-list]') != null
    // from nowhere, or from where one looks for something in it: down into it
    const isBefore = at === document.body || at?.matches('input[type="search"]')
    if (!isInside && !(isBefore && e.key === 'ArrowDown')) return
    const to = stepped(step)
    if (to === null) return
    e.preventDefault()
    to.focus()
  })
}

/** The field in which one looks for something on this page. */
export function focusFind(): void {
  ;[...document.querySelectorAll<HTMLInputElement>('main input[type="search"]')].find(isShown)?.focus()
}
