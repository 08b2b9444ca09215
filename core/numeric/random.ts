import { need } from './need'

/** Small seeded generator for repeatable draws (common practice, no source). Uniform on [0, 1). Not for secrets. */
export function mulberry32(seed: number): () => number {
  need('seed', seed, 0, 2 ** 32)
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = a
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** The same things in an order drawn by a uniform generator (Fisher and Yates). */
export function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const out = [...list]
  for (let i = out.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1))
    ;[out[i], out[j]] = [out[j]!, out[i]!]
  }
  return out
}

/** A standard normal draw from a uniform generator (Box and Muller 1958). */
export function normalDraw(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
}
