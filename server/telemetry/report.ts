/** What devices answer: the plain-text temperature report of printers to M105, and a thermometer's channels. */
export interface Value {
  nowC: number
  setC: number | null
}
export interface Report {
  heads: Value[]
  bed: Value | null
  chamber: Value | null
}

const FIELD = /\b([TBC])(\d*):\s*(-?\d+(?:\.\d+)?)(?:\s*\/\s*(-?\d+(?:\.\d+)?))?/g

/** Channels that a thermometer may have. */
const MOST_CHANNELS = 4

/**
 * What a thermometer's channels read, °C, in their order: `1 241.3 2 -- 3 23.0`; null for one without a probe, and for
 * one that is broken (outside −200 to 1400 °C). Null when the line is none of its.
 */
export function readChannels(line: string): (number | null)[] | null {
  const words = line.trim().split(/\s+/)
  if (words.length === 0 || words.length % 2 !== 0 || words.length > 2 * MOST_CHANNELS) return null
  const out: (number | null)[] = []
  for (let i = 0; i < words.length; i += 2) {
    const [channel, reads] = [words[i]!, words[i + 1]!]
    if (channel !== String(i / 2 + 1) || !/^(--|-?\d+(\.\d+)?)$/.test(reads)) return null
    const c = Number(reads)
    out.push(reads === '--' || c < -200 || c > 1400 ? null : c)
  }
  return out
}

/** Null when the line is no report; values outside −50 to 600 °C (a broken sensor) are left out. */
export function readReport(line: string): Report | null {
  const out: Report = { heads: [], bed: null, chamber: null }
  let plain: Value | null = null
  let fields = 0
  for (const [, what, index, now, set] of line.matchAll(FIELD)) {
    const value: Value = { nowC: Number(now), setC: set === undefined ? null : Number(set) }
    fields++
    if (value.nowC < -50 || value.nowC > 600) continue
    if (what === 'B') out.bed = value
    else if (what === 'C') out.chamber = value
    else if (index === '') plain = value
    else out.heads[Number(index)] = value
  }
  // "T:" alone is the tool at hand; beside T0:, T1: it repeats one of them
  if (out.heads.length === 0 && plain) out.heads = [plain]
  out.heads = Array.from(out.heads)
  return fields === 0 ? null : out
}
