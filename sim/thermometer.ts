/**
 * A stand-in thermometer with four channels, on a TCP port of the loopback: `A 1 Wharfe hotend` puts the probe of
 * channel 1 there, `A 1` takes it off, `R` answers what all of them read, like `1 241.3 2 23.1 3 -- 4 23.0`, in °C to a
 * tenth. Probes lag behind and scatter a little; one that hangs free reads the room.
 */
import { serveLines } from './lines'

export const CHANNELS = 4
/** How far a probe is behind, s. */
const LAG_S = 6
const NOISE_C = 0.1

interface Probe {
  at: string | null
  readC: number
  asOf: number
}

/**
 * `trueC` tells the true temperature at a named place, null where there is none; `speed` how many times as fast as the
 * clock it lives.
 */
export async function serveThermometer(
  trueC: (place: string) => number | null,
  {
    port = 0,
    speed = 1,
    roomC = 23,
    noise = Math.random,
    now = Date.now,
  }: { port?: number; speed?: number; roomC?: number; noise?: () => number; now?: () => number } = {},
): Promise<{ port: number; close: () => void }> {
  const probes: Probe[] = Array.from({ length: CHANNELS }, () => ({ at: null, readC: roomC, asOf: now() }))
  const settle = (p: Probe) => {
    const aroundC = p.at === null ? roomC : (trueC(p.at) ?? roomC)
    const seconds = ((now() - p.asOf) / 1000) * speed
    p.readC = aroundC + (p.readC - aroundC) * Math.exp(-seconds / LAG_S)
    p.asOf = now()
  }
  function answer(line: string): string {
    if (line === 'R') {
      probes.forEach(settle)
      return probes.map((p, i) => `${i + 1} ${(p.readC + (noise() - 0.5) * 2 * NOISE_C).toFixed(1)}`).join(' ')
    }
    const put = /^A ([1-4])(?: (.+))?$/.exec(line)
    const place = put?.[2] ?? null
    if (!put || (place !== null && trueC(place) === null)) return 'error'
    const probe = probes[Number(put[1]) - 1]!
    settle(probe)
    probe.at = place
    return 'ok'
  }
  return await serveLines(() => answer, port)
}
