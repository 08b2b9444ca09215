/**
 * A stand-in printer on a TCP port of the loopback: lines in, lines out. M105 answers the temperature report as
 * printers do; M104, M140 and M141 set heaters. `door 1` and `door 0` stand for a hand at its door, which no real
 * printer takes.
 */
import { createServer, type Server } from 'node:net'
import { pass, type Machine } from './thermal'

const value = (h: { readC: number; setC: number }) => `${h.readC.toFixed(1)} /${h.setC.toFixed(1)}`

export function answer(m: Machine, line: string): string {
  const [word, ...rest] = line.trim().split(/\s+/)
  const arg = (letter: string) => {
    const w = rest.find(x => x.toUpperCase().startsWith(letter))
    return w === undefined ? null : Number(w.slice(1))
  }
  switch (word?.toUpperCase()) {
    case 'M105': {
      const first = m.heads[0]!
      const tools = m.heads.length > 1 ? m.heads.map((h, i) => ` T${i}:${value(h)}`).join('') : ''
      return (
        `ok T:${value(first)}${tools} B:${value(m.bed)}${m.build.enclosed ? ` C:${value(m.chamber)}` : ''} ` +
        `@:0 B@:0`
      )
    }
    case 'M104':
    case 'M140':
    case 'M141': {
      const s = arg('S')
      if (s === null || !(s >= 0 && s <= 500)) return 'error: no setpoint'
      if (word.toUpperCase() === 'M104') (m.heads[arg('T') ?? 0] ?? m.heads[0]!).setC = s
      else if (word.toUpperCase() === 'M140') m.bed.setC = s
      else m.chamber.setC = s
      return 'ok'
    }
    case 'DOOR':
      m.doorOpen = rest[0] === '1'
      return 'ok'
    default:
      return `error: unknown command ${word ?? ''}`
  }
}

/** Serves a machine; it lives `speed` times as fast as the clock. Answers the server and its port. */
export async function servePrinter(
  m: Machine,
  { port = 0, speed = 1, everyMs = 250 } = {},
): Promise<{ server: Server; port: number; close: () => void }> {
  const sockets = new Set<import('node:net').Socket>()
  const server = createServer(socket => {
    sockets.add(socket)
    let held = ''
    socket
      .setEncoding('utf8')
      .on('data', text => {
        held += String(text)
        if (held.length > 10_000) {
          socket.destroy()
          return
        }
        const lines = held.split('\n')
        held = lines.pop()!
        for (const l of lines) if (l.trim() !== '') socket.write(`${answer(m, l)}\n`)
      })
      .on('error', () => {})
      .on('close', () => sockets.delete(socket))
  })
  await new Promise<void>((done, failed) => {
    server.once('error', failed).listen(port, '127.0.0.1', done)
  })
  const timer = setInterval(() => pass(m, (everyMs / 1000) * speed), everyMs)
  const address = server.address() as { port: number }
  return {
    server,
    port: address.port,
    close: () => {
      clearInterval(timer)
      for (const s of sockets) s.destroy()
      server.close()
    },
  }
}
