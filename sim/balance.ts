/**
 * A stand-in balance: `P 812.4` puts a mass on it, `S` answers what it reads, in grams, to a tenth with a little noise.
 */
import { serveLines } from './lines'

export async function serveBalance(
  port = 0,
  noise: () => number = Math.random,
): Promise<{ port: number; close: () => void }> {
  let onIt = 0
  function answer(line: string): string {
    if (line === 'S') return `${(onIt + (onIt > 0 ? (noise() - 0.5) * 0.4 : 0)).toFixed(1)} g`
    const put = /^P (\d+(?:\.\d+)?)$/.exec(line)
    if (!put) return 'error'
    onIt = Number(put[1])
    return 'ok'
  }
  return await serveLines(answer, port)
}
