/** What the shop has: names, tags and who acts. Read once, and again after each save. */
import type { Shop } from '#shared/answers/shop'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { read } from '~/lib/api'
import { speakIn } from '~/lib/zone'

export type ShopData = Shop

export const useShop = defineStore('shop', () => {
  const data = ref<ShopData | null>(null)
  const reachable = ref(true)
  /** Counts saves, so that open screens read themselves anew. */
  const revision = ref(0)

  async function load(): Promise<void> {
    try {
      data.value = await read('/api/shop')
      speakIn(data.value.settings.timeZone)
      reachable.value = true
    } catch {
      reachable.value = false
    }
  }

  /** After a save: names may have changed, and every screen shows its effect. */
  async function refresh(): Promise<void> {
    await load()
    revision.value++
  }

  /** News of saves elsewhere, a moment gathered so that a burst is read once. */
  function listen(): void {
    const news = new EventSource('/api/news')
    let timer: ReturnType<typeof setTimeout> | undefined
    news.addEventListener('saved', () => {
      clearTimeout(timer)
      timer = setTimeout(() => void refresh(), 400)
    })
  }

  /** The person this browser was told of, by its cookie; the server takes the first one while it knows none. */
  const told = ref(Number(/(?:^|; )iron-nozzle-person=(\d+)/.exec(document.cookie)?.[1] ?? NaN))
  const whoKnown = computed(() => data.value?.people.some(p => p.id === told.value) ?? true)

  function actAs(id: number): void {
    told.value = id
    document.cookie = `iron-nozzle-person=${id}; path=/; max-age=31536000; samesite=strict`
    if (data.value) data.value.person = data.value.people.find(p => p.id === id) ?? data.value.person
  }

  const zone = computed(() => data.value?.settings.timeZone ?? 'UTC')
  return { data, reachable, revision, load, refresh, listen, actAs, whoKnown, zone }
})
