/**
 * A reading that many ask for at the same time is worked out once for all of them. Who comes while it is being worked
 * out waits for the next time, which begins when this one is done: what was saved before one asked is in what one gets,
 * and never more than one of a kind is being worked out. Who asks because of news, and says which were heard, takes
 * what was begun after those: that is how fifty screens that hear of one save read it once.
 */
import { newsNow } from './heard'

interface Running {
  now: Promise<unknown>
  /** News that had been told when it began. */
  since: number
  next: Promise<unknown> | null
  isDone: boolean
}
const running = new Map<string, Running>()
/** So long what is done is kept for those who heard the same news a little later. */
const KEPT_MS = 500

/** `heard`: the news that made one ask; null for who must see everything that is saved by now. */
export function together<T>(key: string, work: () => Promise<T>, heard: number | null = null): Promise<T> {
  const r = running.get(key)
  if (r && heard !== null && r.since >= heard) return r.now as Promise<T>
  if (!r || r.isDone) return begun(key, work)
  const begin = () => begun(key, work)
  r.next ??= r.now.then(begin, begin)
  return r.next as Promise<T>
}

function begun<T>(key: string, work: () => Promise<T>): Promise<T> {
  const now = work()
  const r: Running = { now, since: newsNow(), next: null, isDone: false }
  running.set(key, r)
  const forget = () => {
    if (running.get(key) === r) running.delete(key)
  }
  now.then(
    () => {
      r.isDone = true
      if (r.next === null) setTimeout(forget, KEPT_MS).unref()
    },
    () => {
      // a failure is nobody's answer but theirs who waited for it
      if (r.next === null) forget()
    },
  )
  return now
}
