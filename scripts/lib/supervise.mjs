/**
 * Keeps a program running: starts it again when it ends, a little later each time, says so, and gives up with the
 * reason when it ends again and again.
 */
import { setTimeout as sleep } from 'node:timers/promises'

/** In a row, each within the time below. */
export const MOST_RESTARTS = 5
/** One that has run for so long was well: the count begins anew. */
const WELL_MS = 10_000
const FIRST_MS = 200
const LONGEST_MS = 8000

/**
 * @param {{
 *   what: string
 *   start: () => Promise<import('node:child_process').ChildProcess>
 *   say: (text: string) => void
 *   gaveUp: (reason: string) => void
 *   now?: () => number
 *   wait?: (ms: number) => Promise<unknown>
 * }} how
 */
export async function supervise({ what, start, say, gaveUp, now = Date.now, wait = sleep }) {
  let stopping = false
  let child = await start()
  let since = now()
  let restarts = 0
  const ended = async reason => {
    if (stopping) return
    if (now() - since > WELL_MS) restarts = 0
    if (restarts === MOST_RESTARTS) {
      gaveUp(`${what} ended ${MOST_RESTARTS + 1} times in a row; the last time: ${reason}`)
      return
    }
    const ms = Math.min(LONGEST_MS, FIRST_MS * 2 ** restarts)
    restarts++
    say(`${what} ended (${reason}); started again in ${(ms / 1000).toFixed(1)} s`)
    await wait(ms)
    if (stopping) return
    since = now()
    try {
      child = await start()
      if (stopping) {
        child.kill('SIGTERM') // it was told to end while it began
        return
      }
      watch(child)
      say(`${what} is back`)
    } catch (error) {
      await ended(error instanceof Error ? error.message : String(error))
    }
  }
  const watch = running => {
    // it may have ended before anybody listened
    if (running.exitCode !== null || running.signalCode !== null)
      void ended(reasonOf(running.exitCode, running.signalCode))
    else running.once('exit', (code, signal) => void ended(reasonOf(code, signal)))
  }
  watch(child)
  return {
    child: () => child,
    /** Ends it for good. */
    async stop(signal, patienceMs) {
      stopping = true
      if (child.exitCode !== null || child.signalCode !== null) return
      const gone = new Promise(done => child.once('exit', done))
      child.kill(signal)
      await Promise.race([gone, sleep(patienceMs, undefined, { ref: false })])
      if (child.exitCode === null && child.signalCode === null) child.kill('SIGKILL')
    },
  }
}

const reasonOf = (code, signal) => (signal ? `killed by ${signal}` : `code ${code}`)
