/* eslint-disable max-lines -- the reader's one loop over bytes: cut apart, it is slower */
/**
 * One streaming pass over the bytes of a job file: call `push` with chunks of any size, then `finish`.
 * Memory does not grow with the file (but for the exact flow list, capped at two million moves).
 * The same code runs in the web worker, on the server and in the command line.
 *
 * Both readings of E are followed in the same pass. They share everything but the meaning of E words, and are one
 * object until the first E word on which they differ; from there on a copy follows the other reading.
 *
 * Longer than other files on purpose: the short cut and the full reader share their state on the hot path.
 */
import { arcPath } from './arc'
import { G, Line, M, T } from './line'
import { LARGEST, SMALLEST } from './number-text'
import { FAN, FEED, Material, PATH, ROUNDING_MM, SCALE, SHARED_FIELDS, WORD } from './material'
import {
  MOST_TOOLS,
  type Dialect,
  type FullScan,
  type Problem,
  type ProblemKind,
  type ProfileStep,
  type ScanOptions,
} from './types'
import { InputError, need, needIfKnown } from '../numeric'

const MAX_LISTED = 10_000
/** The highest number of a tool (rule 16). */
const LAST_TOOL = 999_999
/** In this many bytes from the start a file shows what its lines end in (rule 2). */
const DECIDED_BY = 1 << 16
const POWER = Float64Array.from({ length: 16 }, (_, i) => 10 ** i)
const X = 1,
  Y = 2,
  Z = 4,
  E = 8,
  F = 16
/** Fields of the shared array that only this file uses; the others are named in material.ts. */
const AT_X = 0,
  AT_Y = 1,
  AT_Z = 2
const BOM = [0xef, 0xbb, 0xbf]

/**
 * Reads a job file: `push` its bytes in pieces of any size, then `finish` for lengths (mm), volumes (mm³), flow
 * (mm³/s), setpoints (°C) and what could not be read. Throws InputError for options outside their ranges.
 *
 * @example
 * const job = new Scan({ diameterMm: 1.75 })
 * job.push(new TextEncoder().encode('M83\nG1 X100 E5 F1200\n'))
 * job.finish().totalExtrudedMm // 5 (mm)
 */
export class Scan {
  private readonly dialect: Dialect
  private readonly diameterMm: number
  private readonly totalBytes: number | null

  /** Where the nozzle is and the move at hand; shared with both readings, and an array so that no number is boxed. */
  private readonly s = new Float64Array(SHARED_FIELDS)
  private relative = false
  private fanMax = 0
  private tool = 0
  private named = new Set([0])
  private selected = new Set([0])
  private readonly setpoints: Record<string, number> = {}
  private bed: number | null = null
  private chamber: number | null = null

  // E as absolute in each reading, and the readings themselves (rule 14)
  private absoluteIndependent = true
  private absoluteFollowing = true
  private independent: Material
  private following: Material | null = null

  /** What ends a line (rule 2); null while the bytes held back have not shown it. */
  private ends: 'LF' | 'CR' | null = null
  private held: Uint8Array<ArrayBufferLike> = new Uint8Array(0)
  private afterCr = false

  private readonly line = new Line()
  private inLine = false
  private lines = 0
  private bytes = 0
  private notText = false
  private sawNoFeedrate = false
  private bom = 0
  private problems: Problem[] = []
  private notListed = 0
  private ignored = new Map<string, number>()
  private profile: { seconds: number; z: number; slots: number[] }[] = []
  private nextStep = 0
  private printZ = 0
  /**
   * Lowest height printed at, the way printed there in mm, and its time in min: a priming line higher up is not the
   * first layer.
   */
  private firstZ = Infinity
  private firstMm = 0
  private firstMin = 0

  constructor(options: ScanOptions = {}) {
    const { dialect = 'eIndependent', filamentDiameterMm = 1.75, totalBytes } = options
    if (dialect !== 'eIndependent' && dialect !== 'eFollowsPositioning')
      throw new InputError('dialect', dialect, 'eIndependent or eFollowsPositioning')
    need('filamentDiameterMm', filamentDiameterMm, 0.5, 5, 'mm')
    needIfKnown('totalBytes', totalBytes, 0, 1e15)
    this.dialect = dialect
    this.diameterMm = filamentDiameterMm
    this.totalBytes = totalBytes ?? null
    this.nextStep = totalBytes === undefined ? Infinity : 0
    this.s[SCALE] = 1
    this.independent = new Material(this.area, this.s)
  }

  private get area(): number {
    return (Math.PI / 4) * this.diameterMm * this.diameterMm
  }

  /** The next bytes of the file. The array is not kept. */
  push(chunk: Uint8Array): void {
    if (this.notText) return
    if (chunk.indexOf(0) !== -1) {
      this.notText = true
      return
    }
    const bytes = this.ends === null ? this.decideEnds(chunk) : chunk
    if (this.ends !== null) this.read(this.ends === 'CR' ? this.crToLf(bytes) : bytes)
  }

  /**
   * Adds to the bytes held back until an LF among the first 64 KB, or their number, shows what ends a line; then gives
   * them all.
   */
  private decideEnds(chunk: Uint8Array, isLast = false): Uint8Array {
    const before = this.held.length
    const lf = chunk.subarray(0, DECIDED_BY - before).indexOf(10) !== -1
    let all = chunk
    if (before > 0) {
      all = new Uint8Array(before + chunk.length)
      all.set(this.held)
      all.set(chunk, before)
    }
    if (lf) this.ends = 'LF'
    else if (isLast || all.length >= DECIDED_BY)
      this.ends = all.subarray(0, DECIDED_BY).indexOf(13) !== -1 ? 'CR' : 'LF'
    this.held = this.ends === null ? all.slice() : new Uint8Array(0)
    return all
  }

  /** Line ends of the old kind made LF; the LF of a CR LF further down belongs to its CR. */
  private crToLf(bytes: Uint8Array): Uint8Array {
    const out = new Uint8Array(bytes.length)
    let n = 0
    for (let i = 0; i < bytes.length; i++) {
      const c = bytes[i]!
      if (!(c === 10 && this.afterCr)) out[n++] = c === 13 ? 10 : c
      this.afterCr = c === 13
    }
    return out.subarray(0, n)
  }

  private read(chunk: Uint8Array): void {
    let i = this.bom < 3 ? this.skipBom(chunk) : 0
    const n = chunk.length
    const start = this.bytes
    const end = chunk.lastIndexOf(10) // lines up to here are whole
    if (this.inLine) i = this.slowLine(chunk, i)
    let step = this.nextStep - start
    while (i < n) {
      if (i >= step) {
        this.mark(start + i)
        step = this.nextStep - start
      }
      if (i < end) {
        const next = this.plainLine(chunk, i)
        if (next > 0) {
          i = next
          continue
        }
      }
      i = this.slowLine(chunk, i)
    }
    this.bytes = start + n
  }

  private skipBom(chunk: Uint8Array): number {
    let i = 0
    while (this.bom < 3 && i < chunk.length) {
      if (chunk[i] !== BOM[this.bom]) {
        const held = this.bom
        this.bom = 3
        if (held > 0) this.slowLine(Uint8Array.from(BOM.slice(0, held)), 0)
        return i
      }
      this.bom++
      i++
    }
    return i
  }

  /** Progress profile: note every whole percent of the file passed. */
  private mark(at: number): void {
    const total = this.totalBytes!
    const state = { seconds: this.chosen.seconds, z: this.printZ, slots: this.chosen.extrudedBySlot() }
    while (this.profile.length < 100 && at >= (total * this.profile.length) / 100) this.profile.push(state)
    this.nextStep = this.profile.length < 100 ? (total * this.profile.length) / 100 : Infinity
  }

  private get chosen(): Material {
    return this.dialect === 'eFollowsPositioning' && this.following ? this.following : this.independent
  }

  /**
   * Short cut for a whole comment or blank line, and for `G0` / `G1` followed by blank-separated X Y Z E F words of at
   * most 15 digits: no strings, no objects. Anything else returns -1 untouched. The chunk holds the line's LF.
   */
  private plainLine(b: Uint8Array, i: number): number {
    let c = b[i]!
    if (c !== 71) {
      // not G
      if (c === 10) {
        this.lines++
        return i + 1
      }
      if (c !== 59) return -1
      while (b[++i] !== 10);
      this.lines++
      return i + 1
    }
    c = b[i + 1]!
    if (c !== 49 && c !== 48) return -1
    let k = i + 2
    let seen = 0
    let x = 0,
      y = 0,
      z = 0,
      e = 0,
      f = 0
    for (;;) {
      c = b[k]!
      if (c === 32) {
        c = b[++k]!
        let bit: number
        if (c === 88) bit = X
        else if (c === 89) bit = Y
        else if (c === 69) bit = E
        else if (c === 70) bit = F
        else if (c === 90) bit = Z
        else if (c === 32 || c === 59 || c === 10 || c === 13) continue
        else return -1
        if ((seen & bit) !== 0) return -1
        seen |= bit
        const negative = b[++k] === 45
        if (negative) k++
        const first = k
        let digits = 0
        let number = 0
        c = b[k]! - 48
        while (c >>> 0 < 10) {
          number = (number * 10 + c) | 0
          c = b[++k]! - 48
        }
        digits = k - first
        let decimals = 0
        if (c === -2) {
          // point
          const point = k
          c = b[++k]! - 48
          while (c >>> 0 < 10) {
            number = (number * 10 + c) | 0
            c = b[++k]! - 48
          }
          decimals = k - point - 1
          digits += decimals
        }
        if (digits === 0 || (c !== -16 && c !== -38 && c !== -35 && c !== 11)) return -1 // not blank, LF, CR or ;
        let value = digits <= 9 ? number / POWER[decimals]! : longNumber(b, first, k, digits, decimals)
        if (value === -1) return -1
        if (negative) value = -value
        if (bit === X) x = value
        else if (bit === Y) y = value
        else if (bit === E) e = value
        else if (bit === F) f = value
        else z = value
        continue
      }
      k++
      if (c === 10) break
      if (c === 13) continue
      if (c !== 59) return -1
      while (b[k++] !== 10);
      break
    }
    this.lines++
    const s = this.s
    if ((seen & F) !== 0 && f > 0) s[FEED] = f * s[SCALE]!
    s[PATH] = 0
    if ((seen & (X | Y | Z)) !== 0) this.straight(seen, x, y, z)
    if ((seen & E) !== 0) {
      s[WORD] = e
      this.move(true)
    } else if (s[PATH] > 0) this.move(false)
    return k
  }

  /** Moves to a new place and notes the length of the straight way there, mm. */
  private straight(seen: number, x: number, y: number, z: number): void {
    const s = this.s
    const scale = s[SCALE]!
    let dx = 0,
      dy = 0,
      dz = 0
    if ((seen & X) !== 0) {
      dx = x * scale
      if (!this.relative) dx -= s[AT_X]!
      s[AT_X] = this.relative ? s[AT_X]! + dx : x * scale
    }
    if ((seen & Y) !== 0) {
      dy = y * scale
      if (!this.relative) dy -= s[AT_Y]!
      s[AT_Y] = this.relative ? s[AT_Y]! + dy : y * scale
    }
    if ((seen & Z) !== 0) {
      dz = z * scale
      if (!this.relative) dz -= s[AT_Z]!
      s[AT_Z] = this.relative ? s[AT_Z]! + dz : z * scale
    }
    const path = Math.sqrt(dx * dx + dy * dy + dz * dz)
    s[PATH] = path > ROUNDING_MM ? path : 0
  }

  /** The move in the shared array, with or without an E word, as both readings take it. */
  private move(extrudes: boolean): void {
    if (this.following === null && extrudes && this.absoluteIndependent !== this.absoluteFollowing)
      this.following = this.independent.clone()
    const a = this.independent.move(extrudes, this.absoluteIndependent)
    if (this.following === null) {
      if (a) this.printedAt()
      if (this.independent.untimed && !this.sawNoFeedrate) this.noFeedrate()
      return
    }
    const b = this.following.move(extrudes, this.absoluteFollowing)
    const chosen = this.chosen
    if (chosen === this.following ? b : a) this.printedAt()
    if (chosen.untimed && !this.sawNoFeedrate) this.noFeedrate()
  }

  private printedAt(): void {
    const s = this.s
    const z = (this.printZ = s[AT_Z]!)
    if (z > this.firstZ) return
    if (z < this.firstZ) {
      this.firstZ = z
      this.firstMm = 0
      this.firstMin = 0
    }
    if (s[FEED]! > 0) {
      this.firstMm += s[PATH]!
      this.firstMin += s[PATH]! / s[FEED]!
    }
  }

  private noFeedrate(): void {
    this.sawNoFeedrate = true
    this.problem('no-feedrate')
  }

  private problem(kind: ProblemKind): void {
    if (this.problems.length < MAX_LISTED) this.problems.push({ line: this.lines, kind })
    else this.notListed++
  }

  /** Feeds the full reader from `i` to the end of the line or of the chunk; returns where it stopped. */
  private slowLine(b: Uint8Array, i: number): number {
    const line = this.line
    if (!this.inLine) {
      line.start()
      this.inLine = true
    }
    const n = b.length
    while (i < n) {
      const c = b[i++]!
      if (c === 10) {
        this.endLine()
        return i
      }
      line.feed(c)
    }
    return i
  }

  private endLine(): void {
    const line = this.line
    this.inLine = false
    this.lines++
    line.finish()
    if (line.badChecksum) this.problem('bad-checksum')
    if (line.fault !== null) {
      this.problem(line.fault)
      return
    }
    if (line.ignored !== null) {
      this.ignored.set(line.ignored, (this.ignored.get(line.ignored) ?? 0) + 1)
      return
    }
    if (line.command >= 0) this.carryOut(line)
  }

  private carryOut(line: Line): void {
    switch (line.command) {
      case G + 0:
      case G + 1:
        this.carryOutMove(line, false)
        return
      case G + 2:
      case G + 3:
        this.carryOutMove(line, true)
        return
      case G + 10:
        if (line.has('P') && line.has('S') && this.canHave(line.get('P'))) this.setTool(line.get('P'), line.get('S'))
        return
      case G + 11:
        return
      case G + 20:
        this.s[SCALE] = 25.4
        return
      case G + 21:
        this.s[SCALE] = 1
        return
      case G + 90:
        this.relative = false
        this.absoluteFollowing = true
        return
      case G + 91:
        this.relative = true
        this.absoluteFollowing = false
        return
      case G + 92:
        this.renumber(line)
        return
      case M + 82:
        this.absoluteIndependent = this.absoluteFollowing = true
        return
      case M + 83:
        this.absoluteIndependent = this.absoluteFollowing = false
        return
      case M + 104:
      case M + 109: {
        const s = setpointOf(line)
        const tool = line.has('T') ? line.get('T') : this.tool
        if (s !== null && this.canHave(tool)) this.setTool(tool, s)
        return
      }
      case M + 140:
      case M + 190:
        this.bed = larger(this.bed, setpointOf(line))
        return
      case M + 141:
      case M + 191:
        this.chamber = larger(this.chamber, setpointOf(line))
        return
      case M + 106:
        if (line.has('P') && line.get('P') !== 0) return
        this.s[FAN] = line.has('S') ? Math.min(1, Math.max(0, line.get('S') / 255)) : 1
        this.fanMax = Math.max(this.fanMax, this.s[FAN])
        return
      case M + 107:
        if (!(line.has('P') && line.get('P') !== 0)) this.s[FAN] = 0
        return
      case M + 200:
        if (line.has('D')) this.eachReading(m => m.setVolumetric(line.get('D')))
        return
      case M + 221:
        if (line.has('S') && this.canHave(line.has('T') ? line.get('T') : this.tool))
          this.eachReading(m => m.setMultiplier(line.get('S'), line.has('T') ? line.get('T') : null))
        return
      case T:
        if (!this.canHave(line.toolNumber)) return
        this.tool = line.toolNumber
        this.selected.add(this.tool)
        this.eachReading(m => m.select(this.tool))
    }
  }

  private carryOutMove(line: Line, arc: boolean): void {
    const s = this.s
    const scale = s[SCALE]!
    if (arc) {
      const place = (axis: 'X' | 'Y' | 'Z', from: number) => {
        if (!line.has(axis)) return from
        return this.relative ? from + line.get(axis) * scale : line.get(axis) * scale
      }
      const word = (letter: string) => (line.has(letter) ? line.get(letter) * scale : null)
      const from = { x: s[AT_X]!, y: s[AT_Y]!, z: s[AT_Z]! }
      const to = { x: place('X', from.x), y: place('Y', from.y), z: place('Z', from.z) }
      const length = arcPath(from, to, word('I'), word('J'), word('R'), line.command === G + 2)
      if (length === null) {
        this.problem('bad-number')
        return
      }
      s[PATH] = length > ROUNDING_MM ? length : 0
      s[AT_X] = to.x
      s[AT_Y] = to.y
      s[AT_Z] = to.z
    } else {
      const seen = (line.has('X') ? X : 0) | (line.has('Y') ? Y : 0) | (line.has('Z') ? Z : 0)
      this.straight(seen, line.get('X'), line.get('Y'), line.get('Z'))
    }
    if (line.has('F') && line.get('F') > 0) s[FEED] = line.get('F') * scale
    const extrudes = line.has('E')
    if (extrudes) s[WORD] = line.get('E')
    if (extrudes || s[PATH]! > 0) this.move(extrudes)
  }

  private renumber(line: Line): void {
    const s = this.s
    const none = !line.has('X') && !line.has('Y') && !line.has('Z') && !line.has('E')
    if (none || line.has('X')) s[AT_X] = none ? 0 : line.get('X') * s[SCALE]!
    if (none || line.has('Y')) s[AT_Y] = none ? 0 : line.get('Y') * s[SCALE]!
    if (none || line.has('Z')) s[AT_Z] = none ? 0 : line.get('Z') * s[SCALE]!
    if (none || line.has('E')) this.eachReading(m => m.setE(none ? 0 : line.get('E')))
  }

  private eachReading(use: (m: Material) => void): void {
    use(this.independent)
    if (this.following) use(this.following)
  }

  /** False, with a problem, for a tool beyond what a job may name: its line changes nothing. */
  private canHave(tool: number): boolean {
    if (this.named.has(tool)) return true
    if (this.named.size >= MOST_TOOLS || tool > LAST_TOOL) {
      this.problem('too-many-tools')
      return false
    }
    this.named.add(tool)
    return true
  }

  private setTool(tool: number, celsius: number): void {
    this.setpoints[tool] = larger(this.setpoints[tool] ?? null, celsius)!
  }

  /** End of the file. Call once. */
  finish(): FullScan {
    if (this.ends === null && !this.notText) {
      const bytes = this.decideEnds(new Uint8Array(0), true)
      this.read(this.ends === 'CR' ? this.crToLf(bytes) : bytes)
    }
    if (this.bom > 0 && this.bom < 3 && !this.notText) {
      // the file ends inside what looked like a byte order mark
      const held = this.bom
      this.bom = 3
      this.slowLine(Uint8Array.from(BOM.slice(0, held)), 0)
    }
    if (this.inLine && !this.notText) this.endLine()
    if (this.notText) return this.nothing()
    const m = this.chosen
    const area = this.area
    const order = m.toolNumbers
      .map((tool, slot) => ({ tool, slot }))
      .filter(t => this.selected.has(t.tool))
      .sort((a, b) => a.tool - b.tool)
    const tools = order.map(({ tool, slot }) => {
      const t = m.totals(slot)
      return { index: tool, extrudedMm: t.offPartMm + t.printingMm, ...t }
    })
    const total = tools.reduce((s, t) => s + t.extrudedMm, 0)
    this.problems.sort((a, b) => a.line! - b.line! || Number(a.kind > b.kind) - Number(a.kind < b.kind))
    if (total === 0) this.problems.push({ line: null, kind: 'no-extrusion' })
    const flow = m.flow.figures()
    const notChosen = m === this.following ? this.independent : this.following
    const other = this.following === null ? null : notChosen
    const otherTotal = other ? other.extrudedBySlot().reduce((a, b) => a + b, 0) : 0
    return {
      dialect: this.dialect,
      filamentDiameterMm: this.diameterMm,
      tools,
      totalExtrudedMm: total,
      moveSeconds: m.seconds,
      flow: flow.all,
      maxSetpointC: { tools: this.setpoints, bed: this.bed, chamber: this.chamber },
      fan: { max: this.fanMax, mean: m.fanMean() },
      problems: this.problems,
      lines: this.lines,
      toolFlow: order.map(({ tool, slot }) => ({
        index: tool,
        ...flow.tools[slot]!,
        histogramMm3: m.flow.histogram(slot, area),
      })),
      flowBinned: m.flow.binned,
      printingMoves: m.flow.moves,
      otherReading: other && {
        dialect: this.dialect === 'eIndependent' ? 'eFollowsPositioning' : 'eIndependent',
        totalExtrudedMm: otherTotal,
        difference: Math.max(total, otherTotal) > 0 ? Math.abs(total - otherTotal) / Math.max(total, otherTotal) : 0,
      },
      ignored: Object.fromEntries([...this.ignored].sort()),
      profile: this.steps(
        order.map(o => o.slot),
        m,
      ),
      firstLayer: this.firstMin > 0 ? { heightMm: this.firstZ, meanMmS: this.firstMm / this.firstMin / 60 } : null,
      problemsNotListed: this.notListed,
    }
  }

  private steps(slots: number[], m: Material): ProfileStep[] | null {
    if (this.totalBytes === null) return null
    const last = { seconds: m.seconds, z: this.printZ, slots: m.extrudedBySlot() }
    while (this.profile.length < 101) this.profile.push(last)
    return this.profile.map((p, percent) => ({
      percent,
      seconds: p.seconds,
      zMm: p.z,
      extrudedMm: slots.map(s => p.slots[s] ?? 0),
    }))
  }

  /** Rule 1: a file that is not text has no results. */
  private nothing(): FullScan {
    return {
      dialect: this.dialect,
      filamentDiameterMm: this.diameterMm,
      tools: [],
      totalExtrudedMm: null,
      moveSeconds: null,
      flow: { peak: null, p50: null, p95: null },
      maxSetpointC: { tools: {}, bed: null, chamber: null },
      fan: { max: null, mean: null },
      problems: [{ line: null, kind: 'not-text' }],
      lines: null,
      toolFlow: [],
      flowBinned: false,
      printingMoves: 0,
      otherReading: null,
      ignored: {},
      profile: null,
      firstLayer: null,
      problemsNotListed: 0,
    }
  }
}

/**
 * A number of 10 to 15 digits, for which 32-bit arithmetic is too small; -1 beyond, or where it is too large or small
 * (rule 6).
 */
function longNumber(b: Uint8Array, from: number, to: number, digits: number, decimals: number): number {
  if (digits > 15) return -1
  let number = 0
  for (let k = from; k < to; k++) if (b[k] !== 46) number = number * 10 + b[k]! - 48
  const value = number / POWER[decimals]!
  return value === 0 || (value >= SMALLEST && value <= LARGEST) ? value : -1
}

function setpointOf(line: Line): number | null {
  if (line.has('S')) return line.get('S')
  return line.has('R') ? line.get('R') : null
}

function larger(a: number | null, b: number | null): number | null {
  if (a === null) return b
  return b === null ? a : Math.max(a, b)
}
