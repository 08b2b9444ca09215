/** What printers report now, by server-sent events. Silence is shown as such: a lost printer has no values. */
import type { Live } from '#shared/answers/live'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Reading, Wait } from '#core/procedures'
import { hearServer } from '~/lib/server-events'

/** A report older than this is no reading any more, whatever the connection says. */
const STALE_MS = 30_000

export const useLive = defineStore('live', () => {
  const printers = ref<Record<string, Live>>({})
  const links = ref<{
    printers: string[]
    balance: boolean
    fineBalance: boolean
    microscope: boolean
    thermometer: boolean
    standIns: boolean
  }>({
    printers: [],
    balance: false,
    fineBalance: false,
    microscope: false,
    thermometer: false,
    standIns: false,
  })
  /** Since when the server itself has been silent; null while it speaks. */
  const silentSince = ref<string | null>(null)
  /** When this browser heard each report, by its own clock: a tablet's may be minutes off the server's. */
  const heard = new Map<string, { at: string; ms: number | null }>()

  function listen(): void {
    hearServer({
      events: {
        links: data => {
          links.value = JSON.parse(data) as typeof links.value
        },
        live: data => hear(JSON.parse(data) as Live),
      },
      opened: () => {
        silentSince.value = null
      },
      gone: () => {
        silentSince.value ??= new Date().toISOString()
        heard.clear()
      },
    })
  }
  function hear(live: Live): void {
    const before = heard.get(live.printer)
    // the first may have lain on the server for a while: only one that came in while listening is known to be new
    if (live.at !== null && live.at !== before?.at)
      heard.set(live.printer, { at: live.at, ms: before ? Date.now() : null })
    printers.value = { ...printers.value, [live.printer]: live }
  }

  /** What a printer reports now; null when it is not connected, lost, or too old. */
  function of(name: string, now = Date.now()): Live | null {
    const l = printers.value[name]
    if (!l || l.lostSince !== null || l.at === null || silentSince.value !== null || now - Date.parse(l.at) > STALE_MS)
      return null
    return l
  }
  /** What a heater of a printer shows, and when this browser heard it, ms since 1970; null when it is not read. */
  function reading(name: string, { heater, head }: Pick<Wait, 'heater' | 'head'>): Reading | null {
    const l = printers.value[name]
    const ms = heard.get(name)?.ms ?? null
    if (!l || l.lostSince !== null || silentSince.value !== null || ms === null) return null
    const value = heater === 'nozzle' ? (l.heads[head] ?? null) : l[heater]
    return value && { c: value.nowC, atMs: ms }
  }
  /** Since when a connected printer has been silent; null when it speaks or was never connected. */
  function lost(name: string): string | null {
    if (!links.value.printers.includes(name)) return null
    return silentSince.value ?? printers.value[name]?.lostSince ?? null
  }
  return { printers, links, silentSince, listen, of, reading, lost }
})
