/** What the shop has: names, tags and who acts. Read once, and again after each save. */
import type { Shop } from '#shared/answers/shop'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { News, NewsItem, ShopNews } from '#shared/answers/news'
import { shopWith } from '#shared/news'
import { heardNews, read } from '~/lib/api'
import { hearServer } from '~/lib/server-events'
import { speakIn } from '~/lib/zone'

export type ShopData = Shop

/** News of a save come within so long, or not at all. */
const NEWS_MS = 2000

export const useShop = defineStore('shop', () => {
  const data = ref<ShopData | null>(null)
  const reachable = ref(true)
  /** Counts what was missed or is not known in detail: every open screen reads itself anew. */
  const revision = ref(0)
  /** The latest news; open screens read themselves anew where it concerns what they show. */
  const news = shallowRef<readonly NewsItem[]>([])
  const heard = { open: false, at: 0 }
  /** Screens read from here on; what is saved between that and the first beat is told to nobody. */
  const beganAt = performance.now()

  async function load(): Promise<void> {
    try {
      data.value = await read('/api/shop')
      speakIn(data.value.settings.timeZone)
      reachable.value = true
    } catch {
      reachable.value = false
    }
  }

  /** Names may have changed, and every screen: all is read. */
  async function refresh(): Promise<void> {
    await load()
    revision.value++
  }

  /** After a save of one's own, sent at `at`: its news come by themselves; where they do not, everything is read. */
  function saved(at: number): void {
    if (!heard.open) void refresh()
    else
      setTimeout(() => {
        if (heard.at < at) void refresh()
      }, NEWS_MS)
  }

  /** News of saves, here and elsewhere, with the lines of the shop that changed. */
  function listen(): void {
    let isMissing = false
    hearServer({
      events: {
        beat: quietMs => {
          const isFirst = !heard.open
          heard.open = true
          isMissing ||= isFirst && Number(quietMs) < performance.now() - beganAt
          if (isMissing) void refresh()
          isMissing = false
        },
        saved: hearSaved,
      },
      gone: () => {
        isMissing ||= heard.open
        heard.open = false
      },
    })
  }
  function hearSaved(data: string): void {
    heard.at = Date.now()
    const { items, shop: lines, heard: mark } = JSON.parse(data) as News
    heardNews(mark)
    if (items.length === 0) {
      void refresh()
      return
    }
    void take(lines).then(() => {
      news.value = items
    })
  }

  async function take(lines: ShopNews): Promise<void> {
    if (lines.whole || data.value === null) {
      await load()
      return
    }
    data.value = shopWith(data.value, lines)
  }

  /** The person this browser was told of, by its cookie; the server takes the first one while it knows none. */
  const told = ref(Number(/(?:^|; )iron-nozzle-person=(\d+)/.exec(document.cookie)?.[1] ?? NaN))
  const whoKnown = computed(() => data.value?.people.some(p => p.id === told.value) ?? !Number.isNaN(told.value))

  function actAs(id: number): void {
    told.value = id
    document.cookie = `iron-nozzle-person=${id}; path=/; max-age=31536000; samesite=strict`
    if (data.value) data.value.person = data.value.people.find(p => p.id === id) ?? data.value.person
  }

  const zone = computed(() => data.value?.settings.timeZone ?? 'UTC')
  return { data, reachable, revision, news, load, refresh, saved, listen, actAs, whoKnown, zone }
})
