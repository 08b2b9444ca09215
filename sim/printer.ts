/**
 * A stand-in printer on a TCP port of the loopback: lines in, lines out. M105 answers the temperature report as
 * printers do; M104, M140 and M141 set heaters. `door 1` and `door 0` stand for a hand at its door, which no real
 * printer takes.
 */
import type { Server } from 'node:net'
import { serveLines } from './lines'
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
  const served = await serveLines(() => line => answer(m, line), port)
  const timer = setInterval(() => pass(m, (everyMs / 1000) * speed), everyMs)
  return {
    ...served,
    close: () => {
      clearInterval(timer)
      served.close()
    },
  }
}
