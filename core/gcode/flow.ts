/**
 * The flow of printing moves (rule 27): exact quantiles up to two million moves, logarithmic bins beyond.
 * A bin is the exponent and the first ten mantissa bits of the double, so its width is under 0.1 % and its
 * middle is within 0.05 % of every flow in it.
 */
import type { FlowFigures } from './types'

/** Up to so many printing moves the quantiles of flow are exact. */
export const EXACT_MOVES = 2_000_000
export const HISTOGRAM_BINS = 64
const BLOCK = 1 << 15
const BIN_LOW = (1023 - 24) << 10 // 2^-24 mm³/s
const BINS = 48 << 10 // up to 2^24 mm³/s

const asDouble = new Float64Array(1)
const asWords = new Uint32Array(asDouble.buffer)
const HIGH = new Uint8Array(new Uint32Array([1]).buffer)[0] === 1 ? 1 : 0

function binOf(flow: number): number {
  asDouble[0] = flow
  const b = (asWords[HIGH]! >>> 10) - BIN_LOW
  if (b < 0) return 0
  return b >= BINS ? BINS - 1 : b
}

function middleOf(bin: number): number {
  asWords[HIGH] = ((bin + BIN_LOW) << 10) >>> 0
  asWords[1 - HIGH] = 0
  const low = asDouble[0]!
  asWords[HIGH] = ((bin + 1 + BIN_LOW) << 10) >>> 0
  return Math.sqrt(low * asDouble[0]!)
}

/** `histogram` holds the peak flow in its last place. */
interface ToolBins {
  histogram: Float64Array
  log: Float64Array | null
}
const PEAK = HISTOGRAM_BINS

/** Collects (flow, advance, tool) of printing moves with a known time. Flow in mm³/s, advance in mm. */
export class FlowRecord {
  private blocks: Float64Array[] = []
  private toolBlocks: Uint16Array[] = []
  private block: Float64Array = new Float64Array(2 * BLOCK)
  private toolBlock: Uint16Array = new Uint16Array(BLOCK)
  private inBlock = 0
  private tools: ToolBins[] = []
  moves = 0

  constructor() {
    this.blocks.push(this.block)
    this.toolBlocks.push(this.toolBlock)
  }

  addTool(): void {
    this.tools.push({
      histogram: new Float64Array(HISTOGRAM_BINS + 1),
      log: this.binned ? new Float64Array(BINS) : null,
    })
  }

  get binned(): boolean {
    return this.moves > EXACT_MOVES
  }

  add(flow: number, advance: number, slot: number): void {
    const h = this.tools[slot]!.histogram
    h[flow < HISTOGRAM_BINS - 1 ? flow | 0 : HISTOGRAM_BINS - 1]! += advance
    if (flow > h[PEAK]!) h[PEAK] = flow
    if (this.moves++ < EXACT_MOVES) {
      if (this.inBlock === BLOCK) this.grow()
      const k = this.inBlock++
      this.block[2 * k] = flow
      this.block[2 * k + 1] = advance
      this.toolBlock[k] = slot
    } else this.addBinned(flow, advance, slot)
  }

  private addBinned(flow: number, advance: number, slot: number): void {
    if (this.blocks.length > 0) this.fold()
    this.tools[slot]!.log![binOf(flow)]! += advance
  }

  private grow(): void {
    this.block = new Float64Array(2 * BLOCK)
    this.toolBlock = new Uint16Array(BLOCK)
    this.blocks.push(this.block)
    this.toolBlocks.push(this.toolBlock)
    this.inBlock = 0
  }

  /** Turns the exact list into bins and lets the list go. */
  private fold(): void {
    for (const t of this.tools) t.log = new Float64Array(BINS)
    this.eachExact((flow, advance, slot) => {
      this.tools[slot]!.log![binOf(flow)]! += advance
    })
    this.blocks = []
    this.toolBlocks = []
  }

  private eachExact(use: (flow: number, advance: number, slot: number) => void): void {
    this.blocks.forEach((b, i) => {
      const n = i === this.blocks.length - 1 ? this.inBlock : BLOCK
      const t = this.toolBlocks[i]!
      for (let k = 0; k < n; k++) use(b[2 * k]!, b[2 * k + 1]!, t[k]!)
    })
  }

  clone(): FlowRecord {
    const c = new FlowRecord()
    c.blocks = this.blocks.map(b => b.slice())
    c.toolBlocks = this.toolBlocks.map(b => b.slice())
    if (c.blocks.length > 0) {
      c.block = c.blocks[c.blocks.length - 1]!
      c.toolBlock = c.toolBlocks[c.toolBlocks.length - 1]!
    }
    c.inBlock = this.inBlock
    c.moves = this.moves
    c.tools = this.tools.map(t => ({ histogram: t.histogram.slice(), log: t.log && t.log.slice() }))
    return c
  }

  /** Volume in each 1 mm³/s bin of one tool, mm³, without the empty tail. `areaMm2` is the filament's cross-section. */
  histogram(slot: number, areaMm2: number): number[] {
    const h = Array.from(this.tools[slot]!.histogram.subarray(0, HISTOGRAM_BINS), v => v * areaMm2)
    while (h.length > 0 && h[h.length - 1] === 0) h.pop()
    return h
  }

  /**
   * Peak, median and 95 % flow by volume, of all tools together and of each by slot; two passes over the moves, however
   * many tools.
   */
  figures(): { all: FlowFigures; tools: FlowFigures[] } {
    const exact = this.blocks.length > 0
    const logs = this.tools.map(t => {
      if (!exact) return t.log
      return t.histogram[PEAK]! > 0 ? new Float64Array(BINS) : null
    })
    if (exact)
      this.eachExact((flow, advance, slot) => {
        logs[slot]![binOf(flow)]! += advance
      })
    const together = new Float64Array(BINS)
    for (const log of logs) if (log) for (let b = 0; b < BINS; b++) together[b]! += log[b]!
    const all = new Quantiles(
      together,
      this.tools.reduce((p, t) => Math.max(p, t.histogram[PEAK]!), 0),
    )
    const tools = this.tools.map((t, slot) => new Quantiles(logs[slot] ?? together, t.histogram[PEAK]!))
    if (exact) {
      this.eachExact((flow, advance, slot) => {
        const bin = binOf(flow)
        all.collect(bin, flow, advance)
        tools[slot]!.collect(bin, flow, advance)
      })
    }
    return { all: all.figures(exact), tools: tools.map(t => t.figures(exact)) }
  }
}

/** Where the median and the 95 % flow of some moves lie: by bins first, then among the moves of those two bins. */
class Quantiles {
  private readonly places: { bin: number; want: number; inside: [flow: number, advance: number][] }[]

  constructor(
    bins: Float64Array,
    private readonly peak: number,
  ) {
    this.places =
      peak === 0
        ? []
        : [0.5, 0.95].map(p => {
            const { bin, below, want } = binAt(bins, p)
            return { bin, want: want - below, inside: [] }
          })
  }

  collect(bin: number, flow: number, advance: number): void {
    for (const p of this.places) if (p.bin === bin) p.inside.push([flow, advance])
  }

  figures(exact: boolean): FlowFigures {
    const [p50 = null, p95 = null] = this.places.map(p =>
      exact ? smallestHolding(p.inside, p.want) : Math.min(this.peak, middleOf(p.bin)),
    )
    return { peak: this.peak === 0 ? null : this.peak, p50, p95 }
  }
}

/** The bin in which the weights, summed from below, first reach the share p of all weight. */
function binAt(bins: Float64Array, p: number): { bin: number; below: number; want: number } {
  let total = 0
  for (let b = 0; b < BINS; b++) total += bins[b]!
  const want = p * total * (1 - 1e-12)
  let below = 0
  let last = 0
  for (let b = 0; b < BINS; b++) {
    if (bins[b] === 0) continue
    if (below + bins[b]! >= want) return { bin: b, below, want }
    below += bins[b]!
    last = b
  }
  return { bin: last, below: below - bins[last]!, want }
}

/** Smallest value such that the pairs with values up to it weigh at least `want`; the largest value if none does. */
function smallestHolding(pairs: [value: number, weight: number][], want: number): number {
  pairs.sort((a, b) => a[0] - b[0])
  let sum = 0
  let value = NaN
  for (let i = 0; i < pairs.length; i++) {
    if (i > 0 && pairs[i]![0] !== value && sum >= want) return value
    value = pairs[i]![0]
    sum += pairs[i]![1]
  }
  return value
}
