/** Arrow keys move between the links or buttons of a list. */
export function useListKeys() {
  function onKey(e: KeyboardEvent): void {
    if (e.key !== 'ArrowDown' && e.key !== 'ArrowUp') return
    const list = e.currentTarget as HTMLElement
    const items = [...list.querySelectorAll<HTMLElement>('a, button')]
    const i = items.indexOf(document.activeElement as HTMLElement)
    if (i < 0) return
    e.preventDefault()
    items[Math.min(items.length - 1, Math.max(0, i + (e.key === 'ArrowDown' ? 1 : -1)))]?.focus()
  }
  return { onKey }
}
