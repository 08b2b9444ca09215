/** The news that this process told, counted: a screen says with its questions which it has heard. */
import { randomUUID } from 'node:crypto'
import { getHeader, type H3Event } from 'h3'
import { HEARD } from '#shared/paths'

/** Another process counts its own. */
const PROCESS = randomUUID().slice(0, 8)
let told = 0

/** How many were told until now. */
export const newsNow = (): number => told
/** The mark of the next ones: whatever is begun from here on knows of them. */
export const nextNews = (): string => `${PROCESS}-${++told}`

/** The news of this process that made a screen ask; null where it does not say, or heard another's. */
export function heardBy(event: H3Event): number | null {
  const [process, count] = (getHeader(event, HEARD) ?? '').split('-')
  return process === PROCESS && /^\d{1,15}$/.test(count ?? '') ? Number(count) : null
}
