/**
 * An entry that takes the place of an old one: the address names the old one (`again=gauge:55`), the form starts from
 * what was entered then, and the old one is struck out when the new one is saved, not before.
 */
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import type { EnteredKind, EnteredOf } from '#shared/answers/again'
import { ProblemError, read } from '~/lib/api'
import { sheetsSettled } from '~/lib/sheet-history'

/** Where an old entry is entered again. */
export const againAt = (path: string, kind: EnteredKind, id: number): string =>
  `${path}?again=${encodeURIComponent(`${kind}:${id}`)}`

/** What goes with an entry in place of an old one. */
export const inPlaceOf = (id: number | null | undefined, reason: string) => (id == null ? null : { id, reason })

export function useAgain<K extends EnteredKind>(kind: K) {
  const route = useRoute()
  const router = useRouter()
  const old = shallowRef<EnteredOf<K> | null>(null)
  const failure = ref('')
  const id = computed(() => {
    const [named, id] = String(route.query.again ?? '').split(':')
    return named === kind && /^\d{1,9}$/.test(id ?? '') ? Number(id) : null
  })
  watch(
    id,
    async now => {
      old.value = null
      failure.value = ''
      if (now === null) return
      try {
        const found = await read('/api/entered/{kind}/{id}', { kind, id: now })
        if (id.value === now) old.value = found as EnteredOf<K>
      } catch (e) {
        failure.value = e instanceof ProblemError ? e.problem.title : 'The server does not answer'
      }
    },
    { immediate: true },
  )
  /** The old one stays as it is, or another stands in its place: the address names it no more. */
  async function leave(): Promise<void> {
    old.value = null
    // a sheet takes its step out of the history when it closes; the address below it is the one to write
    await nextTick()
    await sheetsSettled()
    if (id.value === null) return
    const { again: _, ...rest } = route.query
    await router.replace({ query: rest })
  }
  return { id, old, failure, leave }
}
