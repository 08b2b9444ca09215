/**
 * What was typed into a sheet and not saved yet. It is kept in this tab over a reload, and over closing the sheet with
 * Esc, Back or a click outside, until it is saved or given up. Only what differs from the start is kept: a time that
 * nobody touched is the present one when the sheet is opened again.
 */
import { ref, watch } from 'vue'
import { plain } from '~/lib/plain'

interface Kept {
  changes: Record<string, unknown>
  /** The version of the record that they were typed over. */
  version: number
}
const PREFIX = 'draft '
const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null)

function readKept(name: string): Kept | null {
  try {
    return JSON.parse(sessionStorage.getItem(PREFIX + name) ?? 'null') as Kept | null
  } catch {
    return null
  }
}

export function useDraft(v: Record<string, unknown>) {
  const kept = ref(false)
  let open: { name: string; start: Record<string, unknown>; version: number } | null = null

  /** Opens on a form's start values; answers the version that what is kept was typed over. */
  function begin(name: string, start: Record<string, unknown>, version = 0): number {
    const old = readKept(name)
    const changes = Object.fromEntries(Object.entries(old?.changes ?? {}).filter(([k]) => k in start))
    open = { name, start: plain(start), version: old?.version ?? version }
    for (const k of Object.keys(v)) if (!(k in start)) Reflect.deleteProperty(v, k)
    Object.assign(v, plain({ ...start, ...changes }))
    kept.value = Object.keys(changes).some(k => !same(changes[k], start[k]))
    return open.version
  }
  /** Saved or given up: nothing is kept of it. */
  function drop(): void {
    if (open) sessionStorage.removeItem(PREFIX + open.name)
    open = null
    kept.value = false
  }
  /** Closed: what was typed is there when it is opened again. */
  function rest(): void {
    open = null
  }
  watch(
    () => JSON.stringify(v),
    () => {
      if (!open) return
      const { name, start, version } = open
      const changes = Object.fromEntries(Object.entries(v).filter(([k, x]) => !same(x, start[k])))
      if (Object.keys(changes).length === 0) sessionStorage.removeItem(PREFIX + name)
      else sessionStorage.setItem(PREFIX + name, JSON.stringify({ changes, version } satisfies Kept))
    },
    { flush: 'sync' },
  )
  return { kept, begin, drop, rest }
}
