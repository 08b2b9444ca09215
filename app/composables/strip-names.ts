/** The names the strip reads by: the shop's, and every tag there ever was, read only once somebody asks. */
import { computed, type Ref } from 'vue'
import { useAnswer } from '~/composables/answer'
import { useShop } from '~/state/shop'
import type { StripShop } from '~/strip/grammar'

const NOTHING = { printers: [], nozzles: [], hotends: [], spools: [], materials: [], studyTurn: null }

export function useStripNames(asked: Ref<boolean>) {
  const shop = useShop()
  const { data } = useAnswer('/api/known-tags', { params: () => (asked.value ? {} : null) })
  return computed<StripShop>(() => ({
    ...(shop.data ?? NOTHING),
    known: data.value ?? { nozzles: [], spools: [], pins: [] },
  }))
}
