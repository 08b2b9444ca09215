/**
 * A reading that many ask for at the same time is worked out once for all of them. Who comes while it is being worked
 * out waits for the next time, which begins when this one is done: what was saved before one asked is in what one gets,
 * and never more than one of a kind is being worked out.
 */
interface Running {
  now: Promise<unknown>
  next: Promise<unknown> | null
}
const running = new Map<string, Running>()

export function together<T>(key: string, work: () => Promise<T>): Promise<T> {
  const r = running.get(key)
  if (!r) return begun(key, work)
  const begin = () => begun(key, work)
  r.next ??= r.now.then(begin, begin)
  return r.next as Promise<T>
}

function begun<T>(key: string, work: () => Promise<T>): Promise<T> {
  const now = work()
  const r: Running = { now, next: null }
  running.set(key, r)
  const done = () => {
    if (running.get(key) === r && r.next === null) running.delete(key)
  }
  now.then(done, done)
  return now
}
