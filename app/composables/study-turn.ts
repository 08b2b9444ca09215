/** Whose turn it is in a study. */
import type { Ref } from 'vue'
import type { StudyLine } from '#shared/answers/studies'
import { useTurn } from '~/composables/turn'
import { openLines, STUDY_TURN } from '~/lib/study'

export const useStudyTurn = (study: Readonly<Ref<StudyLine | null>>) =>
  useTurn(STUDY_TURN, study, s => (s.struck ? null : openLines(s)))
