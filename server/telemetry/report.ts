/** The plain-text temperature report that printers answer to M105. */
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
