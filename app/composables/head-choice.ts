/** On which head something is to be done, and what is to be taken for it: chosen here, or named by the link. */
import { computed, ref, watch } from 'vue'
import { useShop } from '~/state/shop'

/** `key`: the name of what is taken, in the address. `now`: what sits on a head, in words. */
export function useHeadChoice(key: 'nozzle' | 'hotend') {
  const route = useRoute()
  const shop = useShop()
  const headId = ref<number | null>(null)
  const takenId = ref<number | null>(null)
  const heads = computed(() =>
    (shop.data?.printers ?? []).flatMap(p =>
      p.heads.map(h => {
        const now = h[key]
        return {
          value: h.id as number | null,
          text: `${p.name}${p.heads.length > 1 ? ` · ${h.name}` : ''}${now ? `, now ${now}` : `, no ${key}`}`,
        }
      }),
    ),
  )
  const asked = (of: string) => {
    const n = Number(route.query[of])
    return Number.isInteger(n) && n > 0 ? n : null
  }
  watch(
    () => [heads.value.map(h => h.value).join(), route.query.head, route.query[key]].join(' '),
    () => {
      const of = asked('head')
      if (heads.value.some(h => h.value === of)) headId.value = of
      else if (headId.value === null && heads.value.length === 1) headId.value = heads.value[0]!.value
      takenId.value = asked(key) ?? takenId.value
    },
    { immediate: true },
  )
  return { headId, takenId, heads }
}
