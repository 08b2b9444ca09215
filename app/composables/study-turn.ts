/**
 * Whose turn it is in a study: the first line that neither stands, nor waits here to be sent, nor was saved a moment
 * ago, before the list was read anew.
 */
import { computed, ref, watch, type Ref } from 'vue'
import type { StudyLine } from '#shared/answers/studies'
import { nextLine } from '~/lib/study'
import { useOutbox } from '~/state/outbox'

export function useStudyTurn(study: Readonly<Ref<StudyLine | null>>) {
  const outbox = useOutbox()
  /** Lines that were saved from here and do not stand in the list yet. */
  const saved = ref<{ studyId: number; line: number }[]>([])
  watch(study, s => {
    saved.value = saved.value.filter(x => x.studyId === s?.id && s.lines[x.line]?.reading === null)
  })
  const line = computed(() => {
    const s = study.value
    if (!s || s.struck) return null
    const route = '/api/study-readings' as const
    return nextLine(s, [...outbox.entries, ...saved.value.map(body => ({ route, body }))])
  })
  return { line, read: (studyId: number, at: number) => void saved.value.push({ studyId, line: at }) }
}
