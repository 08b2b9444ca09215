/**
 * What the E words of one reading (dialect) mean: position, high-water mark and totals per tool (rules 16 to 20, 25 to
 * 27). Where the nozzle is, how fast it goes and how hot it is are the same in both readings and live in `scan.ts`.
 */
import { FlowRecord } from './flow'

/** Advances, paths and filament movements up to this are rounding, mm (rule 20). */
export const ROUNDING_MM = 1e-9

/** Fields of the array that describes the move at hand: 0 to 2 are the place of the nozzle and belong to scan.ts. */
export const SCALE = 3,
  FEED = 4,
  FAN = 5,
  PATH = 6,
  WORD = 7,
  SHARED_FIELDS = 8

const E = 0,
  POSITION = 1,
  MARK = 2,
  MULTIPLIER = 3,
  VOLUMETRIC = 4,
  OFF_PART = 5,
  PRINTING = 6,
  FIELDS = 7

export class Material {
  /** Tool numbers in the order of their slots. */
  toolNumbers: number[] = []
  private slots: Float64Array[] = []
  private slot = 0
  private now: Float64Array
  flow = new FlowRecord()
  /** Of all tools: [seconds, fan share × mm of printing moves, mm of printing moves]. */
  private readonly sums = new Float64Array(3)
  /** True after a move that had to be timed before any feedrate (rule 25). */
  untimed = false

  constructor(
    private areaMm2: number,
    private shared: Float64Array,
  ) {
    this.now = this.addTool(0)
  }

  private addTool(tool: number): Float64Array {
    const s = new Float64Array(FIELDS)
    s[MULTIPLIER] = 1
    this.toolNumbers.push(tool)
    this.slots.push(s)
    this.flow.addTool()
    return s
  }

  clone(): Material {
    const c = new Material(this.areaMm2, this.shared)
    c.toolNumbers = this.toolNumbers.slice()
    c.slots = this.slots.map(s => s.slice())
    c.slot = this.slot
    c.now = c.slots[c.slot]!
    c.flow = this.flow.clone()
    c.sums.set(this.sums)
    c.untimed = this.untimed
    return c
  }

  /** Slot of a tool that M221 or T names; M221 may name one that is selected only later. */
  private slotOf(tool: number): number {
    const i = this.toolNumbers.indexOf(tool)
    if (i >= 0) return i
    this.addTool(tool)
    return this.slots.length - 1
  }

  select(tool: number): void {
    this.slot = this.slotOf(tool)
    this.now = this.slots[this.slot]!
  }

  /** G92 (rule 15): value of the E word as written. */
  setE(word: number): void {
    this.now[E] = this.now[VOLUMETRIC] === 0 ? word * this.shared[SCALE]! : word
  }

  setMultiplier(percent: number, tool: number | null): void {
    const s = tool === null ? this.now : this.slots[this.slotOf(tool)]!
    s[MULTIPLIER] = percent / 100
  }

  /** M200 D: cross-section in mm² by which E words are divided; 0 switches it off. */
  setVolumetric(diameterMm: number): void {
    this.now[VOLUMETRIC] = diameterMm > 0 ? (Math.PI / 4) * diameterMm * diameterMm : 0
  }

  /**
   * One move as the shared array has it: path mm, E word as written (only with `extrudes`), mm per unit of it,
   * feed mm/min (0: not known yet), fan share. True for a printing move.
   */
  move(extrudes: boolean, absolute: boolean): boolean {
    const s = this.now
    const io = this.shared
    const path = io[PATH]!
    let moved = 0
    let advance = 0
    if (extrudes) {
      const area = s[VOLUMETRIC]!
      const value = area === 0 ? io[WORD]! * io[SCALE]! : io[WORD]!
      const delta = absolute ? value - s[E]! : value
      s[E] = absolute ? value : s[E]! + value
      moved = (area === 0 ? delta : delta / area) * s[MULTIPLIER]!
      const position = s[POSITION]! + moved
      s[POSITION] = position
      if (moved <= ROUNDING_MM && moved >= -ROUNDING_MM) moved = 0
      advance = position - s[MARK]!
      if (advance > ROUNDING_MM) s[MARK] = position
      else advance = 0
    }
    if (path === 0 && moved === 0) return false
    const feed = io[FEED]!
    const sums = this.sums
    const along = path > 0 ? path : Math.abs(moved)
    const seconds = feed > 0 ? (along * 60) / feed : 0
    if (feed > 0) sums[0]! += seconds
    else this.untimed = true
    if (advance === 0) return false
    if (path === 0) {
      s[OFF_PART]! += advance
      return false
    }
    s[PRINTING]! += advance
    sums[1]! += advance * io[FAN]!
    sums[2]! += advance
    if (feed > 0) this.flow.add((advance * this.areaMm2) / seconds, advance, this.slot)
    return true
  }

  get seconds(): number {
    return this.sums[0]!
  }

  fanMean(): number | null {
    return this.sums[2]! > 0 ? this.sums[1]! / this.sums[2]! : null
  }

  /** Millimetres extruded by the tool in a slot. */
  totals(slot: number): { offPartMm: number; printingMm: number } {
    const s = this.slots[slot]!
    return { offPartMm: s[OFF_PART]!, printingMm: s[PRINTING]! }
  }

  extrudedBySlot(): number[] {
    return this.slots.map(s => s[OFF_PART]! + s[PRINTING]!)
  }
}
