/** The names the strip reads by: the shop's, and every tag there ever was, read only once somebody asks. */
import { computed, type Ref } from 'vue'
import { useAnswer } from '~/composables/answer'
import { useShop } from '~/state/shop'
import type { StripShop } from '~/strip/grammar'

const NOTHING = { printers: [], nozzles: [], hotends: [], spools: [], materials: [], studyTurn: null }

export function useStripNames(asked: Ref<boolean>) {
  const shop = useShop()
  const { data, failure } = useAnswer('/api/known-tags', { params: () => (asked.value ? {} : null) })
  const names = computed<StripShop>(() => ({
    ...(shop.data ?? NOTHING),
    // what is in use is known by the shop alone: before it is read, every tag would pass for one of long ago
    known: (shop.data && data.value) ?? { nozzles: [], spools: [], pins: [] },
  }))
  /** They are all there, or cannot come. */
  const isRead = computed(
    () => (shop.data !== null || !shop.reachable) && (data.value !== null || failure.value !== null),
  )
  return { names, isRead }
}
