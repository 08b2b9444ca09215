/** What printers report now, by server-sent events. Silence is shown as such: a lost printer has no values. */
import type { Live } from '#shared/answers/live'
import { defineStore } from 'pinia'
import { ref } from 'vue'

/** A report older than this is no reading any more, whatever the connection says. */
const STALE_MS = 30_000

export const useLive = defineStore('live', () => {
  const printers = ref<Record<string, Live>>({})
  const links = ref<{
    printers: string[]
    balance: boolean
    microscope: boolean
    thermometer: boolean
    standIns: boolean
  }>({
    printers: [],
    balance: false,
    microscope: false,
    thermometer: false,
    standIns: false,
  })
  /** Since when the server itself has been silent; null while it speaks. */
  const silentSince = ref<string | null>(null)
  let source: EventSource | null = null

  function listen(): void {
    if (source) return
    source = new EventSource('/api/live')
    source.addEventListener('links', e => {
      links.value = JSON.parse((e as MessageEvent<string>).data) as typeof links.value
    })
    source.addEventListener('live', e => {
      const live = JSON.parse((e as MessageEvent<string>).data) as Live
      printers.value = { ...printers.value, [live.printer]: live }
    })
    source.onopen = () => {
      silentSince.value = null
    }
    source.onerror = () => {
      silentSince.value ??= new Date().toISOString()
    }
  }

  /** What a printer reports now; null when it is not connected, lost, or too old. */
  function of(name: string, now = Date.now()): Live | null {
    const l = printers.value[name]
    if (!l || l.lostSince !== null || l.at === null || silentSince.value !== null || now - Date.parse(l.at) > STALE_MS)
      return null
    return l
  }
  /** Since when a connected printer has been silent; null when it speaks or was never connected. */
  function lost(name: string): string | null {
    if (!links.value.printers.includes(name)) return null
    return silentSince.value ?? printers.value[name]?.lostSince ?? null
  }
  return { printers, links, silentSince, listen, of, lost }
})
