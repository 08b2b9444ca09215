/**
 * Stand-in balances: `P 812.4` puts a mass on one, `S` answers what it reads, in grams, in its own steps with a little
 * noise. `B 2.981 265 14 Wharfe` puts a blob on it that should weigh 2.981 g, extruded at 265 °C and 14 mm³/s by the
 * head of Wharfe, in the pan; `B 0` leaves the pan empty.
 */
import { delivers, type Head } from './flow-bench'
import { serveLines } from './lines'

/** The cup that blobs are weighed in, g. */
const PAN_G = 4.318

export interface BalanceOptions {
  /** What it reads to, g. */
  stepG?: number
  noise?: () => number
  /** Heads by printer, for blobs. */
  heads?: Readonly<Record<string, Head>>
}

export async function serveBalance(
  port = 0,
  { stepG = 0.1, noise = Math.random, heads = {} }: BalanceOptions = {},
): Promise<{ port: number; close: () => void }> {
  const decimals = Math.max(0, Math.round(-Math.log10(stepG)))
  /** What is put on it is there for who put it, until they hang up: a weight that is read changes nobody's. */
  function answering() {
    let onIt = 0
    return (line: string): string => {
      if (line === 'S') return `${(onIt + (onIt > 0 ? (noise() - 0.5) * 4 * stepG : 0)).toFixed(decimals)} g`
      const put = /^P (\d+(?:\.\d+)?)$/.exec(line)
      const blob = /^B (\d+(?:\.\d+)?)(?: (\d+(?:\.\d+)?) (\d+(?:\.\d+)?) (.+))?$/.exec(line)
      if (put) onIt = Number(put[1])
      else if (blob) onIt = PAN_G + Number(blob[1]) * (blob[4] === undefined ? 1 : shareOf(blob))
      else return 'error'
      return 'ok'
    }
  }
  /** Blobs of one cell differ by some tenths of a percent. */
  function shareOf([, , c, flow, printer]: RegExpExecArray): number {
    const head = heads[printer!]
    return (head ? delivers(head, Number(c), Number(flow)) : 1) * (1 + (noise() - 0.5) * 0.012)
  }
  return await serveLines(answering, port)
}
