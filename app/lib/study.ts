/** Whose turn it is in a study: what waits here to be sent is read already. */
import type { StudyLine } from '#shared/answers/studies'
import type { Queued } from '~/state/outbox'

/** The first line that nothing stands in and nothing waits for; null when there is none. */
export function nextLine(
  s: Pick<StudyLine, 'id' | 'lines'>,
  waiting: readonly Pick<Queued, 'route' | 'body'>[],
): number | null {
  const kept = new Set(
    waiting.filter(e => e.route === '/api/study-readings' && e.body.studyId === s.id).map(e => e.body.line),
  )
  const i = s.lines.findIndex((l, k) => l.reading === null && !kept.has(k))
  return i < 0 ? null : i
}
