/** How much is due at each station, for the rail: read again a while after a save, not with every one. */
import { useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import type { DueList } from '#shared/answers/due'
import { read } from '~/lib/api'
import { useShop } from '~/state/shop'

/** Saves follow each other; what time alone makes due comes with the longer one. */
const AFTER_MS = 2_500
const AT_MOST_MS = 15_000
const EVERY_MS = 5 * 60_000

export const useDue = defineStore('due', () => {
  const counts = ref<DueList['counts']>({})
  /** What a page has read counts here too. */
  const take = (list: DueList) => (counts.value = list.counts)
  /** The list of what is due is open: it reads by itself, and brings the counts along. */
  const followed = ref(false)
  async function load(): Promise<void> {
    if (followed.value) return
    try {
      take(await read('/api/due', {}, {}))
    } catch {
      // the frame says that the server is away; what was known stays
    }
  }
  function begin(): void {
    const shop = useShop()
    const soon = useDebounceFn(() => void load(), AFTER_MS, { maxWait: AT_MOST_MS })
    watch([() => shop.news, () => shop.revision], () => void soon())
    setInterval(() => void load(), EVERY_MS)
    void load()
  }
  return { counts, followed, take, begin }
})
