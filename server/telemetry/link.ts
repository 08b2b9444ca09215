/**
 * A line-speaking device on a TCP port: a printer's bridge, a balance, or a stand-in. Asks, waits for one line, and
 * asks again; a device that is silent or gone is reported as lost, and tried again a little later each time.
 */
import { connect, type Socket } from 'node:net'

const MAX_LINE = 4000

export function parseAddress(text: string): { host: string; port: number } {
  const m = /^([\w.-]+):(\d{1,5})$/.exec(text.trim())
  const port = Number(m?.[2])
  if (!m || port < 1 || port > 65_535) throw new Error(`"${text}" is not an address like 192.0.2.7:8899`)
  return { host: m[1]!, port }
}

/** One connection that answers line for line. Rejects when it is lost or silent for `patienceMs`. */
class Line {
  private held = ''
  private waiting: {
    done: (line: string) => void
    failed: (e: Error) => void
    timer: ReturnType<typeof setTimeout>
  } | null = null
  private queue: Promise<unknown> = Promise.resolve()
  constructor(
    private socket: Socket,
    private patienceMs: number,
  ) {
    socket.setEncoding('utf8').on('data', text => {
      this.held += String(text)
      if (this.held.length > MAX_LINE) {
        socket.destroy()
        return
      }
      let end: number
      while ((end = this.held.indexOf('\n')) >= 0) {
        const line = this.held.slice(0, end).trim()
        this.held = this.held.slice(end + 1)
        this.settle(w => w.done(line))
      }
    })
    socket.on('error', () => {}).on('close', () => this.settle(w => w.failed(new Error('the connection was lost'))))
  }

  private settle(how: (w: NonNullable<Line['waiting']>) => void): void {
    const w = this.waiting
    this.waiting = null
    if (!w) return
    clearTimeout(w.timer)
    how(w)
  }

  get gone(): boolean {
    return this.socket.destroyed
  }
  close(): void {
    this.socket.destroy()
  }

  ask(line: string): Promise<string> {
    const next = this.queue.then(
      () =>
        new Promise<string>((done, failed) => {
          if (this.socket.destroyed) {
            failed(new Error('the connection was lost'))
            return
          }
          const timer = setTimeout(() => this.socket.destroy(), this.patienceMs)
          this.waiting = { done, failed, timer }
          this.socket.write(`${line}\n`)
        }),
    )
    this.queue = next.catch(() => {})
    return next
  }
}

function openLine(address: string, patienceMs = 3000): Promise<Line> {
  const { host, port } = parseAddress(address)
  return new Promise((done, failed) => {
    const socket = connect({ host, port })
    const timer = setTimeout(() => socket.destroy(new Error('no answer')), patienceMs)
    socket.once('connect', () => {
      clearTimeout(timer)
      socket.removeAllListeners('error')
      done(new Line(socket, patienceMs))
    })
    socket.once('error', e => {
      clearTimeout(timer)
      failed(e)
    })
  })
}

/** One question on a connection of its own. */
export async function askOnce(address: string, lines: readonly string[], patienceMs = 3000): Promise<string> {
  const line = await openLine(address, patienceMs)
  try {
    let last = ''
    for (const l of lines) last = await line.ask(l)
    return last
  } finally {
    line.close()
  }
}

export interface Watch {
  stop: () => void
}
/** Asks `question` every `everyMs` for as long as it lives. `lost` is told each time a try fails. */
export function watch(
  address: string,
  question: string,
  heard: (line: string) => void,
  lost: () => void,
  { everyMs = 2000, patienceMs = 3000, mostMs = 15_000 } = {},
): Watch {
  let stopped = false
  let line: Line | null = null
  let timer: ReturnType<typeof setTimeout> | undefined
  let fails = 0
  const round = async () => {
    try {
      if (line === null || line.gone) line = await openLine(address, patienceMs)
      const answer = await line.ask(question)
      fails = 0
      if (!stopped) heard(answer)
    } catch {
      line?.close()
      line = null
      fails++
      if (!stopped) lost()
    }
    if (!stopped)
      timer = setTimeout(() => void round(), fails === 0 ? everyMs : Math.min(mostMs, everyMs * 2 ** (fails - 1)))
  }
  void round()
  return {
    stop: () => {
      stopped = true
      clearTimeout(timer)
      line?.close()
    },
  }
}
