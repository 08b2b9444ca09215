/**
 * A bench as a plain job file, in the commands that every printer knows: relative extrusion, waits for temperature,
 * pauses with a line of text, heaters off at the end. The bed stays cold, motors are left to the printer's own idle
 * time-out, and nothing is changed that outlasts the job.
 * Source: the commands as the job-file reader knows them (docs/job-file-reader.md).
 */
import { filamentAreaMm2 } from '../materials'
import { InputError, need } from '../numeric'
import { FOLLOWS_S, planBench, PRIME_MM, PRIME_MM3S, type BenchSet } from './plan'

/** Where the head stands while it extrudes, mm from the printer's own zero. */
export const STAND_XY_MM = [0, 2000] as const
/** High enough that a blob hangs free; the printer's own travel ends it. */
export const STAND_Z_MM = [30, 1000] as const
/** Tools that a printer numbers. */
export const TOOL_NUMBERS = [0, 15] as const
/** Filament in one command, mm: many printers refuse a longer one as a slip. */
export const LONGEST_E_MM = 50

export interface BenchFile extends BenchSet {
  /** Said at the head of the file. */
  title: string
  stand: { xMm: number; yMm: number; zMm: number }
  /** Tool number; null for a printer with one head. */
  tool: number | null
}

/**
 * The text of the job file. Lengths in mm, flows in mm³/s, temperatures in °C. Throws InputError.
 */
export function benchFile(f: BenchFile): string {
  need('stand.xMm', f.stand.xMm, ...STAND_XY_MM, 'mm')
  need('stand.yMm', f.stand.yMm, ...STAND_XY_MM, 'mm')
  need('stand.zMm', f.stand.zMm, ...STAND_Z_MM, 'mm')
  if (f.tool !== null) {
    need('tool', f.tool, ...TOOL_NUMBERS)
    if (!Number.isInteger(f.tool)) throw new InputError('tool', f.tool, 'a whole number')
  }
  const { lines, minutes, grams } = planBench(f)
  const out = [
    `; ${plain(f.title)}`,
    `; ${lines.length} blobs of ${f.lengthMm} mm of ${f.diameterMm} mm filament`,
    `; about ${minutes.toFixed(0)} min and ${grams.toFixed(0)} g`,
    '; Stay by it: the nozzle is hot enough to burn at once. The bed stays cold.',
    'G21 ; mm',
    'G90 ; X, Y and Z absolute',
    'M83 ; E relative',
    ...(f.tool === null ? [] : [`T${f.tool}`]),
    'G28 ; home, cold',
    `G1 Z${number(f.stand.zMm)} F600 ; up first`,
    `G1 X${number(f.stand.xMm)} Y${number(f.stand.yMm)} F3000`,
    'M107 ; part fan off',
  ]
  const area = filamentAreaMm2(f.diameterMm)
  let atC: number | null = null
  for (const [i, l] of lines.entries()) {
    if (l.temperatureC !== atC) {
      atC = l.temperatureC
      out.push(`M104 S${number(atC)}`, `M109 S${number(atC)} ; wait for ${number(atC)} C`)
      out.push(...push(PRIME_MM, PRIME_MM3S, area), `G4 S${FOLLOWS_S}`)
      out.push(`M0 ${number(atC)} C: take this off, it does not count`)
    }
    out.push(`; blob ${i + 1} of ${lines.length}: ${number(l.temperatureC)} C, ${number(l.flowMm3S)} mm3/s`)
    out.push(...push(f.lengthMm, l.flowMm3S, area), `G4 S${FOLLOWS_S}`)
    out.push(`M0 Take off blob ${i + 1} of ${lines.length}`)
  }
  out.push('M104 S0 ; heaters off', 'M140 S0', `G1 Z${number(f.stand.zMm)} F600 ; parked where it stood`)
  return `${out.join('\n')}\n`
}

/** A length in pieces that no printer refuses, at a flow. */
function push(lengthMm: number, flowMm3S: number, areaMm2: number): string[] {
  const feed = ((flowMm3S / areaMm2) * 60).toFixed(3)
  const pieces: string[] = []
  for (let left = lengthMm; left > 1e-6; left -= LONGEST_E_MM)
    pieces.push(`G1 E${number(Math.min(left, LONGEST_E_MM))} F${feed}`)
  return pieces
}
const number = (v: number) => String(Number(v.toFixed(4)))
/** Text that no reader takes for a command: one line, plain letters. */
const plain = (s: string) =>
  s
    .normalize('NFKD')
    .replace(/[^ -~]/g, '')
    .replace(/[;()]/g, ' ')
    .trim()
