/** Whose turn it is in a study. */
import type { StudyLine } from '#shared/answers/studies'
import { nextOpen, type TurnKind, type Waiting } from '~/lib/turn'

export const STUDY_TURN: TurnKind = { route: '/api/study-readings', of: 'studyId' }
type Lines = Pick<StudyLine, 'id' | 'lines'>
export const openLines = (s: Lines) => s.lines.map(l => l.reading === null)

/** The first line that nothing stands in and nothing waits for; null when there is none. */
export const nextLine = (s: Lines, waiting: Waiting) => nextOpen(STUDY_TURN, s.id, openLines(s), waiting)
